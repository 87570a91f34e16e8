import type { Size } from '../picture/image';
import type { Placement } from './register';

/** Nothing moved. */
export const inPlace: Placement = { dx: 0, dy: 0, rotation: 0, scale: 1, agreement: 1 };

/** First `first` (reference → middle), then `second` (middle → frame). Same picture size for both. */
export function chain(first: Placement, second: Placement): Placement {
  const angle = (second.rotation * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle) * second.scale, Math.sin(angle) * second.scale];
  return {
    dx: cos * first.dx - sin * first.dy + second.dx,
    dy: sin * first.dx + cos * first.dy + second.dy,
    rotation: first.rotation + second.rotation,
    scale: first.scale * second.scale,
    agreement: Math.min(first.agreement, second.agreement),
  };
}

/** The same placement measured on a picture `factor` times as large. */
export const scalePlacement = (placement: Placement, factor: number): Placement => ({
  ...placement,
  dx: placement.dx * factor,
  dy: placement.dy * factor,
});

/** How far the corner that moves most has moved, in pixels of a picture of `size`. */
export function cornerMove(placement: Placement, size: Size): number {
  const matrix = placementMatrix(placement, size);
  const corners = [
    [0, 0],
    [size.width, 0],
    [0, size.height],
    [size.width, size.height],
  ];
  return Math.max(
    ...corners.map(([x, y]) => {
      const [a, b, c, d, e, f] = matrix;
      return Math.hypot(a * x + c * y + e - x, b * x + d * y + f - y);
    }),
  );
}

/** An affine map: x' = a x + c y + e, y' = b x + d y + f. */
export type Affine = [number, number, number, number, number, number];

/** Reference point → frame point, in pixels from the corner of a picture of `size`. */
export function placementMatrix(placement: Placement, size: Size): Affine {
  const angle = (placement.rotation * Math.PI) / 180;
  const cos = Math.cos(angle) * placement.scale;
  const sin = Math.sin(angle) * placement.scale;
  const [cx, cy] = [size.width / 2, size.height / 2];
  return [
    cos,
    sin,
    -sin,
    cos,
    cx - cos * cx + sin * cy + placement.dx,
    cy - sin * cx - cos * cy + placement.dy,
  ];
}

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
