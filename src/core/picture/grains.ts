import type { Size } from '../geometry/size';
import { seeded } from '../random';

/**
 * Grey grains, the same for the same seed and frame.
 * @param grain side of one, in pixels of `size`
 * @returns 0..1 for each, row after row, `width` of them in a row
 */
export function grainsOf(seed: number, grain: number, frame: number, size: Size) {
  const [width, height] = [Math.ceil(size.width / grain), Math.ceil(size.height / grain)];
  const next = seeded(seed * 1_000_003 + Math.floor(frame));
  return { width, height, values: Float64Array.from({ length: width * height }, next) };
}
