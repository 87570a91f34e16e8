import type { Bounds, Point, Size } from '../geometry/size';
import type { Head } from './head';

/** how many reaches of a head a part of a picture goes to each side, and how far its middle lies below the head: the body tells too */
const [sides, below] = [7, 3];
/** pixels that such a part has to each side at least */
const least = 24;

/**
 * The part of a picture in which a head is looked for: whoever is small in a picture is not found in all of it.
 * @param at in shares of the picture
 * @param reach of the head, as a share of the picture's width
 * @returns in whole pixels of the picture
 */
export function partRound({ width, height }: Size, [x, y]: Point, reach: number): Bounds {
  const side = Math.floor(Math.min(width, height, 2 * Math.max(least, sides * reach * width)));
  const from = (middle: number, length: number) =>
    Math.round(Math.min(length - side, Math.max(0, middle - side / 2)));
  const [left, top] = [from(x * width, width), from(y * height + below * reach * width, height)];
  return { left, top, right: left + side, bottom: top + side };
}

/** Heads that were found in a part of a picture, in the whole of it. @param part in pixels of the whole */
export const headsInWhole = (
  heads: readonly Head[],
  { left, top, right, bottom }: Bounds,
  whole: Size,
): Head[] =>
  heads.map(({ at: [x, y], reach }) => ({
    at: [(left + x * (right - left)) / whole.width, (top + y * (bottom - top)) / whole.height],
    reach: (reach * (right - left)) / whole.width,
  }));
