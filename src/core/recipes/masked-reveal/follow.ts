import {
  pointReach,
  type Followed,
  type Track,
  type TrackPoint,
  type TrackTask,
} from '../../footage/track/track';
import { lastNotAfter, meanStep } from '../../footage/picture-times';
import { invertAffine, mapPoint } from '../../geometry/affine';
import type { Point, Size } from '../../geometry/size';
import { matrixAt, secondsAt, type MediaNode } from '../../picture/node';
import { carriedAt, fewestShapes, middleOf } from '../../shapes/carried';
import type { Ring } from '../../shapes/draw';
import { shapeAt, type ShapeKey } from '../../shapes/keyed';
import { boxRound } from '../cutouts';
import type { Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { drawnKeys } from './edge';
import { wholeReveal } from './settings';
import { afterSlot, beforeSlot } from './slots';
import { revealFrames, revealTakes, type RevealMoment } from './takes';

/** The work that follows what lies under a drawn edge. */
const edgeWork = 'edge';

/** delivery pixels that a corner may lie beside where it is carried to */
const tolerance = 0.2;
/** what belongs to a followed shape, to each side: shares of the picture's width */
const [leastReach, mostReach] = [pointReach / 2, 0.2];

/** pictures of a take from one that was looked at to the next, at the most; over more than that it was lost */
const mostPassedOver = 8;

/** Half the shorter side of the box round a shape, as a share of the picture's width. @param ring in shares of the picture */
function halfSide(ring: Ring, { width, height }: Size): number {
  const box = boxRound(ring);
  return box ? Math.min(box.right - box.left, ((box.bottom - box.top) * height) / width) / 2 : 0;
}

/** The slot whose take a drawn edge is carried by; null where it stays as it is drawn. */
export function carrier({ settings }: RevealMoment) {
  const { edge, shape, follows } = wholeReveal(settings);
  if (edge !== 'drawn' || !shape || follows === 'nothing') return null;
  return follows === 'before' ? beforeSlot : afterSlot;
}

/** The part of a take that shows on a frame, and that frame; beside all of them the nearest that one shows on. */
function shownOn(parts: readonly MediaNode[], frame: number): { part: MediaNode; on: number } {
  const part =
    parts.find(({ from, until }) => frame >= from && frame < until) ??
    (frame < parts[0].from ? parts[0] : parts[parts.length - 1]);
  return { part, on: Math.min(part.until - 1, Math.max(part.from, frame)) };
}

/** How the take that carries the edge lies in the frame; null where none does. */
function carryingTake(moment: RevealMoment, ruler: Ruler, material: Material) {
  const slot = carrier(moment);
  const parts = slot ? revealTakes(moment, ruler, material, slot) : [];
  const measure = slot && material.takes[slot.key]?.measure;
  if (!slot || !measure || parts.length === 0) return null;
  const { width, height } = ruler.project;
  const { size } = measure;
  const matrix = (frame: number) => {
    const { part, on } = shownOn(parts, frame);
    return matrixAt(part, on);
  };
  return {
    slot,
    size,
    /** seconds from one of its pictures to the next */
    step: meanStep(measure.times),
    seconds: (frame: number): number => {
      const { part, on } = shownOn(parts, frame);
      return secondsAt(part, on);
    },
    toPicture: (frame: number, [x, y]: Point): Point => {
      const [px, py] = mapPoint(invertAffine(matrix(frame)), [x * width, y * height]);
      return [px / size.width, py / size.height];
    },
    toFrame: (frame: number, [x, y]: Point): Point => {
      const [px, py] = mapPoint(matrix(frame), [x * size.width, y * size.height]);
      return [px / width, py / height];
    },
  };
}

/** What lies under a drawn edge, where that is to be followed: one tap for each frame that it is drawn on. */
export function edgeWorks(moment: RevealMoment, ruler: Ruler, material: Material): Work[] {
  const carrying = carryingTake(moment, ruler, material);
  const take = carrying && material.takes[carrying.slot.key]?.take;
  if (!carrying || !take) return [];
  const { seconds, toPicture, size } = carrying;
  const { lands, end } = revealFrames(moment, ruler);
  const keys = drawnKeys(moment.settings, ruler.project).filter(({ after }) => lands + after < end);
  if (keys.length === 0) return [];
  const inside = (value: number) => Math.min(1, Math.max(0, value));
  const taps = keys.map(({ after, ring }): TrackPoint => {
    const [x, y] = toPicture(lands + after, middleOf(ring));
    return { time: seconds(lands + after), at: [inside(x), inside(y)] };
  });
  const [first] = keys;
  const there = first.ring.map((point) => toPicture(lands + first.after, point));
  const reach = Math.min(mostReach, Math.max(leastReach, halfSide(there, size)));
  // A tenth of a second more, so that a beat moved a little asks for nothing new.
  const [from, until] = [Math.floor(10 * seconds(lands)) / 10, Math.ceil(10 * seconds(end - 1) + 1) / 10];
  const task = (): TrackTask => ({ is: 'track', media: take.media, from, until, taps, reach });
  const parts = [take.media, take.matrix, from, until, taps, reach];
  return [{ name: edgeWork, title: 'what the edge follows', is: 'track', parts, task }];
}

/** What was found under the edge; null while nobody looked. */
export const trackUnderEdge = (solved: Material['solved']): Track | null => {
  const answer = solved[edgeWork];
  return answer?.method === 'track-2' ? answer.track : null;
};

/** What is followed at some seconds: in the picture that shows then, or between two of them where not all were looked at. */
function followedAt(
  points: readonly Followed[],
  times: Float64Array,
  step: number,
  seconds: number,
): Followed | null {
  // A picture is on the screen from half its time before it begins. @see pictureAt
  const index = lastNotAfter(times, seconds + step / 2);
  const [one, next] = [points[index], points[index + 1]];
  const since = seconds - one.time;
  const gap = next?.tap === one.tap ? next.time - one.time : Infinity;
  const isPassedOver = gap > 1.5 * step && gap <= mostPassedOver * step;
  if (!isPassedOver || since <= 0) return Math.abs(since) <= step ? one : null;
  const share = since / gap;
  const mid = (a: number, b: number) => a + share * (b - a);
  return {
    time: seconds,
    tap: one.tap,
    at: [mid(one.at[0], next.at[0]), mid(one.at[1], next.at[1])],
    scale: mid(one.scale, next.scale),
    rotation: mid(one.rotation, next.rotation),
  };
}

/** Where what the edge follows is, by frames after the change began; in shares of the frame. */
function followedByFrame(moment: RevealMoment, ruler: Ruler, material: Material): Map<number, Followed> {
  const carrying = carryingTake(moment, ruler, material);
  const points = trackUnderEdge(material.solved)?.points ?? [];
  const out = new Map<number, Followed>();
  if (!carrying || points.length < 2) return out;
  const { seconds, toFrame, step } = carrying;
  const { lands, end } = revealFrames(moment, ruler);
  const times = Float64Array.from(points, ({ time }) => time);
  for (let frame = lands; frame < end; frame++) {
    const found = followedAt(points, times, step, seconds(frame));
    if (found) out.set(frame - lands, { ...found, at: toFrame(frame, found.at) });
  }
  return out;
}

/** The edge on a frame, counted from the change's first; in shares of the frame. */
export function edgeAt(moment: RevealMoment, ruler: Ruler, material: Material, after: number): Ring {
  const keys = drawnKeys(moment.settings, ruler.project);
  const followed = followedByFrame(moment, ruler, material);
  return followed.size > 0 ? carriedAt(keys, followed, after, ruler.project) : shapeAt(keys, after);
}

/** The keys of a drawn edge: as it was drawn, or as it is carried by what lies under it. */
export function edgeKeys(moment: RevealMoment, ruler: Ruler, material: Material): ShapeKey[] {
  const keys = drawnKeys(moment.settings, ruler.project);
  const followed = followedByFrame(moment, ruler, material);
  if (followed.size === 0) return keys;
  const { lands, end } = revealFrames(moment, ruler);
  const shapes = Array.from({ length: end - lands }, (_, after) =>
    carriedAt(keys, followed, after, ruler.project),
  );
  return fewestShapes(shapes, 0, tolerance, ruler.project);
}
