import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Stretch } from './action';
import { partsIn, perSecond, type LongTake } from './parts';

// Made-up takes whose parts are known.
const rate = 25;
const isIn = (stretches: readonly Stretch[], at: number) =>
  stretches.some(({ from, until }) => at >= from && at < until);

/** A take of some seconds in which somebody moves, and sound plays, between given seconds. */
function take(
  seconds: number,
  moves: readonly Stretch[],
  {
    loud,
    stands = [{ from: 0, until: seconds }],
    hiss = 0.004,
  }: Partial<Record<'loud' | 'stands', readonly Stretch[]>> & { hiss?: number } = {},
): LongTake {
  const times = Float64Array.from({ length: seconds * rate }, (_, at) => at / rate);
  const wave = (at: number) => 0.5 + 0.5 * Math.abs(Math.sin(7 * at));
  return {
    times,
    moved: times.map((at) => (isIn(moves, at) ? 0.3 * wave(at) : 0)),
    stands,
    levels:
      loud === undefined
        ? null
        : Float32Array.from({ length: seconds * perSecond }, (_, at) =>
            isIn(loud, at / perSecond) ? 0.2 * wave(at / perSecond) : hiss,
          ),
  };
}
const span = (from: number, until: number): Stretch => ({ from, until });
/** Each part holds its stretch, and no more than a second to each side. */
function expectParts(parts: readonly Stretch[], wanted: readonly Stretch[]): void {
  expect(parts).toHaveLength(wanted.length);
  for (const [index, { from, until }] of wanted.entries()) {
    expect(parts[index].from).toBeLessThanOrEqual(from + 0.11);
    expect(parts[index].from).toBeGreaterThanOrEqual(from - 1.2);
    expect(parts[index].until).toBeGreaterThanOrEqual(until - 0.11);
    expect(parts[index].until).toBeLessThanOrEqual(until + 1.2);
  }
}

describe('a long take', () => {
  it('is divided where nothing moves for a while, and not where somebody holds a pose for a moment', () => {
    const wanted = [span(3, 9), span(13, 21), span(25, 33)];
    const moves = [span(3, 9), span(13, 16), span(17, 21), span(25, 33)];
    const { parts, by } = partsIn(take(36, moves), 1.5);
    expect(by).toBe('movement');
    expectParts(parts, wanted);
    // With a shorter pause the pose divides as well.
    expect(partsIn(take(36, moves), 0.7).parts).toHaveLength(4);
  });

  it('is divided by the music that was playing, however long somebody stands still in it or walks between', () => {
    const song = [span(5, 25), span(40, 60)];
    const { parts, by } = partsIn(take(66, [span(0, 8), span(16, 50)], { loud: song }), 1.5);
    expect(by).toBe('sound');
    expectParts(parts, song);
    // Asked otherwise, by what moves.
    const moves = [span(0, 8), span(16, 50)];
    const asked = partsIn(take(66, moves, { loud: song }), 1.5, 'movement');
    expect([asked.by, asked.hasMusic]).toEqual(['movement', true]);
    expectParts(asked.parts, moves);
  });

  it('goes by what moves where sound is talk and knocks, or goes on all the time', () => {
    const moves = [span(3, 12), span(18, 27)];
    const talk = [span(1, 2), span(4, 5), span(13, 15), span(20, 21)];
    for (const loud of [talk, [span(0, 30)], []]) {
      const { parts, by } = partsIn(take(30, moves, { loud }), 1.5);
      expect(by).toBe('movement');
      expectParts(parts, moves);
    }
  });

  it('leaves out what a camera sees on its way to another place, but not for a bump or where it always moves', () => {
    const moves = [span(0, 40)];
    const carried = partsIn(take(40, moves, { stands: [span(0, 18), span(22, 40)] }), 1.5);
    expect(carried.moves).toBe(1);
    expect(carried.parts).toEqual([span(0, 18), span(22, expect.closeTo(40, 0) as number)]);
    expect(partsIn(take(40, moves, { stands: [span(0, 18), span(18.3, 40)] }), 1.5).parts).toHaveLength(1);
    expect(partsIn(take(40, moves, { stands: [] }), 1.5).parts).toHaveLength(1);
  });

  it('has no part where nothing moves, and gives parts in order that overlap nowhere', () => {
    expect(partsIn(take(30, []), 1.5).parts).toEqual([]);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 60 })), {
          minLength: 1,
          maxLength: 12,
        }),
        fc.double({ min: 0.3, max: 4, noNaN: true }),
        (lengths, pause) => {
          let at = 0;
          const moves = lengths.map(([rests, acts]) => {
            const from = at + rests / 10;
            at = from + acts / 10;
            return span(from, at);
          });
          const seconds = Math.ceil(at) + 1;
          const { parts } = partsIn(take(seconds, moves), pause);
          parts.forEach(({ from, until }, index) => {
            expect(from).toBeGreaterThanOrEqual(parts[index - 1]?.until ?? 0);
            expect(until).toBeGreaterThan(from);
            expect(until).toBeLessThanOrEqual(seconds);
          });
        },
      ),
    );
  });
});
