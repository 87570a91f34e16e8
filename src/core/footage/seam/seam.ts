import { refuse } from '../../error';
import type { Point, Size } from '../../geometry/size';
import { checkSameSize, type GrayImage, type RgbaImage } from '../../picture/image';
import { median, quantile } from '../../statistics';
import { pairOf, step } from './cut';
import { costsOf, costsOfSpans, costsOver, divideSpans, type Costs, type Span } from './divide';
import {
  apartAnyway,
  disagreementOf,
  joinCost,
  joinDifferences,
  joinPlaces,
  type Disagreement,
} from './join-cost';
import { whoIsKept, type Kept } from './movers';
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

/** CIEDE2000 across a join, up to which an eye takes both sides for one surface. Source: common practice, no published source */
const unseen = 2.3;

/** frames over which a division stays the same at first, where it has to move */
const firstSpan = 16;

/** Spans of at most so many frames. */
const spansOf = (frames: number, most: number): Span[] =>
  Array.from({ length: Math.ceil(frames / most) }, (_, index) => ({
    from: index * most,
    until: Math.min(frames, (index + 1) * most),
  }));

/** frames at which is looked who stands where, for a division that stays */
const stillLooks = 48;

/** Whether a division is seen in some frame of a span, or does not obey strokes. */
type IsSeen = (span: Span, labels: Uint8Array) => boolean;

/** What is known of a division over spans, and whether each span has still to be looked at. */
type Division = { spans: Span[]; labels: Uint8Array<ArrayBuffer>; open: boolean[] };

/** Halves the open spans that `isSeen` in some frame; the others are settled. */
function halveSeen({ spans, labels, open }: Division, area: number, isSeen: IsSeen): Division {
  const halves = spans.flatMap((span, z) => {
    const own = labels.subarray(z * area, (z + 1) * area);
    const { from, until } = span;
    const middle = (from + until) >> 1;
    if (!open[z] || middle === from || !isSeen(span, own)) return [{ span, own, open: false }];
    return [
      { span: { from, until: middle }, own, open: true },
      { span: { from: middle, until }, own, open: true },
    ];
  });
  const next = new Uint8Array(area * halves.length);
  halves.forEach(({ own }, z) => next.set(own, z * area));
  return { spans: halves.map(({ span }) => span), labels: next, open: halves.map((half) => half.open) };
}

/** codes by which takes differ at which it matters who shows */
const leastCodes = 6;
/** how many times the middle difference that is, where there is much noise */
const beyondNoise = 2;

/** A division, from a frame on. */
type Key = { frame: number; labels: Uint8Array };

/**
 * The same pictures with as few changes as that takes: a span goes on with the division before it until something else
 * would show by that, or almost.
 */
function keepLong(costs: Costs, { spans, labels }: Division, isSeen: IsSeen): Key[] {
  const area = costs.width * costs.height;
  const limits = costs.between.map((values) => {
    const sampled = Float64Array.from(
      { length: Math.ceil(values.length / 97) },
      (_, index) => values[97 * index],
    );
    return Math.max(leastCodes / step, beyondNoise * median(sampled));
  });
  const keys: Key[] = [];
  spans.forEach(({ from, until }, z) => {
    const own = labels.subarray(z * area, (z + 1) * area);
    const kept = keys.at(-1)?.labels;
    const agrees = (before: Uint8Array) => {
      for (let frame = from; frame < until; frame++)
        for (let pixel = 0; pixel < area; pixel++) {
          if (before[pixel] === own[pixel]) continue;
          const pair = pairOf(costs.takes, before[pixel], own[pixel]);
          if (costs.between[pair][frame * area + pixel] > limits[pair]) return false;
        }
      return !isSeen({ from, until }, before);
    };
    if (!kept || !agrees(kept)) keys.push({ frame: from, labels: own });
  });
  return keys;
}

/** Whether a division obeys the strokes of each frame of a span. */
function obeys(size: Size, strokes: readonly Stroke[], { from, until }: Span, labels: Uint8Array): boolean {
  const own = strokes.filter(({ frame }) => frame !== undefined && frame >= from && frame < until);
  const always = strokes.filter(({ frame }) => frame === undefined);
  return [undefined, ...new Set(own.map(({ frame }) => frame))].every((frame) =>
    forcedBy(size, [...always, ...own.filter((stroke) => stroke.frame === frame)]).every(
      (take, pixel) => take < 0 || take === labels[pixel],
    ),
  );
}

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

/** share of those who are to be kept in a frame that may be missing: their rim */
const rim = 0.01;

/** Whether a division leaves out somebody who is to be kept, or a part of them. */
function drops(kept: Kept, frame: number, size: Size, labels: Uint8Array): boolean {
  let [count, lost] = [0, 0];
  kept.frames[frame].forEach((take, cell) => {
    if (take < 0) return;
    const x = Math.floor((((cell % kept.width) + 0.5) * size.width) / kept.width);
    const y = Math.floor(((Math.floor(cell / kept.width) + 0.5) * size.height) / kept.height);
    count++;
    if (labels[Math.min(size.height - 1, y) * size.width + Math.min(size.width - 1, x)] !== take) lost++;
  });
  return lost > rim * count;
}

/** A division that changes where it would be seen otherwise: by spans that are halved where it is. */
function divideMoving(takes: RgbaImage[][], strokes: readonly Stroke[], kept: Kept, isSeen: IsSeen): Key[] {
  const costs = costsOf(takes);
  const area = costs.width * costs.height;
  const spans = spansOf(costs.frames, firstSpan);
  const labels = divideSpans(costsOfSpans(costs, spans), strokes, kept);
  let division: Division = { spans, labels, open: spans.map(() => true) };
  while (division.open.includes(true)) {
    division = halveSeen(division, area, isSeen);
    const { spans, open, labels } = division;
    if (open.includes(true))
      division.labels = divideSpans(costsOfSpans(costs, spans), strokes, kept, open, labels);
  }
  return keepLong(costs, division, isSeen);
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
  const isSeen = ({ from, until }: Span, labels: Uint8Array) => {
    if (!obeys(size, strokes, { from, until }, labels)) return true;
    const places = joinPlaces(size, labels);
    for (let frame = from; frame < until; frame++) {
      if (drops(kept, frame, size, labels)) return true;
      const differences = joinDifferences(picturesAt(frame), places);
      const anyway = apartAnyway(picturesAt(frame));
      const limit = Math.max(unseen, Math.min(2.5 * anyway, anyway + 2));
      if (quantile(differences, 0.95) > limit || quantile(differences, 1) > 3 * limit) return true;
    }
    return false;
  };
  const still = divideStill(takes, size, strokes, kept);
  const isStill = options.still ?? !isSeen({ from: 0, until: frames }, still);
  const keys = isStill ? [{ frame: 0, labels: still }] : divideMoving(takes, strokes, kept, isSeen);
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
