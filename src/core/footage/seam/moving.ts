import type { Size } from '../../geometry/size';
import type { RgbaImage } from '../../picture/image';
import { median, quantile } from '../../statistics';
import { pairOf, step } from './cut';
import { costsOf, costsOfSpans, divideSpans, type Costs, type Span } from './divide';
import { apartAnyway, joinDifferences, joinPlaces } from './join-cost';
import type { Kept } from './movers';
import { forcedBy, type Stroke } from './strokes';

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

/** Whether a division is seen in some frame of a span, leaves somebody out, or does not obey strokes. */
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
export type Key = { frame: number; labels: Uint8Array };

/**
 * The same pictures with as few changes as that takes: a span goes on with the division before it until something else
 * would show by that, or almost.
 */
function keepLong(
  costs: Costs,
  { spans, labels }: Division,
  isSeen: IsSeen,
  before: Uint8Array | null,
): Key[] {
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
    const agrees = (last: Uint8Array) => {
      for (let frame = from; frame < until; frame++)
        for (let pixel = 0; pixel < area; pixel++) {
          if (last[pixel] === own[pixel]) continue;
          const pair = pairOf(costs.takes, last[pixel], own[pixel]);
          if (costs.between[pair][frame * area + pixel] > limits[pair]) return false;
        }
      return !isSeen({ from, until }, last);
    };
    const goesOn = kept ? agrees(kept) : before !== null && !isSeen({ from, until }, before);
    if (!goesOn) keys.push({ frame: from, labels: own });
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

/** Takes side by side, where they must show, and who in them is to be kept. */
export type Seamed = {
  takes: readonly (readonly RgbaImage[])[];
  strokes: readonly Stroke[];
  kept: Kept;
};

/** What says whether a division is seen. */
export function judgeOf({ takes, strokes, kept }: Seamed): IsSeen {
  const [[size]] = takes;
  return ({ from, until }, labels) => {
    if (!obeys(size, strokes, { from, until }, labels)) return true;
    const places = joinPlaces(size, labels);
    for (let frame = from; frame < until; frame++) {
      if (drops(kept, frame, size, labels)) return true;
      const pictures = takes.map((take) => take[frame]);
      const differences = joinDifferences(pictures, places);
      const anyway = apartAnyway(pictures);
      const limit = Math.max(unseen, Math.min(2.5 * anyway, anyway + 2));
      if (quantile(differences, 0.95) > limit || quantile(differences, 1) > 3 * limit) return true;
    }
    return false;
  };
}

/**
 * A division that changes where it would be seen otherwise: by spans of frames that are halved where it is.
 * @param before the division in force before the first frame; it goes on for as long as it is not seen
 * @returns the divisions, each from a frame on; none where the one before goes on to the end
 */
export function divideMoving(seamed: Seamed, isSeen: IsSeen, before: Uint8Array | null = null): Key[] {
  const { takes, strokes, kept } = seamed;
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
  return keepLong(costs, division, isSeen, before);
}
