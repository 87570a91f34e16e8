import { median } from '../statistics';
import type { GrayImage } from '../picture/image';

/** A take in which something falls through the whole picture, a sheet or powder. */
export type FallTask = {
  is: 'fall';
  media: string;
  /** seconds of the take between which it is looked for */
  from: number;
  until: number;
};

/** What falls: when it begins, how long its front takes through the picture, and how far it is from a free fall. */
export type Fall = {
  /** seconds of the take */
  begins: number;
  /** seconds from the top edge to the bottom edge */
  lasts: number;
  /** the most by which its front lies beside that of something that falls from rest, in shares of the height */
  off: number;
};

/** codes by which a pixel differs from what it was, and the share of a row of which something that falls covers it */
const [leastDifference, leastShare] = [14, 0.5];

/**
 * How far down something covers the picture from side to side; 0 where nothing does.
 * @param before the picture before anything fell
 * @returns share of the height
 */
export function frontIn(before: GrayImage, picture: GrayImage): number {
  const { width, height } = picture;
  for (let row = height - 1; row >= 0; row--) {
    let count = 0;
    for (let at = row * width, end = at + width; at < end; at++)
      if (Math.abs(picture.data[at] - before.data[at]) > leastDifference) count++;
    if (count >= leastShare * width) return (row + 1) / height;
  }
  return 0;
}

/** share of the height within which a front tells how it falls: at the edges it is not whole */
const [near, far] = [0.04, 0.97];
/** pictures on which it has to be seen */
const leastPictures = 4;

/**
 * When something falls, and how long it takes, from how far down its front is in each picture.
 * @param fronts shares of the height, as {@link frontIn} gives them
 * @param times seconds of the take, rising, one for each
 * @returns null where nothing falls through the whole picture
 * @see a body that falls from rest covers distances as the square of its time, so the root of the distance rises evenly
 */
export function fallOf(fronts: readonly number[], times: readonly number[]): Fall | null {
  const bottom = fronts.findIndex((front) => front > far);
  if (bottom < 0) return null;
  let first = bottom;
  while (first > 0 && fronts[first - 1] < fronts[first] && fronts[first - 1] > near) first--;
  const seen = Array.from({ length: bottom - first }, (_, index) => first + index);
  if (seen.length < leastPictures || fronts[first] > 0.5) return null;
  const roots = seen.map((index) => Math.sqrt(fronts[index]));
  const slopes = seen.flatMap((index, one) =>
    seen
      .slice(one + 1)
      .map((other, rest) => (roots[one + 1 + rest] - roots[one]) / (times[other] - times[index])),
  );
  // The median of all slopes, so that a hand that reaches out first does not count (Theil 1950; Sen 1968).
  const slope = median(slopes);
  if (!(slope > 0)) return null;
  const begins = median(seen.map((index, one) => times[index] - roots[one] / slope));
  const off = seen.map((index) =>
    Math.abs(fronts[index] - (slope * Math.max(0, times[index] - begins)) ** 2),
  );
  return { begins, lasts: 1 / slope, off: Math.max(...off) };
}
