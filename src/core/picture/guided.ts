import type { Size } from '../geometry/size';
import { meansOf } from './means';

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
