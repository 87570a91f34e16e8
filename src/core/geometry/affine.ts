import type { Point } from './size';

/** An affine map: x' = a x + c y + e, y' = b x + d y + f; lengths in whatever both sides count in. */
export type Affine = [number, number, number, number, number, number];

/** Nothing moved. */
export const unmoved: Affine = [1, 0, 0, 1, 0, 0];

/** First `inner`, then `outer`. */
export function multiplyAffine(outer: Affine, inner: Affine): Affine {
  const [a, b, c, d, e, f] = outer;
  const [g, h, i, j, k, l] = inner;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

/** The map back. A picture is never squeezed to nothing, so it always exists. */
export function invertAffine([a, b, c, d, e, f]: Affine): Affine {
  const det = a * d - b * c;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** Where a map puts a point. */
export const mapPoint = ([a, b, c, d, e, f]: Affine, [x, y]: Point): Point => [
  a * x + c * y + e,
  b * x + d * y + f,
];
