import type { Bounds } from '../geometry/size';

/** A mask with, for each row, where its longest fully covered run begins and ends. */
type MaskPlane = { cover: Uint8Array; solid: Int32Array };

export type MaskPlanes = {
  luma: MaskPlane;
  chroma: MaskPlane;
  /** what it touches */
  bounds: Bounds;
  /** what it leaves open, wholly or in part */
  open: Bounds;
};

/** A mask's coverage with its runs. @param width pixels a row */
export function withRuns(cover: Uint8Array, width: number): MaskPlane {
  const solid = new Int32Array((cover.length / width) * 2);
  for (let row = 0; row * width < cover.length; row++) {
    let start = -1;
    for (let x = 0; x <= width; x++) {
      const full = x < width && cover[row * width + x] === 255;
      if (full && start < 0) start = x;
      if (full || start < 0) continue;
      if (x - start > solid[2 * row + 1] - solid[2 * row]) [solid[2 * row], solid[2 * row + 1]] = [start, x];
      start = -1;
    }
  }
  return { cover, solid };
}

/** Codes that lie in the middle go towards the front, so that neither lighter nor darker gains by rounding. */
const tie = 1e-6;

/**
 * Lays one plane over another, each code rounded to the nearest; runs that are fully covered are copied.
 * @param width pixels a row of both planes
 * @param inside where the front reaches, 0 or 255; null where it reaches everywhere
 * @param opacity 0..1
 */
export function layPlane(
  back: Uint8Array,
  front: Uint8Array,
  width: number,
  bounds: Bounds,
  mask: MaskPlane | null,
  inside: Uint8Array | null,
  opacity: number,
): void {
  const full = opacity >= 1 && !inside;
  const share = opacity / 255;
  const { left, right } = bounds;
  for (let y = bounds.top; y < bounds.bottom; y++) {
    const base = y * width;
    const end = base + right;
    const solidStart = full ? base + Math.max(left, mask ? mask.solid[2 * y] : left) : -1;
    const solidEnd = base + Math.min(right, mask ? mask.solid[2 * y + 1] : right);
    for (let at = base + left; at < end; at++) {
      if (at === solidStart && solidEnd > at) {
        back.set(front.subarray(at, solidEnd), at);
        at = solidEnd - 1;
        continue;
      }
      const amount = mask ? mask.cover[at] : 255;
      if (amount > 0 && (!inside || inside[at])) {
        const step = front[at] - back[at];
        back[at] = back[at] + step * amount * share + (step < 0 ? 0.5 - tie : 0.5);
      }
    }
  }
}
