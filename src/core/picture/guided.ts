import type { Size } from '../geometry/size';
import { meansOf } from './means';
import { linesOfSquares, meansOfSquares, squaresOf } from './squares';

/**
 * Values smoothed so that they keep to the edges of a guide.
 * @param guide and @param values one a pixel, 0..1
 * @param reach pixels to each side that are looked at together
 * @param least variance of the guide from which on an edge counts
 * @param side of squares of pixels that are looked at as one to learn how values follow the guide; divides the reach
 * @see He, Sun & Tang 2013, "Guided image filtering"; He & Sun 2015, "Fast guided filter"
 */
export function guided(
  size: Size,
  guide: Float32Array,
  values: Float32Array,
  reach: number,
  least: number,
  side = 1,
): Float32Array {
  const squares = squaresOf(size, side);
  const [light, own] =
    side === 1
      ? [guide, values]
      : [guide, values].map((data) => meansOfSquares({ ...size, data }, side, { left: 0, top: 0 }, squares));
  const [both, second] = [new Float32Array(light.length), new Float32Array(light.length)];
  for (let at = 0; at < light.length; at++) {
    both[at] = light[at] * own[at];
    second[at] = light[at] ** 2;
  }
  const means = (of: Float32Array) => meansOf(squares, of, reach / side);
  const [ofLight, ofOwn, ofBoth, ofSecond] = [light, own, both, second].map(means);
  const [slope, shift] = [new Float32Array(light.length), new Float32Array(light.length)];
  for (let at = 0; at < light.length; at++) {
    slope[at] = (ofBoth[at] - ofLight[at] * ofOwn[at]) / (ofSecond[at] - ofLight[at] ** 2 + least);
    shift[at] = ofOwn[at] - slope[at] * ofLight[at];
  }
  const [slopes, shifts] = [slope, shift].map(means);
  return linesOfSquares(slopes, shifts, guide, side, size);
}
