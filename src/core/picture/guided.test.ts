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

  // Source: He & Sun 2015: what squares of pixels say is close to what pixels say.
  it('are nearly the same where squares of pixels are looked at as one', () => {
    const [size, next] = [{ width: 80, height: 60 }, seeded(4)];
    const far = (pixel: number) => Math.hypot((pixel % 80) - 40, Math.floor(pixel / 80) - 30);
    const all = (of: (pixel: number) => number) => Float32Array.from({ length: 80 * 60 }, (_, at) => of(at));
    const guide = all((pixel) => (far(pixel) < 18 ? 0.7 : 0.3) + 0.02 * next());
    // A disc that is known too large, with a soft edge.
    const values = all((pixel) => Math.min(1, Math.max(0, (24 - far(pixel)) / 8)));
    const [exact, quick] = [1, 2].map((side) => guided(size, guide, values, 6, 1e-3, side));
    const off = exact.map((value, pixel) => Math.abs(value - quick[pixel]));
    expect(off.reduce((sum, one) => sum + one, 0) / off.length).toBeLessThan(0.01);
    expect(off.filter((one) => one > 0.1).length).toBeLessThan(0.01 * off.length);
    const inside = (of: Float32Array) => of.reduce((sum, value) => sum + Number(value > 0.5), 0);
    expect(Math.abs(inside(quick) / inside(exact) - 1)).toBeLessThan(0.02);
  });
});
