import { describe, expect, it } from 'vitest';
import { inPlace } from '../geometry/placement';
import type { Comparison } from '../model/measures';
import { chosenTake } from '../recipes/__tests__/chosen';
import { cameraPath } from './camera-path';
import { pairMeasures } from './pair-measures';
import { rankPairs } from './pairs';
import { coveredCells, packCells, unpackCells } from './presence';

const rate = { num: 24, den: 1 };
const size = { width: 1280, height: 720 };
const starts = Float64Array.from({ length: 96 }, (_, index) => index / 24);

/** Somebody who covers eight columns from one on, at each second of four. */
const standing = (columns: readonly number[]) => ({
  times: columns.map((_, second) => second),
  packed: columns.map((from) =>
    packCells(
      Uint8Array.from({ length: coveredCells.width * coveredCells.height }, (_, cell) => {
        const [x, y] = [cell % coveredCells.width, Math.floor(cell / coveredCells.width)];
        return y > 8 && x >= from && x < from + 8 ? 1 : 0;
      }),
    ),
  ),
});
/** A take whose camera stood off by some pixels, and whose light was some stops off. */
function measures(id: string, columns: readonly number[], dx = 0, stops = 0, set = {}, more = {}) {
  const { take, measure } = chosenTake(id, size, rate, 96, set);
  if (!measure) throw new Error('It is measured.');
  const comparison = {
    path: cameraPath(
      Array.from(starts, () => ({ ...inPlace, dx })),
      starts,
      size,
    ),
    left: 0.05,
    colour: { stops, before: 15 * Math.abs(stops), after: 0.6, ...more },
    agreement: 1,
    covered: new Uint8Array(),
    standing: standing(columns),
  } as unknown as Comparison;
  return pairMeasures(take, measure, comparison, null);
}
const [left, right] = [measures('left', [4, 6, 8, 8]), measures('right', [30, 30, 28, 28])];
const scoreWith = (other: typeof right) => rankPairs([left], [other])[0].score;

describe('what ranking is told of a take', () => {
  it('puts takes first that stand still, share their light and leave each other room', () => {
    const good = scoreWith(right);
    expect(good).toBeGreaterThan(0.85);
    expect(scoreWith(measures('moved', [30, 30, 28, 28], 5))).toBeLessThan(0.7 * good);
    expect(scoreWith(measures('dark', [30, 30, 28, 28], 0, -0.5))).toBeLessThan(0.9 * good);
    expect(scoreWith(measures('same', [4, 6, 8, 8]))).toBeLessThan(0.3 * good);
  });

  it('counts a colour cast as light that is off, and what a match leaves of it', () => {
    const good = scoreWith(right);
    const tinted = (set = {}, after = 0.6) =>
      scoreWith(measures('tinted', [30, 30, 28, 28], 0, 0, set, { before: 7, after }));
    expect(tinted()).toBeLessThan(0.85 * good);
    expect(tinted({ match: true })).toBeGreaterThan(0.95 * good);
    // A match that does not reach it.
    expect(tinted({ match: true }, 6)).toBeLessThan(0.85 * good);
  });

  it('counts a fix that is on as done', () => {
    const good = scoreWith(right);
    expect(scoreWith(measures('steady', [30, 30, 28, 28], 5, 0, { steady: true }))).toBeGreaterThan(
      0.95 * good,
    );
    expect(scoreWith(measures('matched', [30, 30, 28, 28], 0, -0.5, { match: true }))).toBeGreaterThan(
      0.95 * good,
    );
  });

  it('looks twice a second at whoever was seen nearest in time, and at nobody where nothing was kept', () => {
    const { presence, lock } = measures('one', [4, 30, 30, 30], 3);
    expect(presence?.every).toBe(0.5);
    expect(presence?.frames).toHaveLength(8);
    expect(lock).toBeCloseTo(4.5, 6);
    expect(presence?.frames[0][10 * coveredCells.width + 5]).toBe(1);
    expect(presence?.frames[7][10 * coveredCells.width + 31]).toBe(1);
    expect(measures('nobody', []).presence).toBeNull();
  });

  it('packs cells without loss', () => {
    const cells = Uint8Array.from({ length: 1301 }, (_, cell) => ((cell * 7919) % 3 === 0 ? 1 : 0));
    expect(unpackCells(packCells(cells), 1301)).toEqual(cells);
  });
});
