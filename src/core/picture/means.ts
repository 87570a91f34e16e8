import type { Size } from '../geometry/size';

/** Means of squares that reach so many pixels to each side, cut off at the edge. */
export function meansOf({ width, height }: Size, values: Float32Array, reach: number): Float32Array {
  const rows = new Float32Array(values.length);
  for (let row = 0; row < values.length; row += width) {
    let [sum, count] = [0, 0];
    for (let x = 0; x < Math.min(reach, width); x++, count++) sum += values[row + x];
    for (let x = 0; x < width; x++) {
      if (x + reach < width) {
        sum += values[row + x + reach];
        count++;
      }
      if (x > reach) {
        sum -= values[row + x - reach - 1];
        count--;
      }
      rows[row + x] = sum / count;
    }
  }
  const out = new Float32Array(values.length);
  const sums = new Float64Array(width);
  const add = (y: number, sign: number) => {
    for (let x = 0, at = y * width; x < width; x++, at++) sums[x] += sign * rows[at];
  };
  let count = 0;
  for (let y = 0; y < Math.min(reach, height); y++, count++) add(y, 1);
  for (let y = 0, at = 0; y < height; y++) {
    if (y + reach < height) {
      add(y + reach, 1);
      count++;
    }
    if (y > reach) {
      add(y - reach - 1, -1);
      count--;
    }
    for (let x = 0; x < width; x++, at++) out[at] = sums[x] / count;
  }
  return out;
}
