import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { blankYuv, chromaSide, type YuvImage } from './planes';
import { seeded } from '../random';
import { spotsAt, veiled, type Spot, type Veil } from './veil';

const size = { width: 96, height: 64 };

/** A picture of which no pixel follows from another. */
function noise(seed: number): YuvImage {
  const next = seeded(seed);
  const image = blankYuv(size);
  for (const plane of [image.y, image.u, image.v])
    for (let at = 0; at < plane.length; at++) plane[at] = 16 + Math.floor(220 * next());
  return image;
}

const spot: Spot = { x: 40, y: 30, across: 18, down: 18 };
const inside = ({ x, y, across, down }: Spot, column: number, row: number, wider = 1) =>
  Math.hypot((column + 0.5 - x) / (across * wider), (row + 0.5 - y) / (down * wider)) < 1;

describe('hiding somebody in a picture', () => {
  it('leaves everything else as it is, in a picture of its own', () => {
    const picture = noise(1);
    const before = Uint8Array.from(picture.y);
    const hidden = veiled(picture, [spot]);
    expect(picture.y).toEqual(before);
    for (let row = 0; row < size.height; row++)
      for (let column = 0; column < size.width; column++)
        if (!inside(spot, column, row, 1.13))
          expect(hidden.y[row * size.width + column]).toBe(before[row * size.width + column]);
  });

  it('leaves of whoever is hidden no more than 4 × 4 mean colours: what else they look like changes nothing', () => {
    const one = noise(2);
    const other = { ...one, y: Uint8Array.from(one.y) };
    // Neighbours in one cell change places: its mean stays, every detail is another.
    for (let row = 0; row < size.height; row++)
      for (let column = 0; column < size.width; column += 2)
        if (inside(spot, column, row) && inside(spot, column + 1, row)) {
          const at = row * size.width + column;
          if (Math.floor((column + 0.5 - 22) / 9) === Math.floor((column + 1.5 - 22) / 9))
            [other.y[at], other.y[at + 1]] = [one.y[at + 1], one.y[at]];
        }
    const [a, b] = [veiled(one, [spot]), veiled(other, [spot])];
    expect(other.y).not.toEqual(one.y);
    for (let row = 0; row < size.height; row++)
      for (let column = 0; column < size.width; column++)
        if (inside(spot, column, row))
          expect(a.y[row * size.width + column]).toBe(b.y[row * size.width + column]);
  });

  it('goes evenly from one mean to the next, in colours as in light', () => {
    const hidden = veiled(noise(3), [spot]);
    const half = { width: chromaSide(size.width), height: chromaSide(size.height) };
    const steps = (plane: Uint8Array, { width }: typeof size, by: number) => {
      let most = 0;
      for (let row = Math.ceil((spot.y - 10) / by); row < (spot.y + 10) / by; row++)
        for (let column = Math.ceil((spot.x - 10) / by); column < (spot.x + 10) / by; column++)
          most = Math.max(most, Math.abs(plane[row * width + column] - plane[row * width + column - 1]));
      return most;
    };
    // Of 220 codes of noise, means of 80 pixels and more differ by some ten, over nine pixels of light.
    expect(steps(hidden.y, size, 1)).toBeLessThan(8);
    expect(steps(hidden.u, half, 2)).toBeLessThan(14);
    expect(steps(hidden.v, half, 2)).toBeLessThan(14);
  });

  it('never fails, wherever a spot lies', () => {
    const spots = fc.record({
      x: fc.double({ min: -200, max: 300, noNaN: true }),
      y: fc.double({ min: -200, max: 300, noNaN: true }),
      across: fc.double({ min: 0, max: 200, noNaN: true }),
      down: fc.double({ min: 0, max: 200, noNaN: true }),
    });
    const picture = noise(4);
    fc.assert(
      fc.property(spots, (one) => {
        const hidden = veiled(picture, [one]);
        const least = Math.min(...picture.y);
        expect(Math.min(...hidden.y)).toBeGreaterThanOrEqual(least);
      }),
    );
    expect(veiled(picture, [])).toEqual(picture);
    // One that ends where the picture begins reaches into it with its soft rim alone, and has no colours.
    expect(veiled(picture, [{ x: -50, y: 20, across: 50, down: 60 }])).toEqual(picture);
  });
});

describe('where somebody is hidden', () => {
  const veil = (covers: Veil['covers'] = 'face'): Veil => ({
    covers,
    places: [
      { time: 2, at: [0.25, 0.5], reach: 0.05 },
      { time: 2.2, at: [0.5, 0.5], reach: 0.1 },
      { time: 4.2, at: [0.5, 0.25], reach: 0.1 },
    ],
  });
  const at = (seconds: number) => spotsAt([veil()], seconds, { width: 200, height: 100 })[0];

  it('goes evenly between places, and counts in pixels of either side alike', () => {
    const { x, y, across, down } = at(2.1);
    expect([x, y, across, down].map((value) => Number(value.toFixed(6)))).toEqual([75, 50, 15, 15]);
  });

  it('is wider the longer ago somebody was found, up to three times', () => {
    expect(at(2.3).across).toBeCloseTo(20, 6);
    expect(at(3.2)).toMatchObject({ x: 100, y: 37.5 });
    expect(at(3.2).across).toBeCloseTo(20 * 1.85, 6);
    expect(at(60).across).toBeCloseTo(60, 6);
    expect(at(-60)).toMatchObject({ x: 50, y: 50 });
    expect(at(-60).across).toBeCloseTo(30, 6);
  });

  it('holds a whole body below the head', () => {
    const [body] = spotsAt([veil('body')], 2, { width: 200, height: 100 });
    const [head] = spotsAt([veil()], 2, { width: 200, height: 100 });
    expect(body.y - body.down).toBeLessThan(head.y - head.down);
    // Seven heads and a half are somebody's height (common practice of drawing, no published source): a head's reach is more than half of one.
    expect(body.y + body.down).toBeGreaterThan(head.y + (7.5 * 2 * head.down) / 1.5 - head.down);
    expect(body.across).toBeGreaterThan(2 * head.across);
  });
});
