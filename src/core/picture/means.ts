import type { Size } from '../geometry/size';

/** Means of squares that reach so many pixels to each side, cut off at the edge. */
export function meansOf({ width, height }: Size, values: Float32Array, reach: number): Float32Array {
  const out = new Float32Array(width * height);
  // Sums of columns go down together, so that memory is read in its order.
  const columns = new Float64Array(width);
  for (let y = -reach; y < height; y++) {
    const [next, gone] = [(y + reach) * width, (y - reach - 1) * width];
    if (y + reach < height) for (let x = 0; x < width; x++) columns[x] += values[next + x];
    if (gone >= 0) for (let x = 0; x < width; x++) columns[x] -= values[gone + x];
    if (y < 0) continue;
    const rows = Math.min(height, y + reach + 1) - Math.max(0, y - reach);
    let sum = 0;
    for (let x = 0; x < Math.min(reach, width); x++) sum += columns[x];
    for (let x = 0, at = y * width; x < width; x++, at++) {
      if (x + reach < width) sum += columns[x + reach];
      if (x > reach) sum -= columns[x - reach - 1];
      out[at] = sum / (rows * (Math.min(width, x + reach + 1) - Math.max(0, x - reach)));
    }
  }
  return out;
}
