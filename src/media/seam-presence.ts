import { nearnessOf } from '@/core/footage/contact';
import { largestThing, presenceOf, type Presence } from '@/core/footage/presence';
import type { SeamSide } from '@/core/footage/seam-task';
import { coverOf, lossOf, tapped, thingsIn, type Things } from '@/core/footage/things';
import type { Size } from '@/core/geometry/size';
import type { SeamMeasure, SideLoss } from '@/core/model/measures';
import type { RgbaImage } from '@/core/picture/image';

/** One of each side of a seam, in the order of its task. */
export type Both<Value> = [Value, Value];

/** the grid in which is looked who stands where */
export const cells: Size = { width: 96, height: 54 };

/** The cell that a pixel of a picture lies in. */
export const cellOf = (pixel: number, { width, height }: Size): number =>
  Math.floor((Math.floor(pixel / width) * cells.height) / height) * cells.width +
  Math.floor(((pixel % width) * cells.width) / width);

/** Who stands in a side's pictures, and whom it keeps. */
export type Followed = {
  /** frames of the film that were looked at, in order */
  frames: number[];
  presence: Presence;
  things: Things;
  kept: ReadonlySet<number>;
};

/** @param present who stands where, by the frames of the film that were looked at; none where there is no plate */
export function followedIn(present: ReadonlyMap<number, Uint8Array>, side: SeamSide): Followed {
  const frames = [...present.keys()].sort((one, other) => one - other);
  const presence = { ...cells, frames: frames.map((frame) => present.get(frame) as Uint8Array) };
  const things = thingsIn(presence);
  const everybody = new Set(Array.from({ length: things.count }, (_, thing) => thing));
  return {
    frames,
    presence,
    things,
    kept: side.all ? everybody : keptOf(things, presence, side.taps, frames),
  };
}

/** Whom a side keeps: who was tapped; without a tap, the largest thing in the middle of the shot. */
function keptOf(
  things: Things,
  presence: Presence,
  taps: SeamSide['taps'],
  frames: readonly number[],
): ReadonlySet<number> {
  if (frames.length === 0) return new Set();
  const indexOf = (frame: number) =>
    Math.max(
      0,
      frames.findLastIndex((value) => value <= frame),
    );
  const middle = indexOf((frames[0] + frames[frames.length - 1]) / 2);
  const largest = taps.length === 0 ? largestThing(presence, middle) : null;
  return tapped(
    things,
    presence,
    largest ? [{ frame: middle, at: largest }] : taps.map(({ frame, at }) => ({ frame: indexOf(frame), at })),
  );
}

/** share of somebody that may go unseen in a frame: their rim, a shadow; more where nobody asked for them */
const tolerance = { kept: 0.06, other: 0.2 };

/** Share of each cell that shows a side. */
export function showsOf(labels: Uint8Array, side: 0 | 1, size: Size): Float32Array {
  const shows = new Float32Array(cells.width * cells.height);
  const [across, down] = [size.width / cells.width, size.height / cells.height];
  shows.forEach((_, cell) => {
    const [left, top] = [(cell % cells.width) * across, Math.floor(cell / cells.width) * down];
    let [sum, count] = [0, 0];
    for (let y = Math.floor(top); y < top + down && y < size.height; y++)
      for (let x = Math.floor(left); x < left + across && x < size.width; x++, count++)
        if (labels[y * size.width + x] === side) sum++;
    shows[cell] = sum / Math.max(1, count);
  });
  return shows;
}

/** The cells that a side's kept ever cover. @param from first frame that counts */
export function coverFrom({ things, kept, frames }: Followed, from: number): Uint8Array {
  const labels = things.labels.filter((_, index) => frames[index] >= from);
  return coverOf({ labels, count: things.count }, kept);
}

/** Who of a side is cut by divisions of the frame, or left out by them. @param from first frame that counts */
export function lossesOf(
  side: 0 | 1,
  { things, kept, frames }: Followed,
  labelsAt: (frame: number) => Uint8Array,
  size: Size,
  from: number,
): SideLoss[] {
  const first = frames.findIndex((frame) => frame >= from);
  if (first < 0) return [];
  const own = frames.slice(first);
  const shown = new Map<Uint8Array, Float32Array>();
  const shows = (index: number) => {
    const labels = labelsAt(own[index]);
    const known = shown.get(labels) ?? showsOf(labels, side, size);
    shown.set(labels, known);
    return known;
  };
  return Array.from({ length: things.count }, (_, thing) => thing).flatMap((thing) => {
    const isKept = kept.has(thing);
    const there = { labels: things.labels.slice(first), count: things.count };
    const loss = lossOf(there, thing, cells, shows, isKept ? tolerance.kept : tolerance.other);
    if (!loss) return [];
    const lost = loss.frames.map((index) => own[index]);
    return [
      {
        side,
        kept: isKept,
        whole: loss.whole,
        share: loss.share,
        frames: { count: lost.length, first: lost[0], last: lost[lost.length - 1] },
        at: loss.at,
      },
    ];
  });
}

