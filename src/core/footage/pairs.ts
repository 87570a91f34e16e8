import type { Size } from '../geometry/size';
import { refuse } from '../error';
import { bodyGap, type Body } from '../people/bodies';
import { distanceTo } from './seam/strokes';

/** What is known of a take that could fill a slot. Null is what nobody measured, or could. */
export type TakeMeasures = {
  id: string;
  /** pixels of a frame 1920 wide by which its camera still stands off the plate's */
  lock: number | null;
  /** stops by which it is brighter than the plate */
  light: number | null;
  /** who stands in it, in the middle of the looks at it */
  body: Body | null;
  /** in which cells of the frame somebody stands, 1 each, every so many seconds from its first second on */
  presence: (Size & { every: number; frames: readonly Uint8Array[] }) | null;
  /** seconds by which it repeats its plate's move later; left out where the camera stands */
  late?: number;
};

/** How much each part of a pair's score counts. */
export type PairWeights = {
  /** how well both cameras stand where the plate's does */
  lock: number;
  /** how alike their light is */
  light: number;
  /** how much of the frame only one of the two ever needs, so that a join that stands still can part them */
  seam: number;
  /** how seldom both stand in the same place at once */
  overlap: number;
  /** how alike the heights of their eyes and their sizes are */
  eyes: number;
  /** how near they come without standing in each other's place */
  contact: number;
  /** how alike the outlines of who stands in them are, in one place, where they are most */
  pose: number;
};

export type RankedPair = {
  a: string;
  b: string;
  /** seconds: what b shows at t belongs beside what a shows at t + offset */
  offset: number;
  /** both repeat a move, and no other offset lays their cameras on one another */
  inStep?: true;
  /** 0..1: the mean of its parts, each counted by its weight, as a product */
  score: number;
  /** 0..1 each, 0.5 where it is not known, or does not count for what the two are joined into */
  parts: Record<keyof PairWeights, number>;
};

/** What counts where nobody says otherwise: two who meet, and do not have to touch; or one who stands as before. */
export const usualWeights: PairWeights = {
  lock: 1,
  light: 1,
  seam: 2,
  overlap: 2,
  eyes: 0,
  contact: 0,
  pose: 2,
};
/** The parts that can count for two who are to show side by side. */
export const besideParts = ['lock', 'light', 'seam', 'overlap', 'contact', 'eyes'] as const;

/** differences at which a part has fallen to 1 / e: pixels, stops, share of a stature, share of a size, share of the width */
const fallsOff = { lock: 1.5, light: 0.25, eyes: 0.1, size: 0.15, contact: 0.05 };
/** seconds by which one of two may be shifted against where both begin */
const mostShift = 1;
/** cells across in which two are held against each other */
const across = 32;
const unknown = 0.5;
/** a part counts as so much at least, so that one that fails leaves an order among those that fail */
const least = 0.02;

/** Who stands where in a take, in few cells: frame by frame, and where they ever stand. */
type Standing = {
  size: Size;
  every: number;
  /** the cells in which somebody stands, a bit each */
  bits: Uint32Array[];
  /** those of them that are beside one in which nobody does */
  rims: Uint16Array[];
  /** cells from each cell to the nearest in which somebody stands; Infinity where nobody is */
  away: Float32Array[];
  ever: Uint8Array;
};

