import { allowed } from '../../finding/allowed';
import {
  between,
  chain,
  cornerMove,
  inPlace,
  mixed,
  packPlacements,
  scalePlacement,
  unpackPlacements,
  type Placement,
} from '../../geometry/placement';
import type { Size } from '../../geometry/size';
import type { GrayImage } from '../../picture/image';
import type { FreePath } from '../free-path';
import { lastNotAfter } from '../picture-times';
import { prepareReference } from '../reference';
import { registerFrame } from '../register';

/** A picture of a take at some seconds of it, in the size of its path. */
export type Look = { seconds: number; luma: GrayImage };

/** How a camera went in a take, and some of its pictures. */
export type Travelled = { path: FreePath; looks: readonly Look[] };

/** A path as it is in pictures of another size of the same shape. */
export function pathInSize({ placements, size: { width }, ...rest }: FreePath, size: Size): FreePath {
  const scaled = unpackPlacements(placements).map((placed) => scalePlacement(placed, size.width / width));
  return { ...rest, size, placements: packPlacements(scaled) };
}

/** Where a camera stood at some seconds, as a function; before its first picture and after its last where it stood in those. */
export function standsAt({ times, placements }: FreePath): (seconds: number) => Placement {
  const all = unpackPlacements(placements);
  return (seconds) => {
    const at = lastNotAfter(times, seconds);
    const [before, after] = [all[at] ?? inPlace, all[at + 1]];
    if (!after) return before;
    const share = (seconds - times[at]) / (times[at + 1] - times[at]);
    return mixed(before, after, Math.min(1, Math.max(0, share)));
  };
}

/** Seconds of a take, and where its picture there lies against the first one of the take that it repeats. */
type Known = { seconds: number; at: Placement };

/** pictures of a take that are looked for in the other one's, to begin with; and so many that are found say more than its way */
const [begunWith, enough] = [10, 5];
/** seconds by which two ways are moved against each other, at first and in the end */
const [coarse, fine] = [0.04, 0.004];
/** share of the width beyond which it makes no difference how far two pictures lie apart */
const farthest = 0.12;
/** share of the shorter take that has to lie over the other one */
const overlap = 0.5;
/** share of the width that two ways may lie apart further than in the best step, and are as good: then they stay as they were filmed */
const asGood = 5e-4;
/** share of the width to which pictures that were found tell a place: what differs by less is their noise */
const told = 1e-4;

/** Finds the pictures of one take in those of the other: each in the one that it fits best. */
function found(own: readonly Look[], lead: Travelled, near?: (seconds: number) => number): (Known | null)[] {
  const standing = standsAt(lead.path);
  const width = lead.path.size.width;
  const best: ({ known: Known; worth: number } | null)[] = own.map(() => null);
  for (const { seconds, luma } of lead.looks) {
    const wanted = own.map((look) => {
      if (!near) return true;
      const off = (one: Look) => Math.abs(one.seconds - near(look.seconds));
      return lead.looks.every((one) => off(one) >= off({ seconds, luma }));
    });
    if (!wanted.some(Boolean)) continue;
    const reference = prepareReference(luma);
    own.forEach((look, index) => {
      if (!wanted[index]) return;
      const placed = registerFrame(reference, look.luma);
      const worth = placed.agreement - cornerMove(placed, luma) / width;
      if (placed.agreement < allowed.agreement || worth <= (best[index]?.worth ?? -Infinity)) return;
      best[index] = { worth, known: { seconds: look.seconds, at: chain(standing(seconds), placed) } };
    });
  }
  return best.map((one) => one?.known ?? null);
}

/** The mean distance of two ways that are moved against each other by some seconds, in pixels of the path's size; as far as can be where they hardly meet. */
function apartBy(
  late: number,
  lead: FreePath,
  standing: (seconds: number) => Placement,
  known: readonly Known[],
) {
  const [first, last] = [lead.times[0], lead.times[lead.times.length - 1]];
  const most = farthest * lead.size.width;
  let [sum, count] = [0, 0];
  for (const { seconds, at } of known) {
    const then = seconds - late;
    if (then < first || then > last) continue;
    sum += Math.min(most, cornerMove(between(standing(then), at), lead.size));
    count++;
  }
  const length = known[known.length - 1].seconds - known[0].seconds;
  const least = overlap * Math.min(1, (last - first) / Math.max(length, 1e-9)) * known.length;
  return count > 0 && count >= least ? sum / count : most;
}

/** The number of seconds between two others for which something is least; of some that are as good, the one next to none. */
function leastFrom(from: number, until: number, step: number, of: (late: number) => number, even: number) {
  const tried: { late: number; off: number }[] = [];
  for (let index = 0; from + index * step <= until; index++) {
    const late = from + index * step;
    tried.push({ late, off: of(late) });
  }
  const least = Math.min(...tried.map(({ off }) => off));
  return tried
    .filter(({ off }) => off <= least + even)
    .reduce((best, one) => (Math.abs(one.late) < Math.abs(best.late) ? one : best));
}

/** places of a take's way that are held against the other's way at the most */
const mostHeld = 200;

/** A way once one of its pictures was found in the other take, thinned out. */
function wayFrom(own: FreePath, { seconds, at }: Known): Known[] {
  const standing = standsAt(own);
  const here = standing(seconds);
  const step = Math.max(1, Math.ceil(own.times.length / mostHeld));
  return [...own.times]
    .filter((_, index) => index % step === 0)
    .map((time) => ({ seconds: time, at: chain(at, between(here, standing(time))) }));
}

/**
 * By how many seconds a take that repeats a move comes later than the take that it repeats: both ways are laid over
 * each other, and some pictures then say it more closely.
 * @returns null where none of its pictures shows what the other take does
 */
export function inStep(lead: Travelled, own: Travelled): { late: number } | null {
  if (lead.path.times.length < 2 || own.path.times.length < 2) return null;
  const { size, times } = lead.path;
  const standing = standsAt(lead.path);
  const step = own.looks.length / begunWith;
  const begun = found(
    own.looks.filter((_, index) => Math.floor(index / step) !== Math.floor((index - 1) / step)),
    lead,
  ).filter((one) => one !== null);
  if (begun.length === 0) return null;
  const [ownFirst, ownLast] = [own.path.times[0], own.path.times[own.path.times.length - 1]];
  const [from, until] = [ownFirst - times[times.length - 1], ownLast - times[0]];
  const even = asGood * size.width;
  // A way that was lost on its way tells nothing beyond; a picture that was found in the wrong place, nothing at all.
  const ways = begun.length >= enough ? [begun] : begun.map((one) => wayFrom(own.path, one));
  const rough = ways
    .map((known) => leastFrom(from, until, coarse, (late) => apartBy(late, lead.path, standing, known), even))
    .reduce((best, one) => (one.off < best.off ? one : best));
  const closely = found(own.looks, lead, (seconds) => seconds - rough.late).filter((one) => one !== null);
  if (closely.length === 0) return { late: rough.late };
  const { late } = leastFrom(
    rough.late - 5 * coarse,
    rough.late + 5 * coarse,
    fine,
    (by) => apartBy(by, lead.path, standing, closely),
    told * size.width,
  );
  return { late };
}
