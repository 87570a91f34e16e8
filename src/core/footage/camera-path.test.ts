import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cornerMove, inPlace, packPlacements, unpackPlacements, type Placement } from '../geometry/placement';
import { cameraAt, cameraPath, calmStretches } from './camera-path';
import { meanStep, pictureAt, pictureTimes } from './picture-times';

const size = { width: 1280, height: 720 };
const placement = fc.record({
  dx: fc.double({ min: -40, max: 40, noNaN: true }),
  dy: fc.double({ min: -40, max: 40, noNaN: true }),
  rotation: fc.double({ min: -2, max: 2, noNaN: true }),
  scale: fc.double({ min: 0.9, max: 1.1, noNaN: true }),
  agreement: fc.double({ min: 0, max: 1, noNaN: true }),
});
/** Rising times of at least one picture, at distances that vary as a phone's do. */
const times = (count: number) =>
  fc
    .array(fc.double({ min: 0.01, max: 0.1, noNaN: true }), { minLength: count, maxLength: count })
    .map((steps) => Float64Array.from(steps.map((_, at) => steps.slice(0, at).reduce((a, b) => a + b, 0))));
const take = fc
  .array(placement, { minLength: 1, maxLength: 30 })
  .chain((placements) => fc.tuple(fc.constant(placements), times(placements.length)));

describe("a camera's path", () => {
  it('lets a standing camera stand and keeps the moment of a bump', () => {
    const noisy = Array.from({ length: 40 }, (_, index) => ({
      ...inPlace,
      dx: (index >= 20 ? 2 : 0) + 0.03 * Math.sin(index * 9),
    }));
    expect(calmStretches(noisy, size).map(({ from }) => from)).toEqual([0, 20]);
    const starts = Float64Array.from(noisy, (_, index) => index / 25);
    const path = cameraPath(noisy, starts, size);
    expect([...path.times]).toEqual([0, 0.76, 0.8, 1.56]);
    const camera = cameraAt(path);
    expect(camera(0.79).dx).toBeCloseTo(0, 1);
    expect(camera(0.81).dx).toBeCloseTo(2, 1);
    expect(path.leaves).toBeCloseTo(0.8, 9);
    expect(cameraPath(noisy.slice(20), starts, size).leaves).toBeNull();
  });

  it('stands at every second within the noise of where its picture stood', () => {
    fc.assert(
      fc.property(take, fc.double({ min: -1, max: 4, noNaN: true }), ([placements, starts], seconds) => {
        const camera = cameraAt(cameraPath(placements, starts, size));
        const grace = meanStep(pictureTimes(starts)) / 2;
        const [shown, own] = [camera(seconds + grace), placements[pictureAt(starts, seconds)]];
        expect(Math.hypot(shown.dx - own.dx, shown.dy - own.dy)).toBeLessThan(0.3);
        expect(Math.abs(shown.rotation - own.rotation)).toBeLessThan(0.06);
      }),
    );
  });

  it('names the picture that lies furthest away, whatever the noise', () => {
    fc.assert(
      fc.property(take, ([placements, starts]) => {
        const { furthest } = cameraPath(placements, starts, size);
        const moves = placements.map((one: Placement) => cornerMove(one, size));
        expect(furthest.move).toBe(Math.max(...moves));
        if (furthest.move > 0) expect(starts[moves.indexOf(furthest.move)]).toBe(furthest.at);
      }),
    );
  });

  it('packs placements into 32 bits and back', () => {
    fc.assert(
      fc.property(fc.array(placement), (placements) => {
        const back = unpackPlacements(packPlacements(placements));
        expect(back).toHaveLength(placements.length);
        placements.forEach((one, at) => {
          for (const [key, value] of Object.entries(one))
            expect(back[at][key as keyof Placement]).toBeCloseTo(value, 4);
        });
      }),
    );
  });
});

describe('picture times', () => {
  it('are told by their number, ends and distances', () => {
    const { usual, shortest, longest, ...ends } = pictureTimes(Float64Array.of(0.1, 0.14, 0.24, 0.28));
    expect(ends).toEqual({ count: 4, first: 0.1, last: 0.28 });
    expect([usual, shortest, longest].map((value) => value.toFixed(6))).toEqual([
      '0.040000',
      '0.040000',
      '0.100000',
    ]);
    expect(pictureTimes(Float64Array.of(3))).toEqual({
      count: 1,
      first: 3,
      last: 3,
      usual: 0,
      shortest: 0,
      longest: 0,
    });
  });

  it('show the picture whose time has begun, with half a picture of grace', () => {
    const starts = Float64Array.of(0, 0.04, 0.1, 0.14);
    expect([0, 0.03, 0.05, 0.11, 9].map((time) => pictureAt(starts, time))).toEqual([0, 1, 1, 2, 3]);
  });
});
