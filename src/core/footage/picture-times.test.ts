import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pictureAt, picturesRound } from './picture-times';

const times = Float64Array.from({ length: 25 }, (_, index) => index / 25);

describe('the pictures round one', () => {
  it('are as many to each side, fewer at the ends, and the one that shows is among them', () => {
    expect(picturesRound(times, 0.4, 2)).toEqual({
      round: [8, 9, 10, 11, 12].map((index) => index / 25),
      shows: 2,
    });
    expect(picturesRound(times, 0, 2)).toEqual({ round: [0, 1, 2].map((index) => index / 25), shows: 0 });
    expect(picturesRound(times, 9, 1)).toEqual({ round: [23 / 25, 24 / 25], shows: 1 });
    expect(picturesRound(Float64Array.of(0), 3, 4)).toEqual({ round: [0], shows: 0 });
    expect(picturesRound(new Float64Array(), 3, 4).round).toEqual([]);
  });

  it('hold the one that a reader gives for the same time, also late in it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1.2, noNaN: true }), (seconds) => {
        const { round, shows } = picturesRound(times, seconds, 4);
        expect(round[shows]).toBe(times[pictureAt(times, seconds)]);
      }),
    );
    // Past half of it, the next one shows.
    const { round, shows } = picturesRound(times, 0.4 + 0.03, 1);
    expect(round[shows]).toBe(11 / 25);
  });
});
