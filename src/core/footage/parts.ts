import { unpackPlacements } from '../geometry/placement';
import type { Size } from '../geometry/size';
import { quantile } from '../statistics';
import { actionIn, type Stretch } from './action';
import { calmStretches } from './camera-path';

/** What tells the parts of a long take: the sound that was playing, or what moves. */
export type PartsBy = 'sound' | 'movement';

/** What is known of a long take. */
export type LongTake = {
  /** seconds at which each picture begins to show, and how much moves in it, as the analyser of motion has it */
  times: ArrayLike<number>;
  moved: ArrayLike<number>;
  /** where the camera stood, in seconds and in order; nothing where it went along */
  stands: readonly Stretch[];
  /** how loud it is, root mean square, `perSecond` values a second; null without sound */
  levels: Float32Array | null;
};

/**
 * A long take divided: its parts in order, what told them, whether music could, and how often the camera was moved
 * between them.
 */
export type Divided = { parts: Stretch[]; by: PartsBy; hasMusic: boolean; moves: number };

/**
 * How somebody wants a long take divided: by pauses of so many seconds at least, told by what; its parts as they set
 * them, null where they are as found, and the numbers of those that are left out, counted from 0.
 */
export type PartsWanted = {
  pause: number;
  by: PartsBy;
  parts: readonly Stretch[] | null;
  left: readonly number[];
};

/** values a second in which a take is looked at */
export const perSecond = 10;
/** seconds for which the camera has to be on its way to have been moved to another place; less is a bump. By trial */
const carried = 0.5;
/** seconds that a part lasts at least, and that are kept before and after it where there is room */
const [shortest, handle] = [1, 1];
/** what is loud in a take is louder than this share of it; sound is playing where it is an eighth of that, −18 dB. By trial */
const [loudest, ofLoud] = [0.95, 1 / 8];
/** music plays for so many seconds at a time, for at least this share of all that is loud; else it is talk, steps and knocks. By trial */
const [playsFor, mostlyPlays] = [4, 0.8];

/**
 * Where a camera stood for a while.
 * @param track each picture against the take's first one, packed, in pixels of `size`
 * @param times seconds at which each picture begins to show
 */
export const standsIn = (track: Float32Array, size: Size, times: ArrayLike<number>): Stretch[] =>
  calmStretches(unpackPlacements(track), size)
    .map(({ from, to }) => ({ from: times[from], until: times[Math.min(to + 1, times.length - 1)] }))
    .filter(({ from, until }) => until - from >= carried);

/** Runs of equal values. */
function runsOf(values: readonly boolean[]): { value: boolean; from: number; until: number }[] {
  const runs: { value: boolean; from: number; until: number }[] = [];
  values.forEach((value, at) => {
    const last = runs.at(-1);
    if (last?.value === value) last.until = at + 1;
    else runs.push({ value, from: at, until: at + 1 });
  });
  return runs;
}

/** The same with runs of a value that are shorter than `least` given the other value. */
const without = (values: readonly boolean[], value: boolean, least: number): boolean[] =>
  runsOf(values).flatMap((run) =>
    new Array<boolean>(run.until - run.from).fill(
      run.value === value && run.until - run.from < least ? !value : run.value,
    ),
  );

const within = (count: number, stretches: readonly Stretch[]): boolean[] => {
  const out = new Array<boolean>(count).fill(false);
  for (const { from, until } of stretches)
    out.fill(true, Math.max(0, Math.round(from * perSecond)), Math.round(until * perSecond));
  return out;
};

/** Where sound is playing, a pause being quiet for a while; null where no music tells takes from pauses. */
function playing(levels: Float32Array, count: number, pause: number): boolean[] | null {
  const limit = ofLoud * quantile(levels, loudest);
  if (!(limit > 0)) return null;
  const loud = Array.from({ length: count }, (_, at) => (levels[at] ?? 0) >= limit);
  const plays = without(loud, false, pause * perSecond);
  const runs = runsOf(plays).filter(({ value }) => value);
  const length = (all: typeof runs) => all.reduce((sum, { from, until }) => sum + until - from, 0);
  const long = runs.filter(({ from, until }) => until - from >= playsFor * perSecond);
  return plays.includes(false) && length(long) >= mostlyPlays * length(runs) ? plays : null;
}

/**
 * Divides a long take, in which several were filmed one after the other, into its parts. Where music was playing on the
 * set, a part is where it plays, unless it is asked otherwise; else, where something moves. What a camera that mostly
 * stands sees on its way to another place is no part.
 * @param pause seconds of quiet or stillness from which on one part has ended
 * @param wanted by what it is divided where music could tell
 * @returns parts with a second before and after them where there is room; common practice, no published source
 */
export function partsIn(
  { times, moved, stands, levels }: LongTake,
  pause: number,
  wanted: PartsBy = 'sound',
): Divided {
  const end = times[times.length - 1];
  const count = Math.max(1, Math.round(end * perSecond));
  const standing = within(count, stands);
  const locked = standing.filter(Boolean).length >= count / 2;
  const stays = locked ? without(standing, false, carried * perSecond) : standing.fill(true);
  const music = levels && playing(levels, count, pause);
  const plays = wanted === 'sound' ? music : null;
  const pauses = actionIn(moved, times).still.filter(({ from, until }) => until - from >= pause);
  const acts = plays ?? within(count, pauses).map((rests) => !rests);
  const runs = runsOf(acts.map((is, at) => is && stays[at])).filter(
    ({ value, from, until }) => value && until - from >= shortest * perSecond,
  );
  const parts = runs.map(({ from, until }, index): Stretch => {
    const before = runs[index - 1]?.until ?? -Infinity;
    const after = runs[index + 1]?.from ?? Infinity;
    let [first, last] = [from, until];
    while (
      first > 0 &&
      stays[first - 1] &&
      from - first < handle * perSecond &&
      2 * (first - 1) >= before + from
    )
      first--;
    while (
      last < count &&
      stays[last] &&
      last - until < handle * perSecond &&
      2 * (last + 1) <= after + until
    )
      last++;
    return { from: first / perSecond, until: Math.min(end, last / perSecond) };
  });
  return {
    parts,
    by: plays ? 'sound' : 'movement',
    hasMusic: music !== null,
    moves: runsOf(stays).filter(({ value }) => !value).length,
  };
}
