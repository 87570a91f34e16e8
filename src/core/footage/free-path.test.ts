import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shot, texture } from '../__tests__/scene';
import {
  cornerMove,
  chain,
  inPlace,
  inverted,
  unpackPlacements,
  type Placement,
} from '../geometry/placement';
import { seeded } from '../random';
import { FreePathPass, smoothPath } from './free-path';

const size = { width: 480, height: 270 };
const perSecond = 25;
const timesOf = (count: number) => Float64Array.from({ length: count }, (_, index) => 3 + index / perSecond);

/** A hand that walks: a way that one means, and what the hand adds. */
const meant = (index: number): Placement => ({ ...inPlace, dx: 2.2 * index, dy: 8 * Math.sin(index / 30) });
function walked(count: number, by = 1): Placement[] {
  const next = seeded(5);
  return Array.from({ length: count }, (_, index) =>
    chain(meant(index), {
      ...inPlace,
      dx: by * 5 * (next() - 0.5),
      dy: by * 5 * (next() - 0.5),
      rotation: by * 0.5 * (next() - 0.5),
    }),
  );
}

describe('the way of a camera that moves freely', () => {
  it('is found against the first picture, past somebody who goes along before it', () => {
    const way = walked(30);
    const whole = texture(3, { width: 480, height: 272 });
    const scene = (x: number, y: number) => whole(x / 2, y / 2);
    const pass = new FreePathPass();
    way.forEach((placement, index) => {
      const performer = { x: 40 + 5 * index, y: 60, w: 120, h: 210 };
      const luma = shot(scene, size, placement, { noise: 2, seed: index, performer });
      pass.push({ luma, seconds: timesOf(30)[index] });
    });
    const path = pass.finish();
    expect(path).toMatchObject({ size, lost: [] });
    const found = unpackPlacements(path.placements);
    const from = inverted(way[0]);
    const off = way.map((placement, index) =>
      cornerMove(chain(inverted(chain(from, placement)), found[index]), size),
    );
    console.info(off.map((one) => one.toFixed(2)).join(' '));
    expect(Math.max(...off)).toBeLessThan(0.5);
  }, 60_000);

  it('goes on past a picture in which nothing can be seen, and says so', () => {
    const scene = texture(4, { width: 960, height: 540 });
    const pass = new FreePathPass();
    const times = timesOf(6);
    for (let index = 0; index < 6; index++) {
      const black = { ...size, data: new Float32Array(size.width * size.height) };
      pass.push({
        luma: index === 3 ? black : shot(scene, size, meant(index), { noise: 2, seed: index }),
        seconds: times[index],
      });
    }
    const path = pass.finish();
    expect(path.lost).toContain(times[3]);
    expect(path.placements.every(Number.isFinite)).toBe(true);
    expect(unpackPlacements(path.placements)).toHaveLength(6);
  }, 60_000);
});

describe('smoothing a way', () => {
  it('takes out what the hand adds and leaves where one went', () => {
    const way = walked(150);
    const { moves, shakes, cover, done } = smoothPath(way, timesOf(150), size, 0.5);
    expect(done).toBe(1);
    expect(shakes.after).toBeLessThan(shakes.before / 8);
    const off = way.map((here, index) =>
      cornerMove(chain(inverted(meant(index)), chain(here, moves[index])), size),
    );
    expect(Math.max(...off)).toBeLessThan(2.5);
    expect(cover).toBeGreaterThan(1);
    expect(cover).toBeLessThan(1.05);
  });

  it('leaves a camera that goes evenly as it goes, to its ends', () => {
    const even = Array.from({ length: 60 }, (_, index): Placement => ({
      ...inPlace,
      dx: 2 * index,
      dy: -index,
    }));
    const { moves, cover } = smoothPath(even, timesOf(60), size, 1);
    for (const move of moves) expect(cornerMove(move, size)).toBeLessThan(1e-6);
    expect(cover).toBeCloseTo(1, 6);
  });

  it('never shows an edge, and enlarges no further than is allowed, whatever the hand did', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (by, strength) => {
          const { moves, cover, done } = smoothPath(walked(50, by), timesOf(50), size, strength);
          expect(cover).toBeLessThanOrEqual(1.15 + 1e-6);
          expect(done).toBeGreaterThanOrEqual(0);
          expect(done).toBeLessThanOrEqual(1);
          // Enlarged so, every corner of the frame lies in the picture.
          for (const { dx, dy, rotation, scale } of moves) {
            const angle = (-rotation * Math.PI) / 180;
            for (const [sx, sy] of [
              [-1, -1],
              [1, -1],
              [-1, 1],
              [1, 1],
            ]) {
              const [x, y] = [(sx * size.width) / 2 - dx, (sy * size.height) / 2 - dy];
              const by = 1 / (scale * cover);
              expect(Math.abs(by * (Math.cos(angle) * x - Math.sin(angle) * y))).toBeLessThanOrEqual(
                size.width / 2 + 1e-6,
              );
              expect(Math.abs(by * (Math.sin(angle) * x + Math.cos(angle) * y))).toBeLessThanOrEqual(
                size.height / 2 + 1e-6,
              );
            }
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('says how much was done where more would enlarge too far', () => {
    const { done, cover } = smoothPath(walked(100, 30), timesOf(100), size, 1);
    expect(done).toBeGreaterThan(0);
    expect(done).toBeLessThan(1);
    expect(cover).toBeCloseTo(1.15, 3);
  });

  it('has nothing to do with one picture, or none', () => {
    expect(smoothPath([inPlace], timesOf(1), size, 1)).toMatchObject({ cover: 1, done: 1 });
    expect(smoothPath([], timesOf(0), size, 1)).toMatchObject({ moves: [], cover: 1 });
  });
});
