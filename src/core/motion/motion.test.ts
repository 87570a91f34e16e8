import bezierEasing from 'bezier-easing';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ease } from './easing';
import { fewestKeyframes, still, turnsOf, valueAt } from './keyframes';

describe('easing', () => {
  // W3C CSS Easing Functions; values that the package bezier-easing gives (SOURCES.md).
  it.each([
    [
      [0.25, 0.1, 0.25, 1],
      [0.25, 0.5, 0.75],
      [0.40851, 0.8024, 0.96046],
    ],
    [
      [0.75, 0, 0.25, 1],
      [0.1, 0.25, 0.75],
      [0.00674, 0.0542, 0.9458],
    ],
  ] as const)('gives the published values of cubic-bezier(%s)', (curve, at, values) => {
    at.forEach((share, index) => expect(ease(curve, share)).toBeCloseTo(values[index], 4));
  });

  it('solves the curve itself', () => {
    // The definition: x(t) and y(t) are cubic Béziers from (0, 0) to (1, 1); checked without a solver.
    const bezier = (a: number, b: number, t: number) =>
      3 * a * t * (1 - t) ** 2 + 3 * b * t * t * (1 - t) + t ** 3;
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (t) => {
        expect(ease([0.3, -0.2, 0.6, 1.4], bezier(0.3, 0.6, t))).toBeCloseTo(bezier(-0.2, 1.4, t), 3);
      }),
    );
    expect(bezierEasing(0, 0, 1, 1)(0.3)).toBe(0.3);
  });
});

describe('keyframes', () => {
  it('holds, moves and stands at both ends', () => {
    const track = [
      { frame: 10, value: 0, ease: 'hold' as const },
      { frame: 20, value: 5, ease: [0, 0, 1, 1] as const },
      { frame: 30, value: 15, ease: 'hold' as const },
    ];
    expect([0, 10, 19, 20, 25, 30, 99].map((frame) => valueAt(track, frame))).toEqual([
      0, 0, 0, 5, 10, 15, 15,
    ]);
    expect(valueAt(still(7), 1234)).toBe(7);
  });

  it('thins out values and keeps them within the tolerance', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -9, max: 9, noNaN: true }), { minLength: 1, maxLength: 40 }),
        (values) => {
          const track = fewestKeyframes(values, 100, 0.5);
          values.forEach((value, index) => {
            expect(Math.abs(valueAt(track, 100 + index) - value)).toBeLessThanOrEqual(0.5 + 1e-6);
          });
        },
      ),
    );
    expect(fewestKeyframes([3, 3.01, 3], 0, 0.1)).toHaveLength(1);
    expect(fewestKeyframes([0, 0, 0, 4, 4, 4], 0, 0.1)).toHaveLength(4);
  });

  // Brute force over the curve: no instant lies further out than those that are named.
  it('names the instants at which a track is furthest', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(number(0, 1), number(-1, 2), number(0, 1), number(-1, 2)),
        number(-50, 50),
        (ease, value) => {
          const track = [
            { frame: 10, value: 0, ease },
            { frame: 30, value, ease: 'hold' as const },
          ];
          const named = turnsOf(track).map((frame) => valueAt(track, frame));
          const all = Array.from({ length: 401 }, (_, index) => valueAt(track, 10 + index / 20));
          // The package that gives a curve's value is right to about a millionth of its time.
          expect(Math.max(...named)).toBeGreaterThan(Math.max(...all) - 0.01);
          expect(Math.min(...named)).toBeLessThan(Math.min(...all) + 0.01);
        },
      ),
    );
  });
});