function standingIn({ presence }: TakeMeasures): Standing | null {
  if (!presence || presence.frames.length === 0) return null;
  const { width, height, every, frames } = presence;
  const by = Math.max(1, Math.round(width / across));
  const size = { width: Math.ceil(width / by), height: Math.ceil(height / by) };
  const small = Uint16Array.from(
    { length: width * height },
    (_, cell) => Math.floor(Math.floor(cell / width) / by) * size.width + Math.floor((cell % width) / by),
  );
  const ever = new Uint8Array(size.width * size.height);
  const masks = frames.map((frame) => {
    const mask = new Uint8Array(ever.length);
    for (let cell = 0; cell < small.length; cell++)
      if (frame[cell]) mask[small[cell]] = ever[small[cell]] = 1;
    return mask;
  });
  const { width: line } = size;
  const rimOf = (mask: Uint8Array): Uint16Array => {
    const rim: number[] = [];
    for (let cell = 0; cell < mask.length; cell++)
      if (mask[cell] && !(mask[cell - 1] && mask[cell + 1] && mask[cell - line] && mask[cell + line]))
        rim.push(cell);
    return Uint16Array.from(rim);
  };
  return {
    size,
    every,
    bits: masks.map((mask) => {
      const words = new Uint32Array(Math.ceil(mask.length / 32));
      mask.forEach((there, cell) => (words[cell >> 5] |= there << (cell & 31)));
      return words;
    }),
    rims: masks.map(rimOf),
    away: masks.map((mask) => distanceTo(size, (cell) => mask[cell] > 0)),
    ever,
  };
}

/** True where two stand in one place in more than a cell, which their rims may share. */
function stand(one: Uint32Array, other: Uint32Array): boolean {
  let first = 0;
  for (let word = 0; word < one.length; word++) {
    const both = one[word] & other[word];
    if (both === 0) continue;
    if (first !== 0 || (both & (both - 1)) !== 0) return true;
    first = both;
  }
  return false;
}

/** Share of the instants at which both stand in one place when one is shifted. */
function crossing(a: Standing, b: Standing, shift: number): number {
  let [seen, count] = [0, 0];
  for (let frame = Math.max(0, -shift); frame < b.bits.length && frame + shift < a.bits.length; frame++) {
    seen++;
    if (stand(a.bits[frame + shift], b.bits[frame])) count++;
  }
  return seen > 0 ? count / seen : 0;
}

/** Cells between the two where they come nearest without standing in one place, when one is shifted; Infinity where they never show together. */
function nearest(a: Standing, b: Standing, shift: number): number {
  let least = Infinity;
  for (let frame = Math.max(0, -shift); frame < b.bits.length && frame + shift < a.bits.length; frame++) {
    if (stand(a.bits[frame + shift], b.bits[frame])) continue;
    const away = a.away[frame + shift];
    const rim = b.rims[frame];
    for (let index = 0; index < rim.length; index++) if (away[rim[index]] < least) least = away[rim[index]];
  }
  return least;
}

const closeness = (a: Standing, b: Standing, shift: number): number => {
  const least = nearest(a, b, shift);
  return least < Infinity ? alike(Math.max(0, least - 1) / a.size.width, fallsOff.contact) : 0;
};

/** How much of the places in which either stands both do, at the instant at which that is most, when one is shifted: 0..1. */
function sameOutline(a: Standing, b: Standing, shift: number): number {
  let most = 0;
  for (let frame = Math.max(0, -shift); frame < b.bits.length && frame + shift < a.bits.length; frame++) {
    let [both, either] = [0, 0];
    const [one, other] = [a.bits[frame + shift], b.bits[frame]];
    for (let word = 0; word < one.length; word++) {
      both += bitsIn(one[word] & other[word]);
      either += bitsIn(one[word] | other[word]);
    }
    if (either > 0) most = Math.max(most, both / either);
  }
  return most;
}

