import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { meansOfSquares, spreadSquares, squaresOf } from './squares';

const whole = { left: 0, top: 0 };

describe('squares of a picture', () => {
  it('have the mean of the pixels that they cover, those at the edge of fewer', () => {
    const plane = { width: 5, height: 3, data: Uint8Array.from({ length: 15 }, (_, at) => at) };
    const squares = squaresOf(plane, 2);
    expect(squares).toEqual({ width: 3, height: 2 });
    expect([...meansOfSquares(plane, 2, whole, squares)]).toEqual([3, 5, 6.5, 10.5, 12.5, 14]);
  });

  it('spread over the pixels give back what changes evenly, and hold it at the edge', () => {
    const some = fc.record({
      width: fc.integer({ min: 1, max: 40 }),
      height: fc.integer({ min: 1, max: 40 }),
      side: fc.integer({ min: 1, max: 8 }),
      across: fc.double({ min: -3, max: 3, noNaN: true }),
      down: fc.double({ min: -3, max: 3, noNaN: true }),
    });
    fc.assert(
      fc.property(some, ({ width, height, side, across, down }) => {
        const squares = squaresOf({ width, height }, side);
        const even = (x: number, y: number) => 100 + across * x + down * y;
        const values = Float32Array.from({ length: squares.width * squares.height }, (_, at) =>
          even(((at % squares.width) + 0.5) * side, (Math.floor(at / squares.width) + 0.5) * side),
        );
        const held = (place: number, count: number) =>
          Math.min((count - 0.5) * side, Math.max(side / 2, place));
        spreadSquares(values, side, { width, height }).forEach((value, pixel) => {
          const [x, y] = [(pixel % width) + 0.5, Math.floor(pixel / width) + 0.5];
          expect(Math.abs(value - even(held(x, squares.width), held(y, squares.height)))).toBeLessThan(1e-3);
        });
      }),
    );
  });
});
