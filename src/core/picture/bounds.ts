import type { Bounds, Size } from '../geometry/size';
import type { GrayImage } from './image';

/** Smallest even-aligned part of the frame outside of which a mask has one value. */
export function boundsOf({ width, height, data }: GrayImage, outside: 0 | 255): Bounds {
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y++) {
    const row = data.subarray(y * width, (y + 1) * width);
    let first = 0;
    while (first < width && row[first] === outside) first++;
    if (first === width) continue;
    let last = width - 1;
    while (row[last] === outside) last--;
    left = Math.min(left, first);
    right = Math.max(right, last + 1);
    top = Math.min(top, y);
    bottom = y + 1;
  }
  return {
    left: left & ~1,
    top: top & ~1,
    right: Math.min(width, right + (right & 1)),
    bottom: Math.min(height, bottom + (bottom & 1)),
  };
}

/** The part that two have in common; of no width or height where there is none. */
export const commonPart = (one: Bounds, other: Bounds): Bounds => ({
  left: Math.max(one.left, other.left),
  top: Math.max(one.top, other.top),
  right: Math.min(one.right, other.right),
  bottom: Math.min(one.bottom, other.bottom),
});

/**
 * Bounds that reach further to each side, their corners on a grid; no further than the picture.
 * @param step pixels from one line of the grid to the next
 */
export function widerBounds(
  { left, top, right, bottom }: Bounds,
  by: number,
  step: number,
  { width, height }: Size,
): Bounds {
  const before = (side: number) => Math.max(0, Math.floor((side - by) / step) * step);
  const after = (side: number, last: number) => Math.min(last, Math.ceil((side + by) / step) * step);
  return { left: before(left), top: before(top), right: after(right, width), bottom: after(bottom, height) };
}

/** The part of a picture within bounds, row by row. */
export function cutPart({ width, data }: GrayImage, { left, top, right, bottom }: Bounds): Float32Array {
  const out = new Float32Array((right - left) * (bottom - top));
  for (let row = top, to = 0; row < bottom; row++, to += right - left)
    out.set(data.subarray(row * width + left, row * width + right), to);
  return out;
}
