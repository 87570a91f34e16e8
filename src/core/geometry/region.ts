import type { Bounds, Point, Size } from './size';

/** A part of a picture, in shares of it. */
export type Region = { x: number; y: number; width: number; height: number };

/** What is drawn at first. */
export const usualRegion: Region = { x: 0.25, y: 0.25, width: 0.5, height: 0.5 };

/** The least share of a picture's side that a part of it takes up: less holds nothing to look at. */
export const leastRegion = 0.05;

/** The part between two corners, in whatever order, within the picture and no smaller than the least. */
export function regionBetween(one: Point, other: Point): Region {
  const side = (a: number, b: number): [from: number, length: number] => {
    const [low, high] = [Math.min(a, b), Math.max(a, b)].map((share) => Math.min(1, Math.max(0, share)));
    const length = Math.max(leastRegion, high - low);
    return [Math.min(low, 1 - length), length];
  };
  const [x, width] = side(one[0], other[0]);
  const [y, height] = side(one[1], other[1]);
  return { x, y, width, height };
}

/** The whole pixels of a picture that a part of it touches. */
export const pixelsOf = ({ x, y, width, height }: Region, size: Size): Bounds => ({
  left: Math.floor(x * size.width),
  top: Math.floor(y * size.height),
  right: Math.min(size.width, Math.ceil((x + width) * size.width)),
  bottom: Math.min(size.height, Math.ceil((y + height) * size.height)),
});
