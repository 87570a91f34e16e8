import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { regularGrid } from '../time/grid';
import type { Moment } from '../model/records';
import { beginJoined, startsShifted } from './shift-pair';

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

describe('the beginnings of two takes of which one takes the other’s place', () => {
  const grid = regularGrid(120, 3, 60);
  const moment = { start: 4, lands: 8, end: 12 } as Moment;
  const showsFrom = (_: Moment, slot: string) => (slot === 'in' ? 8 : 4);
  const inTurn = ['out', 'in'] as const;

  it('show both at the instants that were chosen on the beat', () => {
    // Four beats of half a second lie between where the first take begins to show and the beat.
    expect(beginJoined(moment, { inTurn, showsFrom }, grid, [5.5, 1.25])).toEqual({ out: 3.5, in: 1.25 });
  });

  it('are none where the first take would have to begin before its first picture, or where nothing takes a place', () => {
    expect(beginJoined(moment, { inTurn, showsFrom }, grid, [1.9, 1.25])).toBeNull();
    expect(beginJoined(moment, { showsFrom }, grid, [5.5, 1.25])).toBeNull();
  });
});
