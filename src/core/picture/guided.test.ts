import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../random';
import { guided } from './guided';

/** The definition: in every square the values as a line through the guide, and of all lines over a pixel the mean. */
function byDefinition(
  width: number,
  height: number,
  guide: Float32Array,
  values: Float32Array,
  reach: number,
) {
  const least = 0.01;
  const around = (x: number, y: number): number[] => {
    const found: number[] = [];
    for (let yy = Math.max(0, y - reach); yy <= Math.min(height - 1, y + reach); yy++)
      for (let xx = Math.max(0, x - reach); xx <= Math.min(width - 1, x + reach); xx++)
        found.push(yy * width + xx);
    return found;
  };
  const mean = (all: readonly number[]) => all.reduce((sum, one) => sum + one, 0) / all.length;
  const lines = Array.from({ length: width * height }, (_, pixel) => {
    const cells = around(pixel % width, Math.floor(pixel / width));
    const [g, v] = [mean(cells.map((cell) => guide[cell])), mean(cells.map((cell) => values[cell]))];
    const spread = mean(cells.map((cell) => (guide[cell] - g) ** 2));
    const shared = mean(cells.map((cell) => (guide[cell] - g) * (values[cell] - v)));
    const slope = shared / (spread + least);
    return { slope, shift: v - slope * g };
  });
  return lines.map((_, pixel) => {
    const cells = around(pixel % width, Math.floor(pixel / width));
    return (
      mean(cells.map((cell) => lines[cell].slope)) * guide[pixel] +
      mean(cells.map((cell) => lines[cell].shift))
    );
  });
}

describe('values smoothed along a guide', () => {
  // Source: He, Sun & Tang 2013, equations 5 to 8, term by term.
  it('are what their definition says', () => {
    const sizes = fc.record({
      width: fc.integer({ min: 3, max: 14 }),
      height: fc.integer({ min: 3, max: 14 }),
      reach: fc.integer({ min: 1, max: 4 }),
      seed: fc.nat(),
    });
    fc.assert(
      fc.property(sizes, ({ width, height, reach, seed }) => {
        const next = seeded(seed);
        const numbers = () => Float32Array.from({ length: width * height }, () => next());
        const [guide, values] = [numbers(), numbers()];
        const exact = byDefinition(width, height, guide, values, reach);
        guided({ width, height }, guide, values, reach, 0.01).forEach((value, pixel) =>
          expect(Math.abs(value - exact[pixel])).toBeLessThan(1e-4),
        );
      }),
      { numRuns: 60 },
    );
  });
});
