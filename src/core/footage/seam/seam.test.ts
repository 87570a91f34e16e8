import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rasterMask } from '../../picture/mask';
import { coverOf, lossOf, tapped, thingsIn } from '../things';
import { painted } from '../../__tests__/scene';
import { seeded } from '../../random';
import { cutStill } from './cut';
import { addDisagreement, joinCost, newDisagreement, seamCost } from './join-cost';
import { outlinesOf } from './outlines';
import { solveSeam } from './seam';
import { largestThing, presenceOf } from '../presence';

const size = { width: 64, height: 36 };
const wall = (x: number, y: number): [number, number, number] => [120 + (x % 9), 100 + (y % 7), 90];
const figure = (left: number, colour: [number, number, number]) =>
  painted(size, (x, y) => (x >= left && x < left + 12 && y > 8 ? colour : wall(x, y)));

describe('the best seam', () => {
  // Efros & Freeman 2001; Agarwala 2004: never above any straight seam that obeys the same strokes.
  it('costs no more than any straight seam that keeps both sides', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), (seed) => {
        const next = seeded(seed);
        const small = { width: 24, height: 14 };
        const cost = Float64Array.from({ length: 24 * 14 }, () => next() * 20);
        const forced = new Int8Array(24 * 14).fill(-1);
        for (let y = 0; y < 14; y++) {
          forced[y * 24] = 0;
          forced[y * 24 + 23] = 1;
        }
        const best = seamCost(small, cost, cutStill(small, cost, forced));
        for (let column = 1; column < 24; column++) {
          const straight = Array.from({ length: 24 * 14 }, (_, at) => (at % 24 >= column ? 1 : 0));
          expect(best).toBeLessThanOrEqual(seamCost(small, cost, straight) + 1e-6);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('agrees with trying every division of a tiny picture', () => {
    const tiny = { width: 4, height: 3 };
    for (let seed = 1; seed < 12; seed++) {
      const next = seeded(seed);
      const cost = Float64Array.from({ length: 12 }, () => next() * 9);
      const forced = new Int8Array(12).fill(-1);
      forced[0] = 0;
      forced[11] = 1;
      const found = seamCost(tiny, cost, cutStill(tiny, cost, forced));
      let best = Infinity;
      for (let bits = 0; bits < 1 << 12; bits++) {
        const labels = Array.from({ length: 12 }, (_, at) => (bits >> at) & 1);
        if (labels[0] === 0 && labels[11] === 1) best = Math.min(best, seamCost(tiny, cost, labels));
      }
      expect(found).toBeCloseTo(best, 9);
    }
  });

  it('keeps both performers and runs where the takes agree', () => {
    const left = [0, 1, 2].map((step) => figure(8 + step, [150, 30, 30]));
    const right = [0, 1, 2].map((step) => figure(42 - step, [30, 40, 150]));
    const seam = solveSeam(
      [left, right],
      [
        { take: 0, points: [[14, 20]] },
        { take: 1, points: [[46, 20]] },
      ],
      { still: true },
    );
    expect(seam.labels).toHaveLength(1);
    for (const [x, label] of [
      [8, 0],
      [21, 0],
      [41, 1],
      [53, 1],
    ])
      expect(seam.labels[0].data[20 * 64 + x]).toBe(label);
    expect(Math.max(...seam.visible)).toBeLessThan(0.5);
    expect(seam.outline).toHaveLength(1);
  });

  // With dots for strokes the shortest join of pictures that agree is a ring round one dot.
  it.each([
    ['in the middle of either half', 16, 48],
    ['close together at one edge', 4, 14],
    ['at the frame’s edges', 2, 62],
  ])('neither shrinks onto a stroke nor hugs the edge: dots %s', (_, left, right) => {
    const blank = () => [painted(size, wall)];
    const strokes = [left, right].map((x, take) => ({ take, points: [[x, 18]] as [number, number][] }));
    const { labels, visible } = solveSeam([blank(), blank()], strokes, { still: true });
    const [{ data }] = labels;
    const middle = (left + right) / 2;
    // What lies clearly nearer to one stroke shows its take, from the top to the bottom.
    for (const y of [1, 18, 34])
      for (let x = 0; x < size.width; x++)
        if (Math.abs(x - middle) > 6) expect(data[y * size.width + x], `${x}, ${y}`).toBe(x < middle ? 0 : 1);
    expect(visible[0]).toBe(0);
  });

  it('still runs where the takes agree, however much nearer to one stroke that is', () => {
    // The left performer reaches far over to the right, where nobody of the other take stands.
    const wide = [painted(size, (x, y) => (x >= 4 && x < 44 && y > 8 ? [150, 30, 30] : wall(x, y)))];
    const strokes = [8, 54].map((x, take) => ({ take, points: [[x, 20]] as [number, number][] }));
    const { labels, visible } = solveSeam([wide, [figure(50, [30, 40, 150])]], strokes, { still: true });
    for (const x of [4, 30, 43]) expect(labels[0].data[20 * size.width + x]).toBe(0);
    for (const x of [50, 61]) expect(labels[0].data[20 * size.width + x]).toBe(1);
    expect(visible[0]).toBeLessThan(0.5);
  });

  it('may move from frame to frame, and divides between three takes', () => {
    const takes = [4, 26, 48].map((left, index) =>
      [0, 1].map(() => figure(left, [40 + 90 * index, 30, 200 - 80 * index])),
    );
    const strokes = [4, 26, 48].map((left, take) => ({
      take,
      points: [[left + 6, 20]] as [number, number][],
    }));
    const seam = solveSeam(takes, strokes);
    expect(seam.labels).toHaveLength(2);
    [4, 26, 48].forEach((left, take) => {
      for (const x of [left, left + 11]) expect(seam.labels[0].data[24 * 64 + x]).toBe(take);
    });
  });

  it('refuses what does not belong together', () => {
    const one = [figure(8, [1, 2, 3])];
    expect(() => solveSeam([one], [])).toThrow(expect.objectContaining({ code: 'takes' }));
    expect(() => solveSeam([one, []], [])).toThrow(expect.objectContaining({ code: 'frames-differ' }));
    expect(() => solveSeam([one, [painted({ width: 8, height: 8 }, wall)]], [])).toThrow(
      expect.objectContaining({ code: 'sizes-differ' }),
    );
  });

  it('gathers disagreement and draws the outline of a half', () => {
    const seen = newDisagreement(size);
    addDisagreement(seen, figure(8, [0, 0, 0]), figure(8, [0, 0, 0]));
    expect(Math.max(...joinCost(seen))).toBeCloseTo(0.05, 9);
    const labels = Uint8Array.from({ length: 64 * 36 }, (_, at) => (at % 64 >= 30 ? 1 : 0));
    const xs = outlinesOf(size, labels)[0].map(([x]) => x);
    expect(Math.min(...xs)).toBeCloseTo(30, 0);
    expect(Math.max(...xs)).toBe(64);
  });
});

describe('outlines', () => {
  it('keep holes and islands, and leave out specks', () => {
    const inside = (x: number, y: number) => {
      const hole = x >= 40 && x < 50 && y >= 10 && y < 20;
      const island = x >= 4 && x < 14 && y >= 20 && y < 30;
      const speck = x === 20 && y === 4;
      return (x >= 30 && !hole) || island || speck;
    };
    const labels = Uint8Array.from({ length: 64 * 36 }, (_, at) =>
      inside(at % 64, Math.floor(at / 64)) ? 1 : 0,
    );
    const rings = outlinesOf(size, labels);
    expect(rings).toHaveLength(3);
    const painted = rasterMask(rings, 0, size).data;
    let off = 0;
    painted.forEach((value, at) => (off += Math.abs(value / 255 - labels[at])));
    // Corners are cut by a pixel, and the speck is gone; a hole is a hundred pixels.
    expect(off).toBeLessThan(40);
  });
});

describe('the things of a take', () => {
  const cells = { width: 40, height: 20 };
  /** Somebody six cells wide from each of some columns, eleven cells tall. */
  const row = (...from: number[]) =>
    Uint8Array.from({ length: 800 }, (_, cell) =>
      from.some((x) => cell % 40 >= x && cell % 40 < x + 6) && cell / 40 >= 8 && cell / 40 < 19 ? 1 : 0,
    );
  const presence = { ...cells, frames: [row(2, 30), row(4, 30), row(6, 30), row(8, 30)] };
  const things = thingsIn(presence);
  const shows = (column: number) =>
    Float32Array.from({ length: 800 }, (_, cell) => (cell % 40 < column ? 1 : 0));

  it('are told apart, tapped one by one, and covered together', () => {
    expect(things.count).toBe(2);
    expect([...tapped(things, presence, [{ frame: 3, at: [11 / 40, 0.6] }])]).toEqual([0]);
    const both = tapped(things, presence, [
      { frame: 0, at: [5 / 40, 0.6] },
      { frame: 0, at: [33 / 40, 0.6] },
    ]);
    expect(both.size).toBe(2);
    const cover = coverOf(things, both);
    expect([cover[12 * 40 + 2], cover[12 * 40 + 13], cover[12 * 40 + 33], cover[12 * 40 + 20]]).toEqual([
      1, 1, 1, 0,
    ]);
    expect(tapped(things, presence, [{ frame: 0, at: [0.5, 0.1] }]).size).toBe(0);
  });

  it('lose what a division takes from them: nothing, a part in some frames, or all', () => {
    expect(lossOf(things, 0, cells, () => shows(20), 0.06)).toBeNull();
    const cut = lossOf(things, 0, cells, () => shows(10), 0.06);
    expect(cut).toMatchObject({ frames: [2, 3], whole: false });
    expect(cut?.share).toBeCloseTo(4 / 6, 9);
    expect(cut?.at[0]).toBeCloseTo(11 / 40, 9);
    expect(lossOf(things, 1, cells, () => shows(20), 0.06)).toMatchObject({
      frames: [0, 1, 2, 3],
      whole: true,
    });
  });
});

describe('following a tap', () => {
  it('takes the performer through time and leaves the other one out', () => {
    const cells = { width: 32, height: 18 };
    const plate = painted(size, wall);
    const frames = [0, 1, 2, 3].map((step) =>
      presenceOf(
        plate,
        painted(size, (x, y) => {
          const walker = x >= 6 + step * 4 && x < 16 + step * 4 && y > 8;
          const stranger = x > 54 && y > 20;
          return walker || stranger ? [10, 20, 200] : wall(x, y);
        }),
        cells,
      ),
    );
    const presence = { ...cells, frames };
    const things = thingsIn(presence);
    const covered = coverOf(things, tapped(things, presence, [{ frame: 0, at: [10 / 64, 0.7] }]));
    expect(covered[12 * 32 + 4]).toBe(1);
    expect(covered[12 * 32 + 12]).toBe(1);
    expect(covered[15 * 32 + 29]).toBe(0);
    expect(tapped(things, presence, [{ frame: 0, at: [0.6, 0.1] }]).size).toBe(0);
    expect(largestThing({ ...cells, frames }, 0)?.[0]).toBeCloseTo(11 / 64, 1);
  });
});