/** How many bits of a word are set. @see Warren, Hacker's Delight (from memory) */
function bitsIn(word: number): number {
  const pairs = word - ((word >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** Share of the frame that the one who needs less of it shares with the other at some time. */
function shared(a: Standing, b: Standing): number {
  let [both, one, other] = [0, 0, 0];
  a.ever.forEach((there, cell) => {
    both += there & b.ever[cell];
    one += there;
    other += b.ever[cell];
  });
  const least = Math.min(one, other);
  return least > 0 ? both / least : 0;
}

/** 1 for no difference, less and less for more of it. */
const alike = (difference: number, at: number): number => Math.exp(-Math.abs(difference) / at);
const between = (one: number | null, other: number | null, at: number): number =>
  one === null || other === null ? unknown : alike(one - other, at);

/** How alike two bodies' heights of eyes and sizes are. */
function level(one: Body | null, other: Body | null): number {
  if (!one || !other) return unknown;
  const { higher, larger } = bodyGap(one, other, 1);
  return alike(higher, fallsOff.eyes) * alike(Math.log(larger), fallsOff.size);
}

/** Shifts from none outwards: of those that are as good the smallest is taken. */
const shiftsOutwards = (most: number): number[] =>
  Array.from({ length: 2 * Math.round(most) + 1 }, (_, step) =>
    step % 2 === 0 ? 0 - step / 2 : (step + 1) / 2,
  );

/** Seconds by which one of two that repeat a move is further than the other as they show the same; null where they repeat none. */
const stepBetween = (one: TakeMeasures, other: TakeMeasures): number | null =>
  one.late === undefined || other.late === undefined ? null : one.late - other.late;

/**
 * Pairs of takes for two slots, the best first, each with the shift in time at which it is best.
 * @param weights how much each part counts; a part that is not named counts as usual
 * @param by the parts that count at all for what they are joined into
 * @throws CoreError `weights` where none counts, or one is no number of 0 or more
 */
export function rankPairs(
  a: readonly TakeMeasures[],
  b: readonly TakeMeasures[],
  weights: Partial<PairWeights> = {},
  by: readonly (keyof PairWeights)[] = besideParts,
): RankedPair[] {
  const wanted = { ...usualWeights, ...weights };
  const all = by.reduce((sum, name) => sum + wanted[name], 0);
  if (!(all > 0) || by.some((name) => !(wanted[name] >= 0)))
    refuse('weights', 'Nothing counts for these pairs. Let at least one part of their score count.');
  const counts = (name: keyof PairWeights) => by.includes(name) && wanted[name] > 0;
  // What fails in one part is not made up for by the others.
  const scoreOf = (parts: RankedPair['parts']) =>
    Math.exp(by.reduce((sum, name) => sum + wanted[name] * Math.log(Math.max(least, parts[name])), 0) / all);
  const [ones, others] = [a, b].map((takes) => takes.map((take) => ({ take, standing: standingIn(take) })));
  // A take that could be either is no pair with itself.
  const pairs = ones.flatMap((one) =>
    others.flatMap((other): RankedPair | [] => {
      if (one.take.id === other.take.id) return [];
      const fixed = {
        lock:
          one.take.lock === null || other.take.lock === null
            ? unknown
            : alike(Math.max(one.take.lock, other.take.lock), fallsOff.lock),
        light: between(one.take.light, other.take.light, fallsOff.light),
        eyes: level(one.take.body, other.take.body),
      };
      const step = stepBetween(one.take, other.take);
      const ids = { a: one.take.id, b: other.take.id, ...(step !== null && { inStep: true as const }) };
      const [first, second] = [one.standing, other.standing];
      if (!first || !second || first.size.width !== second.size.width || first.every !== second.every) {
        const parts = { ...fixed, seam: unknown, overlap: unknown, contact: unknown, pose: unknown };
        return { ...ids, offset: step ?? 0, score: scoreOf(parts), parts };
      }
      const seam = by.includes('seam') ? 1 - shared(first, second) : unknown;
      const shifts =
        step === null ? shiftsOutwards(mostShift / first.every) : [Math.round(step / first.every)];
      let best: RankedPair | null = null;
      for (const shift of shifts) {
        const parts = {
          ...fixed,
          seam,
          overlap: by.includes('overlap') ? 1 - crossing(first, second, shift) : unknown,
          contact: counts('contact') ? closeness(first, second, shift) : unknown,
          pose: counts('pose') ? sameOutline(first, second, shift) : unknown,
        };
        const score = scoreOf(parts);
        if (!best || score > best.score + 1e-9) best = { ...ids, offset: shift * first.every, score, parts };
      }
      const { offset, score, parts } = best as RankedPair;
      const shift = Math.round(offset / first.every);
      const contact = by.includes('contact') ? closeness(first, second, shift) : unknown;
      const pose = by.includes('pose') ? sameOutline(first, second, shift) : unknown;
      return { ...ids, offset: step ?? offset, score, parts: { ...parts, contact, pose } };
    }),
  );
  return pairs.sort((one, other) => other.score - one.score);
}