/** Whether a division cuts or leaves out somebody who is kept in a frame. */
export function loses(both: Both<Followed>, frame: number, labels: Uint8Array, size: Size): boolean {
  return both.some(({ frames, things, kept }, side) => {
    const index = frames.indexOf(frame);
    if (index < 0) return false;
    const there = { labels: [things.labels[index]], count: things.count };
    const shows = showsOf(labels, side as 0 | 1, size);
    return [...kept].some((thing) => lossOf(there, thing, cells, () => shows, tolerance.kept) !== null);
  });
}

/** Whether a cell shows somebody who is kept. */
const keeps = ({ things, kept }: Followed, index: number, cell: number): boolean =>
  kept.has(things.labels[index][cell]);

/** cells that two share at least */
const least = 3;

/** Whether in a frame somebody of one side stands where somebody of the other one does at some time. */
export function crosses(both: Both<Followed>, covered: Both<Uint8Array>, frame: number): boolean {
  const [one, other] = both.map(({ frames }) => frames.indexOf(frame));
  if (one < 0 || other < 0) return false;
  const [first, second] = both.map(({ presence }, side) => presence.frames[side === 0 ? one : other]);
  let count = 0;
  for (let cell = 0; cell < first.length; cell++)
    if ((first[cell] || second[cell]) && covered[0][cell] && covered[1][cell]) count++;
  return count > least;
}

/** Whether both stand in the same place in one frame. */
export function overlapOf(both: Both<Followed>, frame: number): boolean {
  const indices = both.map(({ frames }) => frames.indexOf(frame));
  if (indices.some((index) => index < 0)) return false;
  let count = 0;
  for (let cell = 0; cell < cells.width * cells.height; cell++)
    if (both.every((one, side) => keeps(one, indices[side], cell))) count++;
  return count > least;
}

/** cells beside somebody in which the colours that a join is judged by are partly theirs */
const besideCells = 2;

/** The cells in or beside which somebody kept of both sides stands in a frame: there they touch, and a join runs along themselves. */
export function touchingIn(both: Both<Followed>, frame: number): Uint8Array {
  const indices = both.map(({ frames }) => frames.indexOf(frame));
  const near = (side: number, cell: number): boolean => {
    const [x, y] = [cell % cells.width, Math.floor(cell / cells.width)];
    for (let row = Math.max(0, y - besideCells); row <= Math.min(cells.height - 1, y + besideCells); row++)
      for (let at = Math.max(0, x - besideCells); at <= Math.min(cells.width - 1, x + besideCells); at++)
        if (keeps(both[side], indices[side], row * cells.width + at)) return true;
    return false;
  };
  const known = indices.every((index) => index >= 0);
  return Uint8Array.from({ length: cells.width * cells.height }, (_, cell) =>
    known && near(0, cell) && near(1, cell) ? 1 : 0,
  );
}

/** Where the kept of both sides come nearest, by frames that were looked at. @param from first frame that counts */
export function nearestOf(both: Both<Followed>, from: number, shape: number): Contact | null {
  let best: Contact | null = null;
  const [{ frames }, other] = both;
  for (const [index, frame] of frames.entries()) {
    const second = other.frames.indexOf(frame);
    if (frame < from || second < 0) continue;
    const [left, right] = both.map((one, side) =>
      Uint8Array.from(one.things.labels[side === 0 ? index : second], (thing) =>
        one.kept.has(thing) ? 1 : 0,
      ),
    );
    const near = nearnessOf(cells, left, right, shape);
    if (near && (!best || near.apart < best.apart)) best = { ...near, frame };
  }
  return best;
}

export type Contact = NonNullable<SeamMeasure['contact']>;

/** the grid in which is looked how near two come */
const fine: Size = { width: 320, height: 180 };

/** How near the kept of both sides come in pictures of a frame that was looked at, on a finer grid. */
export function nearnessIn(
  both: Both<Followed>,
  frame: number,
  plate: RgbaImage,
  pictures: Both<RgbaImage>,
): Contact | null {
  const [left, right] = both.map((one, side) => {
    const labels = one.things.labels[one.frames.indexOf(frame)];
    return presenceOf(plate, pictures[side], fine).map((there, cell) => {
      const x = Math.floor(((cell % fine.width) * cells.width) / fine.width);
      const y = Math.floor((Math.floor(cell / fine.width) * cells.height) / fine.height);
      return there && one.kept.has(labels[y * cells.width + x]) ? 1 : 0;
    });
  });
  const near = nearnessOf(fine, left, right, plate.width / plate.height);
  return near && { ...near, frame };
}

/** Whose a cell is in a frame: the side that alone keeps somebody there, -1 where none or both do. */
export function keptAt(both: Both<Followed>, frame: number): Int8Array {
  const indices = both.map(({ frames }) => frames.indexOf(frame));
  return Int8Array.from({ length: cells.width * cells.height }, (_, cell) => {
    const [one, other] = both.map((those, side) => indices[side] >= 0 && keeps(those, indices[side], cell));
    return one === other ? -1 : one ? 0 : 1;
  });
}
