import type { Point } from '../geometry/size';
import type { RgbaImage } from '../picture/image';
import { coverOfRings } from '../picture/mask';
import { median } from '../statistics';

/** A stretch of a take in which something may move under an outline. */
export type UnderTask = {
  is: 'under';
  media: string;
  /** seconds of the take */
  from: number;
  until: number;
  /** shares of the file's picture */
  ring: Point[];
};

/** Seconds of the take, end excluded, in which something else is under the outline; the greatest share of it. */
export type UnderSpan = { from: number; to: number; share: number };

/** codes by which a pixel differs at least, however little noise there is */
const leastDifference = 14;
/** share of the outline that has to differ, and in how many pictures */
const [leastShare, leastPictures] = [0.05, 2];
/** pictures that may lie between two parts of one span */
const pause = 3;

/**
 * When something moves under an outline: where a picture differs there from how the take mostly is.
 * @param pictures all of one size
 * @param ring in pixels of them
 * @param times seconds at which each begins to show, and then the one at which the last ends
 * @returns spans in their order, none where nothing moves
 */
export function movingUnder(
  pictures: readonly RgbaImage[],
  ring: readonly Point[],
  times: readonly number[],
): UnderSpan[] {
  if (pictures.length < 3) return [];
  const { width, height } = pictures[0];
  const inside = coverOfRings([[...ring]], { width, height });
  const places = [...inside.keys()].filter((place) => inside[place] > 0.5);
  if (places.length === 0) return [];
  const channels = places.flatMap((place) => [0, 1, 2].map((channel) => place * 4 + channel));
  const usual = channels.map((at) => median(pictures.map(({ data }) => data[at])));
  const off = pictures.map(({ data }) => channels.map((at, index) => Math.abs(data[at] - usual[index])));
  // 1.4826 turns a median deviation into a normal one's standard deviation.
  const noise = 1.4826 * median(off.map((one) => median(one)));
  const limit = Math.max(leastDifference, 5 * noise);
  const shares = off.map((one) => {
    const differing = places.filter((_, index) => Math.max(...one.slice(index * 3, index * 3 + 3)) > limit);
    return differing.length / places.length;
  });
  const spans: { first: number; last: number; share: number }[] = [];
  shares.forEach((share, index) => {
    if (share < leastShare) return;
    const open = spans.at(-1);
    if (open && index - open.last <= pause) {
      open.last = index;
      open.share = Math.max(open.share, share);
    } else spans.push({ first: index, last: index, share });
  });
  return spans
    .filter(({ first, last }) => last - first + 1 >= leastPictures)
    .map(({ first, last, share }) => ({ from: times[first], to: times[last + 1], share }));
}
