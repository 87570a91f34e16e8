import { cellsRound } from '@/core/footage/shadow/pattern';
import { leastShadow, type Shadow } from '@/core/footage/shadow/shadow';
import type { Shadows } from '@/core/footage/seam-task';
import type { Size } from '@/core/geometry/size';
import type { SideShadow } from '@/core/model/measures';
import { flood } from '@/core/picture/flood';
import { median } from '@/core/statistics';
import { cellOf, cells, keptAt, showsOf, type Both, type Followed } from './seam-presence';

/** The shadows in each side's pictures, by the frames of the film that were looked at. */
export type Fallen = Both<Map<number, Shadow>>;

/** share of something's cells that lie beside a shadow from which on it is that shadow's rim, or a gleam within it */
const mostlyBeside = 0.7;

/** Who stands where, without the shadows that they throw. @param present 1 where a picture differs from the empty set */
export function withoutShadow(present: Uint8Array, { depth, width, height }: Shadow): Uint8Array {
  const out = present.map((there, cell) => (depth[cell] > 0 ? 0 : there));
  const seen = new Uint8Array(out.length);
  for (let start = 0; start < out.length; start++) {
    const piece = flood({ width, height }, out, seen, start);
    const beside = piece.filter((cell) => cellsRound(cells, cell, 1).some((one) => depth[one] > 0));
    if (beside.length > mostlyBeside * piece.length) for (const cell of piece) out[cell] = 0;
  }
  return out;
}

/** The mean depth of a side's shadows over its frames, a cell each, in codes. @param from first frame that counts */
function meanDepth(fallen: ReadonlyMap<number, Shadow>, from: number): Float32Array {
  const counted = [...fallen].filter(([frame]) => frame >= from);
  const out = new Float32Array(cells.width * cells.height);
  for (const [, { depth }] of counted)
    depth.forEach((codes, cell) => {
      out[cell] += codes / counted.length;
    });
  return out;
}

/**
 * What it costs that a side shows at a pixel: as many codes as the other one's shadow is deep there where shadows are
 * kept, and as its own is where they are hidden.
 */
export function shadowPrior(
  fallen: Fallen,
  from: number,
  wanted: Shadows,
  size: Size,
): (side: number, pixel: number) => number {
  const depths = fallen.map((one) => meanDepth(one, from));
  return (side, pixel) => depths[wanted === 'hidden' ? side : 1 - side][cellOf(pixel, size)];
}

/** Whose a cell is in a frame, with the shadows that fall where nobody stands; -1 where it is nobody's, or of both. */
export function keptWithShadows(
  both: Both<Followed>,
  fallen: Fallen,
  frame: number,
  wanted: Shadows,
): Int8Array {
  const falls = fallen.map((one) => one.get(frame)?.depth);
  return keptAt(both, frame).map((side, cell) => {
    if (side >= 0) return side;
    const [one, other] = falls.map((depth) => (depth?.[cell] ?? 0) > 0);
    if (one === other) return -1;
    return one === (wanted === 'kept') ? 0 : 1;
  });
}

/** Where shadows lie to whoever throws them: the middles of both, in cells. */
function fallsTo({ depth }: Shadow, labels: Int16Array, kept: ReadonlySet<number>): SideShadow['falls'] {
  const middle = (counts: (cell: number) => boolean) => {
    let [x, y, count] = [0, 0, 0];
    for (let cell = 0; cell < depth.length; cell++) {
      if (!counts(cell)) continue;
      x += cell % cells.width;
      y += Math.floor(cell / cells.width);
      count++;
    }
    return count > 0 ? [x / count, y / count] : null;
  };
  const [own, theirs] = [middle((cell) => kept.has(labels[cell])), middle((cell) => depth[cell] > 0)];
  if (!own || !theirs) return null;
  const [right, down] = [theirs[0] - own[0], theirs[1] - own[1]];
  if (Math.abs(right) >= Math.abs(down)) return right > 0 ? 'right' : 'left';
  return down > 0 ? 'down' : 'up';
}

/**
 * What divisions of the frame do to a side's shadows; null where none fall. What lies behind somebody of the other side
 * is hidden by them, as it would be.
 * @param from first frame that counts
 */
export function shadowIn(
  side: 0 | 1,
  fallen: ReadonlyMap<number, Shadow>,
  both: Both<Followed>,
  labelsAt: (frame: number) => Uint8Array,
  size: Size,
  from: number,
): SideShadow | null {
  const { frames, things, kept } = both[side];
  const other = both[1 - side];
  const shown = new Map<Uint8Array, Float32Array>();
  const shows = (frame: number) => {
    const labels = labelsAt(frame);
    const known = shown.get(labels) ?? showsOf(labels, side, size);
    shown.set(labels, known);
    return known;
  };
  const seen = [...fallen]
    .filter(([frame, { depth }]) => frame >= from && depth.filter((codes) => codes > 0).length >= leastShadow)
    .sort(([one], [other]) => one - other)
    .map(([frame, shadow]) => {
      const part = shows(frame);
      const theirs = other.presence.frames[other.frames.indexOf(frame)];
      let [whole, lost, covers] = [0, 0, 0];
      shadow.depth.forEach((codes, cell) => {
        if (codes > 0) covers++;
        if (theirs?.[cell]) return;
        whole += codes;
        lost += codes * (1 - part[cell]);
      });
      return { frame, shadow, lost: lost / Math.max(1, whole), covers };
    });
  if (seen.length === 0) return null;
  const largest = seen.reduce((most, one) => (one.covers > most.covers ? one : most));
  const edges = seen.flatMap(({ shadow }) => shadow.edge ?? []);
  const labels = things.labels[frames.indexOf(largest.frame)];
  return {
    edge: edges.length > 0 ? median(edges) : null,
    covers: largest.covers / (cells.width * cells.height),
    falls: labels ? fallsTo(largest.shadow, labels, kept) : null,
    lost: seen.map(({ frame, lost }) => ({ frame, share: lost })),
  };
}
