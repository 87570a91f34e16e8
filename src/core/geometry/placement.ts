import type { Affine } from './affine';
import type { Size } from './size';

/**
 * How a picture lies against a reference, in pixels and degrees (clockwise positive) about the middle of the picture:
 * frame point = middle + scale · R(rotation) · (reference point − middle) + (dx, dy). `agreement` is the share (0..1)
 * of the picture that fits.
 */
export type Placement = { dx: number; dy: number; rotation: number; scale: number; agreement: number };

/** Nothing moved. */
export const inPlace: Placement = { dx: 0, dy: 0, rotation: 0, scale: 1, agreement: 1 };

const packed = ['dx', 'dy', 'rotation', 'scale', 'agreement'] as const;

/** Many placements in one array, five numbers each: dx, dy, rotation, scale, agreement. */
export const packPlacements = (placements: readonly Placement[]): Float32Array<ArrayBuffer> =>
  Float32Array.from(placements.flatMap((placement) => packed.map((key) => placement[key])));

/** What `packPlacements` packed, but for what 32 bits round off. */
export const unpackPlacements = (values: Float32Array): Placement[] =>
  Array.from({ length: values.length / packed.length }, (_, index) => {
    const [dx, dy, rotation, scale, agreement] = values.subarray(
      index * packed.length,
      (index + 1) * packed.length,
    );
    return { dx, dy, rotation, scale, agreement };
  });

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

/** The way back: frame → reference. Same picture size for both. */
export function inverted({ dx, dy, rotation, scale, agreement }: Placement): Placement {
  const angle = (rotation * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle) / scale, Math.sin(angle) / scale];
  return {
    dx: -(cos * dx + sin * dy),
    dy: sin * dx - cos * dy,
    rotation: -rotation,
    scale: 1 / scale,
    agreement,
  };
}

/** How one frame lies against another, both placed against the same reference: first frame → second frame. */
export const between = (first: Placement, second: Placement): Placement => chain(inverted(first), second);

/** A placement part of the way from one to another that lies near. @param share 0..1 */
export function mixed(before: Placement, after: Placement, share: number): Placement {
  const mix = (key: keyof Placement) => before[key] + (after[key] - before[key]) * share;
  return {
    dx: mix('dx'),
    dy: mix('dy'),
    rotation: mix('rotation'),
    scale: mix('scale'),
    agreement: mix('agreement'),
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
