import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { median, quantile } from './statistics';

describe('medians and other quantiles', () => {
  it('are the value with as many below as above; of an even number the upper one', () => {
    expect(median([3, 1, 2])).toBe(2);
    expect(median([4, 1, 3, 2])).toBe(3);
    expect(median(Float32Array.of(10, 9, -1))).toBe(9);
    expect([quantile([5, 4, 3, 2, 1], 0), quantile([5, 4, 3, 2, 1], 1)]).toEqual([1, 5]);
  });

  it('are 0 for nothing, and leave their values as they are', () => {
    expect([median([]), quantile([], 0.95)]).toEqual([0, 0]);
    const values = [2, 10, 1];
    median(values);
    expect(values).toEqual([2, 10, 1]);
  });

  it('take what is no number for more than all others', () => {
    expect([median([NaN, 3, 1]), quantile([2, NaN], 0), quantile([2, NaN], 1)]).toEqual([3, 2, NaN]);
  });

  it('have their share of the values below them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (values, share) => {
          const found = quantile(values, share);
          const below = values.filter((value) => value < found).length;
          const upTo = values.filter((value) => value <= found).length;
          expect(below).toBeLessThanOrEqual(share * values.length + 1e-9);
          expect(upTo).toBeGreaterThanOrEqual(Math.min(values.length, Math.floor(share * values.length) + 1));
        },
      ),
    );
  });
});
