import { refuse } from '../../error';
import type { Point, Size } from '../../geometry/size';
import { checkSameSize, type GrayImage, type RgbaImage } from '../../picture/image';
import { quantile } from '../../statistics';
import { pairOf } from './cut';
import { costsOver, divideSpans } from './divide';
import { disagreementOf, joinCost, joinDifferences, joinPlaces, type Disagreement } from './join-cost';
import { whoIsKept, type Kept } from './movers';
import { divideMoving, judgeOf } from './moving';
import { outlinesOf } from './outlines';
import { noWorseThanStraight } from './straight';
import { forcedBy, type Stroke } from './strokes';

/** The outlines, in pixels, of where takes above the first show, from `frame` on; `points` is the largest. */
export type Outline = { frame: number; points: Point[]; rings: Point[][] };

type Seam = {
  /** number of the take that shows at each pixel; one picture when still */
  labels: GrayImage[];
  /** as few keyframes as keep the same picture */
  outline: Outline[];
  /** 95th percentile CIEDE2000 across the join, a frame */
  visible: number[];
};

/** frames at which is looked who stands where, for a division that stays */
const stillLooks = 48;

/** The division that stays the same over all frames. */
function divideStill(
  takes: RgbaImage[][],
  size: Size,
  strokes: readonly Stroke[],
  kept: Kept,
): Uint8Array<ArrayBuffer> {
  const pairs = new Map<number, Disagreement>();
  const seen = (a: number, b: number) => {
    const pair = disagreementOf(takes[a], takes[b]);
    pairs.set(pairOf(takes.length, a, b), pair);
    return pair;
  };
  const labels = divideSpans(costsOver(size, takes.length, takes[0].length, seen), strokes, kept);
  const only = takes.length === 2 && pairs.get(pairOf(2, 0, 1));
  return only ? noWorseThanStraight(size, joinCost(only), forcedBy(size, strokes), labels) : labels;
}

/**
 * Divides the frame between takes so that the joins run where the takes agree: the same way over the whole length where
 * no join is seen by that, else by one that changes as seldom as it can.
 * @param takes pictures of each take, same size and number of frames, already steadied and matched
 * @param strokes where a take must show
 * @param options.still one division for the whole length, seen or not
 * @throws CoreError `takes`, `frames-differ` or `sizes-differ` where they do not belong together
 */
export function solveSeam(takes: RgbaImage[][], strokes: Stroke[], options: { still?: boolean } = {}): Seam {
  if (takes.length < 2) refuse('takes', 'A seam needs at least two takes. Choose another one.');
  const frames = takes[0].length;
  if (frames === 0 || takes.some((take) => take.length !== frames)) {
    refuse('frames-differ', 'The takes have different numbers of frames. Trim them to the same length.');
  }
  const [first] = takes[0];
  for (const take of takes) for (const picture of take) checkSameSize(first, picture);
  const size = { width: first.width, height: first.height };
  const picturesAt = (frame: number) => takes.map((take) => take[frame]);
  const all = [...Array(frames).keys()];
  const kept = whoIsKept(takes, strokes, options.still ? Math.ceil(frames / stillLooks) : 1);
  const isSeen = judgeOf({ takes, strokes, kept });
  const still = divideStill(takes, size, strokes, kept);
  const isStill = options.still ?? !isSeen({ from: 0, until: frames }, still);
  const keys = isStill ? [{ frame: 0, labels: still }] : divideMoving({ takes, strokes, kept }, isSeen);
  const shown = keys.map((key) => ({ ...key, places: joinPlaces(size, key.labels) }));
  const shownAt = (frame: number) => shown.findLast((key) => key.frame <= frame) ?? shown[0];
  return {
    labels: (options.still ? [0] : all).map((frame) => ({ ...size, data: shownAt(frame).labels })),
    outline: keys.map(({ frame, labels }) => {
      const rings = outlinesOf(size, labels);
      return { frame, points: rings[0] ?? [], rings };
    }),
    visible: all.map((frame) => quantile(joinDifferences(picturesAt(frame), shownAt(frame).places), 0.95)),
  };
}
