import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startsShifted } from './shift-pair';

describe('the beginnings of two takes that are shifted', () => {
  it('show the first so much further than the second at any instant, and never a picture before a first one', () => {
    const seconds = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(seconds(0, 200), seconds(0, 200)),
        seconds(0, 60),
        seconds(-1, 1),
        (shows, first, further) => {
          const [a, b] = startsShifted(shows, first, further);
          const at = Math.max(...shows) + 3;
          expect(a + at - shows[0] - (b + at - shows[1])).toBeCloseTo(further, 9);
          expect(Math.min(a, b)).toBeGreaterThanOrEqual(0);
          expect(a).toBeGreaterThanOrEqual(first);
        },
      ),
    );
  });

  it('leave the first where it is, where the second reaches back far enough', () => {
    expect(startsShifted([10, 12], 4, 0.5)).toEqual([4, 5.5]);
    expect(startsShifted([12, 10], 0.5, 0)).toEqual([2, 0]);
  });
});
