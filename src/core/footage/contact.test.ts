import { describe, expect, it } from 'vitest';
import { nearnessOf } from './contact';

const size = { width: 32, height: 18 };
const block = (left: number, top: number, right: number, bottom: number) =>
  Uint8Array.from({ length: size.width * size.height }, (_, cell) => {
    const [x, y] = [cell % size.width, Math.floor(cell / size.width)];
    return x >= left && x < right && y >= top && y < bottom ? 1 : 0;
  });

describe('how near two come', () => {
  it('is what lies between them, straight or across, and where', () => {
    const straight = nearnessOf(size, block(2, 4, 8, 16), block(12, 4, 20, 16), 16 / 9);
    expect(straight?.apart).toBeCloseTo(4 / 32, 9);
    expect(straight?.at[0]).toBeCloseTo(10 / 32, 1);
    const across = nearnessOf(size, block(2, 2, 8, 6), block(11, 10, 20, 16), 16 / 9);
    expect(across?.apart).toBeCloseTo(Math.hypot(3, 4) / 32, 6);
  });

  it('is nothing where they touch or overlap, and not known where one is missing', () => {
    expect(nearnessOf(size, block(2, 4, 8, 16), block(8, 4, 20, 16), 16 / 9)?.apart).toBe(0);
    expect(nearnessOf(size, block(2, 2, 20, 16), block(8, 6, 10, 8), 16 / 9)?.apart).toBe(0);
    expect(nearnessOf(size, block(2, 4, 8, 16), new Uint8Array(size.width * size.height), 16 / 9)).toBeNull();
  });
});
