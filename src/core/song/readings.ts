import { median, quantile } from '../statistics';
import { findBars, type Bars } from './bars';
import type { LockedPassage } from './extend';
import { followLikely, keepTempo, type Row, type Rule } from './follow';
import { tempoLikely, type Likely } from './model/network';

/** Tempos beside the likeliest one that are followed to the end as well. */
const ratios = [2, 1 / 2, 3 / 2, 2 / 3, 4 / 3, 3 / 4];
/** how far such a tempo may wander, a part of it */
const wander = 0.12;
/** the part of a beat round each beat that is kept free where the same tempo is followed beside it */
const beside = 0.2;

/** how much the tempo that the model names counts beside what its beats gain in a second; by the open songs of bench/songs */
const tempoWeight = 0.2;

/** how much less likely than the best one's a tempo is that is not followed: those that came near were within 10 */
const hopeless = 14;

/** A reading of the song that was followed to its end. */
export type Reading = { row: Row; bars: Bars; /** logarithm of how likely it is, a second */ value: number };

/** What locked passages ask of each frame. */
function lockedRule(locked: readonly LockedPassage[], { start, rate, beat }: Likely): Rule {
  const rule = new Int8Array(beat.length);
  const frame = (time: number) => Math.round((time - start) * rate);
  for (const { from, to, beats } of locked) {
    for (let at = Math.max(0, frame(from)); at <= Math.min(rule.length - 1, frame(to)); at++) rule[at] = -1;
    for (const time of beats) if (frame(time) >= 0 && frame(time) < rule.length) rule[frame(time)] = 1;
  }
  return rule;
}

/** Whether two rows are the same beats nearly everywhere. */
function alike(one: Row, two: Row): boolean {
  const near = new Set(two.frames.flatMap((frame) => [frame - 1, frame, frame + 1]));
  const met = one.frames.filter((frame) => near.has(frame)).length;
  return met > 0.85 * Math.max(one.frames.length, two.frames.length);
}

/**
 * Readings of a song, the likeliest first: its likeliest tempo, the same tempo beside those beats, and other levels.
 * @param firsts seconds that must begin a bar
 */
export function readingsOf(
  likely: Likely,
  [minBpm, maxBpm]: readonly [number, number],
  lengths: readonly number[],
  locked: readonly LockedPassage[],
  firsts: readonly number[],
): Reading[] {
  const { rate, start, beat, first } = likely;
  const [shortest, longest] = [(60 * rate) / maxBpm, (60 * rate) / minBpm];
  const rule = locked.length > 0 ? lockedRule(locked, likely) : undefined;
  const read = (row: Row): Reading => {
    const on = row.frames.map((at) => Math.max(first[at], first[at - 1] ?? 0, first[at + 1] ?? 0));
    const given = row.frames.map((at) => firsts.some((time) => Math.abs((time - start) * rate - at) < 3));
    const bars = findBars(on, given, lengths);
    const gaps = row.frames.slice(1).map((frame, index) => frame - row.frames[index]);
    const told = tempoLikely(likely, (60 * rate) / median(gaps));
    const seconds = beat.length / rate;
    return { row, bars, value: row.gain / seconds + tempoWeight * told + bars.gain };
  };
  const best = keepTempo(beat, followLikely(beat, { shortest, longest, rule }), rule);
  if (best.frames.length < 4) return [];
  if (rule) return [read(best)];
  const period = median(best.frames.slice(1).map((frame, index) => frame - best.frames[index]));
  const within = (length: number, without?: Uint8Array) => {
    const row = followLikely(beat, {
      shortest: Math.max(shortest, length * (1 - wander)),
      longest: Math.min(longest, length * (1 + wander)),
      without,
    });
    return keepTempo(beat, row, undefined, without);
  };
  const taken = new Uint8Array(beat.length);
  const reach = Math.round(period * beside);
  for (const frame of best.frames)
    taken.fill(1, Math.max(0, frame - reach), Math.min(beat.length, frame + reach + 1));
  const told = (length: number) => tempoLikely(likely, (60 * rate) / length);
  const others = ratios
    .map((ratio) => period / ratio)
    .filter((length) => told(length) > told(period) - hopeless);
  const rows = [best, within(period, taken), ...others.map((length) => within(length))]
    .filter(({ frames }) => frames.length >= 4)
    .reduce<Row[]>((kept, row) => (kept.some((one) => alike(one, row)) ? kept : [...kept, row]), []);
  return rows.map(read).sort((a, b) => b.value - a.value);
}

/** beats that are looked at together */
const passage = 16;

/** How likely a frame or one beside it is a beat. */
const likelyNear = (beat: Float32Array, frame: number): number =>
  Math.max(beat[frame] ?? 0, beat[frame - 1] ?? 0, beat[frame + 1] ?? 0);

/** how likely a frame is a beat from which on it is one that a row may pass by, and how far beside it a beat may lie */
const [peakFrom, peakBeside] = [0.3, 2];

/** The share of the frames that the model takes for beats which a row passes by, 0..1. */
function strayShare(frames: readonly number[], beat: Float32Array): number {
  const around = (frame: number) =>
    Array.from({ length: 2 * peakBeside + 1 }, (_, step) => frame + step - peakBeside);
  const met = new Set(frames.flatMap(around));
  let [peaks, strays] = [0, 0];
  for (let at = 0; at < beat.length; at++) {
    if (beat[at] <= peakFrom || around(at).some((one) => beat[one] > beat[at])) continue;
    peaks++;
    if (!met.has(at)) strays++;
  }
  return strays / Math.max(1, peaks);
}

/**
 * How sure a reading is to be right at some level, 0..1: how likely its beats are, in its weakest passages as well, how
 * clearly bars begin, and in how many passages what lies between its beats is as likely. Weights by logistic regression
 * over the songs that may be tuned to (bench/songs). Nobody is sure of a row that passes by more than a tenth of what
 * the model takes for beats: of those songs that were read well, nineteen in twenty pass by less.
 */
export function confidenceOf({ row, bars }: Reading, { beat }: Likely): number {
  const { frames } = row;
  const mean = (values: readonly number[]) =>
    values.reduce((sum, one) => sum + one, 0) / Math.max(1, values.length);
  const on = frames.map((frame) => likelyNear(beat, frame));
  const between = frames
    .slice(1)
    .map((frame, index) => likelyNear(beat, Math.round((frame + frames[index]) / 2)));
  const passages: { on: number; between: number }[] = [];
  for (let from = 0; from + passage <= between.length; from += passage / 2)
    passages.push({
      on: mean(on.slice(from, from + passage)),
      between: mean(between.slice(from, from + passage)),
    });
  const met = Math.max(0.01, Math.min(0.99, mean(on)));
  const weakest = quantile(
    passages.map((one) => one.on),
    0.1,
  );
  const doubtful = passages.filter((one) => one.between > 0.7 * one.on).length / Math.max(1, passages.length);
  const sum = -0.32 + 1.68 * Math.log(met / (1 - met)) + 2.02 * bars.gain + 3.2 * weakest - 1.92 * doubtful;
  return Math.min(1 / (1 + Math.exp(-sum)), 1 - strayShare(frames, beat) / 2);
}
