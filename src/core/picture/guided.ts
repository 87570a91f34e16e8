import type { Size } from '../geometry/size';

/** Means of squares that reach so many pixels to each side, cut off at the edge. */
function meansOf({ width, height }: Size, values: Float32Array, reach: number): Float32Array {
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

/**
 * Values smoothed so that they keep to the edges of a guide.
 * @param guide and @param values one a pixel, 0..1
 * @param reach pixels to each side that are looked at together
 * @param least variance of the guide from which on an edge counts
 * @see He, Sun & Tang 2013, "Guided image filtering"
 */
export function guided(
  size: Size,
  guide: Float32Array,
  values: Float32Array,
  reach: number,
  least: number,
): Float32Array {
  const means = (of: (pixel: number) => number) =>
    meansOf(
      size,
      Float32Array.from({ length: guide.length }, (_, pixel) => of(pixel)),
      reach,
    );
  const [ofGuide, ofValues] = [meansOf(size, guide, reach), meansOf(size, values, reach)];
  const both = means((pixel) => guide[pixel] * values[pixel]);
  const squares = means((pixel) => guide[pixel] ** 2);
  const slope = Float32Array.from(
    both,
    (value, pixel) =>
      (value - ofGuide[pixel] * ofValues[pixel]) / (squares[pixel] - ofGuide[pixel] ** 2 + least),
  );
  const shift = Float32Array.from(ofValues, (value, pixel) => value - slope[pixel] * ofGuide[pixel]);
  const [slopes, shifts] = [meansOf(size, slope, reach), meansOf(size, shift, reach)];
  return guide.map((value, pixel) => slopes[pixel] * value + shifts[pixel]);
}
