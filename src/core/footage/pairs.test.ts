import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { besideParts, rankPairs, usualWeights, type TakeMeasures } from './pairs';

const grid = { width: 96, height: 54, every: 0.1 };

/** Somebody ten cells wide whose left edge is at a column of each frame. */
const standing = (columns: readonly number[]): TakeMeasures['presence'] => ({
  ...grid,
  frames: columns.map((left) => {
    const frame = new Uint8Array(grid.width * grid.height);
    for (let y = 20; y < grid.height; y++)
      for (let x = Math.max(0, Math.round(left)); x < Math.min(grid.width, left + 10); x++)
        frame[y * grid.width + x] = 1;
    return frame;
  }),
});
const take = (id: string, columns: readonly number[], more: Partial<TakeMeasures> = {}): TakeMeasures => ({
  id,
  lock: 0.1,
  light: 0,
  body: { across: 0.5, eyes: 0.3, stature: 0.5 },
  presence: standing(columns),
  ...more,
});
const stays = (column: number, count = 40) => Array.from({ length: count }, () => column);

describe('pairs of takes', () => {
  it('are ranked by camera, light and eyes, all else being alike', () => {
    const left = [take('left', stays(10))];
    const good = take('good', stays(60));
    const cases = [
      ['lock', 4, 'lock'],
      ['light', -0.5, 'light'],
      ['body', { across: 0.5, eyes: 0.4, stature: 0.5 }, 'eyes'],
      ['body', { across: 0.5, eyes: 0.3, stature: 0.65 }, 'eyes'],
    ] as const;
    for (const [name, value, part] of cases) {
      const bad = take('bad', stays(60), { [name]: value });
      const unknown = take('unknown', stays(60), { [name]: null });
      const ranked = rankPairs(left, [bad, unknown, good], { eyes: 1 });
      expect(ranked.map(({ b }) => b)).toEqual(['good', 'unknown', 'bad']);
      expect(ranked[1].parts[part]).toBe(0.5);
      expect(ranked[2].parts[part]).toBeLessThan(0.2);
    }
  });

  it('are shifted by nothing but what lays their cameras in step, where those repeat a move', () => {
    // They would do best half a second apart, as in the test below.
    const one = take('one', [...stays(40, 10), ...stays(5, 30)], { late: 0.34 });
    const other = take('other', [...stays(5, 5), ...stays(40, 5), ...stays(70, 30)], { late: 0.21 });
    const [pair] = rankPairs([one], [other], { overlap: 1, seam: 0, contact: 0 });
    expect(pair.offset).toBeCloseTo(0.13, 9);
    expect(pair.inStep).toBe(true);
    expect(pair.parts.overlap).toBeLessThan(1);
    const [bare] = rankPairs([one], [{ ...other, presence: null }]);
    expect(bare).toMatchObject({ inStep: true, offset: pair.offset });
    const [free] = rankPairs([one], [{ ...other, late: undefined }]);
    expect(free.inStep).toBeUndefined();
  });

  it('say in how much of the time both stand in one place, and shift one of them out of it', () => {
    // Both walk through the middle; half a second later the one is gone.
    const one = [...stays(40, 10), ...stays(5, 30)];
    const other = [...stays(5, 5), ...stays(40, 5), ...stays(70, 30)];
    const [pair] = rankPairs([take('one', one)], [take('other', other)], { overlap: 1, seam: 0, contact: 0 });
    expect(pair.parts.overlap).toBe(1);
    expect(Math.abs(pair.offset)).toBeGreaterThanOrEqual(0.4);
    const [still] = rankPairs([take('one', stays(40))], [take('other', stays(42))]);
    expect(still.parts.overlap).toBe(0);
    expect(still.parts.seam).toBeLessThan(0.3);
    expect(still.offset).toBe(0);
  });

  it('find the shift at which two hands meet', () => {
    fc.assert(
      fc.property(fc.integer({ min: -8, max: 8 }), (late) => {
        // A reaches to the right on frame 20, B to the left on frame 20 − late.
        const reach = (at: number, rest: number, far: number) =>
          Array.from({ length: 40 }, (_, frame) => (frame === at ? far : rest));
        const a = take('a', reach(20, 20, 34));
        const b = take('b', reach(20 - late, 60, 45));
        const [pair] = rankPairs([a], [b], { contact: 4 });
        expect(pair.offset).toBeCloseTo(late * grid.every, 9);
        expect(pair.parts.contact).toBeGreaterThan(0.95);
        expect(pair.parts.overlap).toBe(1);
      }),
    );
  });

  it('where one is to stand as the other did, are ranked by that, at the shift at which they do', () => {
    const by = ['lock', 'light', 'pose'] as const;
    // Both walk in and stop at one place, the one six tenths of a second later.
    const walks = (late: number, place: number) =>
      Array.from({ length: 40 }, (_, at) => Math.min(place, -10 + 3 * Math.max(0, at - late)));
    const before = take('before', walks(0, 38));
    const after = [take('there', walks(6, 38)), take('beside', walks(0, 46)), take('away', stays(80))];
    const ranked = rankPairs([before], after, {}, by);
    expect(ranked.map(({ b }) => b)).toEqual(['there', 'beside', 'away']);
    expect(ranked[0].parts.pose).toBe(1);
    expect(ranked[0].parts.overlap).toBe(0.5);
    expect(ranked[1].parts.pose).toBeGreaterThan(0.1);
    expect(ranked[2].parts.pose).toBe(0);
    // Where they hold the pose only for an instant, it is found when.
    const passes = (from: number, late: number, to: number) => [
      ...[...stays(from, late), 38, ...stays(to, 39 - late)],
    ];
    const [met] = rankPairs([take('a', passes(0, 20, 70))], [take('b', passes(12, 14, 84))], {}, by);
    expect([met.parts.pose, met.offset]).toEqual([1, expect.closeTo(0.6, 9)]);
  });

  it('have scores between nothing and all, as their parts and weights say', () => {
    const part = fc.double({ min: 0, max: 5, noNaN: true });
    const some = fc.record({
      lock: fc.option(part),
      light: fc.option(part),
      body: fc.option(
        fc.record({
          across: fc.double({ min: 0, max: 1, noNaN: true }),
          eyes: fc.double({ min: 0, max: 1, noNaN: true }),
          stature: fc.double({ min: 0.05, max: 2, noNaN: true }),
        }),
      ),
      column: fc.integer({ min: -5, max: 95 }),
    });
    fc.assert(
      fc.property(some, some, part, (one, other, weight) => {
        const of = (id: string, { column, ...more }: typeof one) => take(id, stays(column, 12), more);
        const [pair] = rankPairs([of('a', one)], [of('b', other)], { contact: weight });
        const weights = { ...usualWeights, contact: weight };
        const names = besideParts;
        const all = names.reduce((sum, name) => sum + weights[name], 0);
        // The weighted geometric mean, each part 0.02 at least.
        const score = names.reduce(
          (product, name) => product * Math.max(0.02, pair.parts[name]) ** (weights[name] / all),
          1,
        );
        expect(pair.score).toBeCloseTo(score, 9);
        for (const name of names) {
          expect(pair.parts[name]).toBeGreaterThanOrEqual(0);
          expect(pair.parts[name]).toBeLessThanOrEqual(1);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('go on without anybody found, with nothing to choose from, and refuse weights that say nothing', () => {
    const nobody = take('nobody', [], { presence: null });
    expect(rankPairs([nobody], [take('b', stays(3))])[0].parts).toMatchObject({ seam: 0.5, overlap: 0.5 });
    expect(rankPairs([], [nobody])).toEqual([]);
    // What could be either is no pair with itself.
    expect(rankPairs([nobody], [nobody])).toEqual([]);
    const none = { lock: 0, light: 0, seam: 0, overlap: 0, eyes: 0, contact: 0 };
    for (const weights of [none, { lock: -1 }, { seam: NaN }])
      expect(() => rankPairs([nobody], [nobody], weights)).toThrow(
        expect.objectContaining({ code: 'weights' }),
      );
  });
});
