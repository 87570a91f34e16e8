import type { Point } from '../geometry/size';
import { flood } from '../picture/flood';
import { nearestCell, type Presence } from './presence';

/** Everything that stands or walks in a take and that its plate has not, each connected through space and time. */
export type Things = {
  /** number of the thing in each cell of each frame, -1 where there is none */
  labels: Int16Array[];
  count: number;
};

/** cells that a thing covers in its largest frame at least; less is noise, leaves or a shadow's edge */
const least = 20;

/** The things of a take, in the order in which they first show. */
export function thingsIn({ width, height, frames }: Presence): Things {
  const area = width * height;
  const passable = new Uint8Array(area * frames.length);
  frames.forEach((cells, z) => passable.set(cells, z * area));
  const seen = new Uint8Array(passable.length);
  const labels = frames.map(() => new Int16Array(area).fill(-1));
  const size = { width, height, layers: frames.length };
  let count = 0;
  for (let start = 0; start < passable.length; start++) {
    const cells = flood(size, passable, seen, start);
    if (cells.length < least) continue;
    const perFrame = new Uint32Array(frames.length);
    for (const cell of cells) perFrame[Math.floor(cell / area)]++;
    if (perFrame.every((cells) => cells < least)) continue;
    for (const cell of cells) labels[Math.floor(cell / area)][cell % area] = count;
    count++;
  }
  return { labels, count };
}

/** The things that were tapped. @param taps index of a frame, and a point in shares of the frame */
export function tapped(
  { labels }: Things,
  presence: Presence,
  taps: readonly { frame: number; at: Point }[],
): Set<number> {
  const out = new Set<number>();
  for (const { frame, at } of taps) {
    const z = Math.min(presence.frames.length - 1, Math.max(0, frame));
    const cell = nearestCell(presence, z, at);
    if (cell >= 0 && labels[z][cell] >= 0) out.add(labels[z][cell]);
  }
  return out;
}

/** The cells that some things ever cover, 1 each. */
export function coverOf({ labels }: Things, chosen: ReadonlySet<number>): Uint8Array {
  const covered = new Uint8Array(labels[0]?.length ?? 0);
  for (const cells of labels)
    cells.forEach((thing, cell) => {
      if (chosen.has(thing)) covered[cell] = 1;
    });
  return covered;
}

/** What a division of the frame takes from a thing, in the frame in which it takes most. */
export type Loss = {
  /** share of the thing that does not show there, 0..1 */
  share: number;
  /** indices of the frames in which some of it does not show */
  frames: number[];
  /** true where it never shows at all */
  whole: boolean;
  /** where it stands in the worst frame, in shares of the frame */
  at: Point;
};

/**
 * What a thing loses where only a part of the frame shows its take.
 * @param shows share of each cell that shows the take in a frame, 0..1
 * @param tolerance share of the thing in one frame that may go unseen: its rim, a shadow
 */
export function lossOf(
  { labels }: Things,
  thing: number,
  { width, height }: { width: number; height: number },
  shows: (frame: number) => Float32Array,
  tolerance: number,
): Loss | null {
  const frames: number[] = [];
  let worst = { share: 0, at: [0.5, 0.5] as Point };
  let whole = true;
  labels.forEach((cells, frame) => {
    let [all, lost, x, y] = [0, 0, 0, 0];
    const shown = shows(frame);
    cells.forEach((label, cell) => {
      if (label !== thing) return;
      all++;
      lost += 1 - shown[cell];
      x += (cell % width) + 0.5;
      y += Math.floor(cell / width) + 0.5;
    });
    if (all === 0) return;
    const share = lost / all;
    if (share < 0.9) whole = false;
    if (share > tolerance && lost >= 3) frames.push(frame);
    if (share > worst.share) worst = { share, at: [x / all / width, y / all / height] };
  });
  return frames.length > 0 ? { ...worst, frames, whole } : null;
}
