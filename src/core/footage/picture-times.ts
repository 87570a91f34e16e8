/** When the pictures of a take begin to show, in seconds, told in a few numbers. */
export type PictureTimes = {
  count: number;
  first: number;
  last: number;
  /** from one picture to the next: the middle one of all distances, the shortest, the longest; 0 with one picture */
  usual: number;
  shortest: number;
  longest: number;
};

/** @param times seconds at which each picture begins to show, rising; at least one */
export function pictureTimes(times: Float64Array): PictureTimes {
  const steps = times
    .slice(1)
    .map((time, index) => time - times[index])
    .sort();
  return {
    count: times.length,
    first: times[0],
    last: times[times.length - 1],
    usual: steps[steps.length >> 1] ?? 0,
    shortest: steps[0] ?? 0,
    longest: steps[steps.length - 1] ?? 0,
  };
}

/** The mean distance of pictures in seconds; 0 with one picture. */
export const meanStep = ({ count, first, last }: PictureTimes): number =>
  count > 1 ? (last - first) / (count - 1) : 0;

/** Index of the last of some rising times that is not after `seconds`; 0 before the first. */
export function lastNotAfter(times: Float64Array, seconds: number): number {
  let low = 0;
  let high = times.length - 1;
  while (low < high) {
    const between = (low + high + 1) >> 1;
    if (times[between] <= seconds) low = between;
    else high = between - 1;
  }
  return low;
}

/** Index of the picture that shows at a time: the last that has begun, with half a picture's grace. */
export function pictureAt(times: Float64Array, seconds: number): number {
  const step = times.length > 1 ? (times[times.length - 1] - times[0]) / (times.length - 1) : 0;
  return lastNotAfter(times, seconds + step / 2);
}

/**
 * The picture that shows at a time, and those to each side of it.
 * @param each so many, or as many as there are
 * @returns their times, and which of them shows
 */
export function picturesRound(
  times: Float64Array,
  seconds: number,
  each: number,
): { round: number[]; shows: number } {
  const at = pictureAt(times, seconds);
  const from = Math.max(0, at - each);
  return { round: [...times.subarray(from, at + each + 1)], shows: at - from };
}
