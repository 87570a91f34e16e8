import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { invertAffine, type Affine } from '../geometry/affine';
import type { Point } from '../geometry/size';
import { halveMask, rasterMask } from './mask';
import { cubicWeights, resamplePlane } from './resample';

const size = { width: 64, height: 48 };
const whole = { left: 0, top: 0, right: 64, bottom: 48 };
const sum = (data: ArrayLike<number>) => Array.from(data).reduce((total, value) => total + value, 0);

describe('masks', () => {
  // The area of a polygon by its corners: the shoelace formula.
  it('cover the area of their outline, with and without feather', () => {
    const inside = (most: number) => fc.double({ min: 16, max: most - 16, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(inside(64), inside(48)),
        fc.double({ min: 3, max: 9, noNaN: true }),
        ([x, y], reach) => {
          const outline: Point[] = Array.from({ length: 7 }, (_, i) => [
            x + reach * Math.cos((i * 2 * Math.PI) / 7),
            y + reach * Math.sin((i * 2 * Math.PI) / 7),
          ]);
          const area =
            outline.reduce((total, [px, py], i) => {
              const [qx, qy] = outline[(i + 1) % 7];
              return total + px * qy - qx * py;
            }, 0) / 2;
          for (const feather of [0, 5])
            expect(Math.abs(sum(rasterMask([outline], feather, size).data) / 255 / area - 1)).toBeLessThan(
              0.03,
            );
        },
      ),
      { numRuns: 40 },
    );
  });

  it('are halved for the colour planes by means', () => {
    const half = rasterMask(
      [
        [
          [0, 0],
          [31, 0],
          [31, 48],
          [0, 48],
        ],
      ],
      0,
      size,
    );
    const small = halveMask(half);
    expect(small).toHaveLength(32 * 24);
    expect([...small.subarray(14, 17)]).toEqual([255, 128, 0]);
  });
});

describe('moving a plane', () => {
  const ramp = Uint8Array.from({ length: 64 * 48 }, (_, at) => 2 * (at % 64) + Math.floor(at / 64));

  // Keys 1981, "Cubic convolution interpolation": weights add up to one and hold straight lines.
  it('weighs four neighbours so that they add up to one', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (t) => {
        const weights = cubicWeights(t);
        expect(sum(weights)).toBeCloseTo(1, 9);
        expect(weights[1] * 0 + weights[2] * 1 + weights[3] * 2 - weights[0]).toBeCloseTo(t, 9);
      }),
    );
  });

  it('keeps a slope to the code where it moves by parts of a pixel', () => {
    const move: Affine = [1, 0, 0, 1, 1.25, -0.5];
    const into = new Uint8Array(64 * 48);
    const inside = new Uint8Array(64 * 48);
    resamplePlane(ramp, size, invertAffine(move), into, size, whole, inside);
    for (let y = 6; y < 40; y++)
      for (let x = 6; x < 58; x++)
        expect(Math.abs(into[y * 64 + x] - (2 * (x - 1.25) + y + 0.5))).toBeLessThan(1);
    expect(inside[10 * 64]).toBe(0);
    expect(inside[10 * 64 + 20]).toBe(255);
  });

  // A turn by so little that no code changes takes the general way; without it the straight way is taken.
  it('comes to the same along rows and columns as in general, whatever lies beyond the edge', () => {
    const part = { left: 4, top: 2, right: 60, bottom: 46 };
    for (const edges of ['empty', 'mirrored', 'repeated'] as const)
      for (const [scale, x, y] of [
        [1, 20.3, 0],
        [1, -75, 30],
        [0.7, 3.2, -9.5],
        [1.2, -40, 7],
      ]) {
        const back: Affine = [scale, 0, 0, scale, x, y];
        const [one, two, inOne, inTwo] = Array.from({ length: 4 }, () => new Uint8Array(64 * 48));
        resamplePlane(ramp, size, back, one, size, part, inOne, edges);
        resamplePlane(ramp, size, [scale, 1e-9, 1e-9, scale, x, y], two, size, part, inTwo, edges);
        for (let at = 0; at < one.length; at++) expect(Math.abs(one[at] - two[at])).toBeLessThanOrEqual(1);
        expect(inOne).toEqual(inTwo);
      }
  });
});
