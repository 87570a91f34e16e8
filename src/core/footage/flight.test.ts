import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../random';
import { flightOf } from './flight';

/** Feet of somebody who pushes off at a second and is back after a flight: free fall in shares of the frame. */
const jump = (perSecond: number, leaves: number, meets: number, high: number, noise: number, seed = 1) => {
  const next = seeded(seed);
  const times = Array.from({ length: Math.round(3 * perSecond) }, (_, index) => index / perSecond);
  const feet = times.map((time) => {
    const share = (time - leaves) / (meets - leaves);
    const up = share > 0 && share < 1 ? 4 * high * share * (1 - share) : 0;
    return 0.9 - up + (next() - 0.5) * noise;
  });
  return { times, feet };
};

describe('when somebody is in the air', () => {
  it('finds the last picture on the floor, the highest and the first back on it, to within a picture or two', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(24, 29.97, 50, 120),
        fc.double({ min: 0.5, max: 1.5, noNaN: true }),
        fc.double({ min: 0.35, max: 0.8, noNaN: true }),
        fc.double({ min: 0.1, max: 0.4, noNaN: true }),
        fc.integer({ min: 1, max: 99 }),
        (perSecond, leaves, lasts, high, seed) => {
          const { times, feet } = jump(perSecond, leaves, leaves + lasts, high, 0.004, seed);
          const flight = flightOf(feet, times);
          // The feet have to be clear of the floor by 1.2 % and what noise adds; the height of free fall says how soon.
          const soon = (lasts * (1 - Math.sqrt(1 - 0.02 / high))) / 2 + 1 / perSecond;
          expect(Math.abs((flight?.leaves ?? NaN) - leaves)).toBeLessThanOrEqual(soon);
          expect(Math.abs((flight?.meets ?? NaN) - leaves - lasts)).toBeLessThanOrEqual(soon);
          const top = (lasts * Math.sqrt(0.01 / high)) / 2 + 1 / perSecond;
          expect(Math.abs((flight?.highest ?? NaN) - leaves - lasts / 2)).toBeLessThanOrEqual(top);
        },
      ),
      { numRuns: 100 },
    );
  });

  it('lets a landing begin in the air, and a take-off end there', () => {
    const { times, feet } = jump(50, 1, 1.6, 0.3, 0);
    const down = flightOf(feet.slice(65), times.slice(65));
    expect(down).toMatchObject({ leaves: null, meets: expect.closeTo(1.6, 1) });
    const up = flightOf(feet.slice(0, 68), times.slice(0, 68));
    expect(up).toMatchObject({ leaves: expect.closeTo(1, 1), meets: null });
  });

  it('looks past pictures in which nobody is found', () => {
    const { times, feet } = jump(50, 1, 1.6, 0.3, 0);
    const gaps = feet.map((value, index) => (index % 7 === 0 ? NaN : value));
    expect(flightOf(gaps, times)).toMatchObject({
      leaves: expect.closeTo(1, 1),
      meets: expect.closeTo(1.6, 1),
    });
  });

  it('finds none where somebody only stands, crouches a little, or is not there', () => {
    const { times, feet } = jump(50, 1, 1.6, 0, 0.008);
    expect(flightOf(feet, times)).toBeNull();
    expect(
      flightOf(
        feet.map(() => NaN),
        times,
      ),
    ).toBeNull();
    expect(flightOf([], [])).toBeNull();
    expect(flightOf([0.5], [0])).toBeNull();
  });
});
