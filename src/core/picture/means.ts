import type { Size } from '../geometry/size';

/** Means of squares that reach so many pixels to each side, cut off at the edge. */
export function meansOf({ width, height }: Size, values: Float32Array, reach: number): Float32Array {
  const sums = new Float64Array((width + 1) * (height + 1));
  for (let y = 0; y < height; y++)
    for (let x = 0, row = 0; x < width; x++) {
      row += values[y * width + x];
      sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1] + row;
    }
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const [top, bottom] = [
      Math.max(0, y - reach) * (width + 1),
      Math.min(height, y + reach + 1) * (width + 1),
    ];
    const rows = (bottom - top) / (width + 1);
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.max(0, x - reach), Math.min(width, x + reach + 1)];
      const sum = sums[bottom + right] - sums[bottom + left] - sums[top + right] + sums[top + left];
      out[y * width + x] = sum / (rows * (right - left));
    }
  }
  return out;
}
