import { describe, expect, it } from 'vitest';
import { seeded } from '../random';
import { asWide, inFours } from './in-fours';

/** A picture of which every pixel is another one. */
function picture(width: number, height: number) {
  const next = seeded(width);
  return { width, height, data: Uint8ClampedArray.from({ length: 4 * width * height }, () => 255 * next()) };
}

describe('a picture as what finds people takes it', () => {
  it.each([1, 2, 3, 5, 270, 427])('is a multiple of four wide, from %i', (width) => {
    const given = picture(width, 3);
    const wide = inFours(given);
    expect(wide.width % 4).toBe(0);
    expect(wide.width - width).toBeLessThan(4);
    const pixel = (image: typeof given, column: number, row: number) => [
      ...image.data.subarray(4 * (row * image.width + column), 4 * (row * image.width + column) + 4),
    ];
    for (let row = 0; row < 3; row++)
      for (let column = 0; column < wide.width; column++)
        expect(pixel(wide as typeof given, column, row)).toEqual(
          pixel(given, Math.min(width - 1, column), row),
        );
  });

  it('is taken as it is where it is one already', () => {
    const given = picture(480, 2);
    expect(inFours(given)).toBe(given);
  });

  it('gives back what was found where it is in the picture as it was', () => {
    const matte = { width: 8, height: 2, data: Float32Array.from({ length: 16 }, (_, index) => index) };
    const poses = [[{ x: 0.25, y: 0.5, seen: 1 }]];
    const found = asWide({ matte, poses }, 6);
    expect(found.matte).toEqual({
      width: 6,
      height: 2,
      data: Float32Array.from([0, 1, 2, 3, 4, 5, 8, 9, 10, 11, 12, 13]),
    });
    // Two of eight pixels from the left are two of six.
    expect(found.poses[0][0].x).toBeCloseTo(2 / 6, 12);
    expect(asWide({ matte, poses }, 8)).toEqual({ matte, poses });
  });
});
