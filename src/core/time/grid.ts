import * as z from 'zod/mini';
import { frameOfTime, type Rate } from './rate';
import { refuse } from '../error';

/**
 * Where the beats of a song fall. Position 0 is the first beat of bar 1, which is `beats[firstDownbeat]`;
 * positions count in beats and may be fractions or negative. `beats` are seconds, strictly rising.
 */
export const beatGridSchema = z.object({
  beats: z
    .array(z.number().check(z.minimum(-1e6), z.maximum(1e6)))
    .check(z.minLength(2), z.maxLength(200_000)),
  beatsPerBar: z.int().check(z.minimum(1), z.maximum(16)),
  firstDownbeat: z.int().check(z.nonnegative()),
  /** where bars of another length begin: beat positions on a bar, rising */
  changes: z.optional(
    z.array(z.object({ at: z.int(), beatsPerBar: z.int().check(z.minimum(1), z.maximum(16)) })),
  ),
});
export type BeatGrid = z.infer<typeof beatGridSchema>;

/** A regular grid over `duration` seconds with a beat at `anchor` seconds, which starts a bar. */
export function regularGrid(bpm: number, anchor: number, duration: number, beatsPerBar = 4): BeatGrid {
  if (!(bpm >= 20 && bpm <= 400)) refuse('tempo', 'Give a tempo between 20 and 400 beats a minute.');
  const period = 60 / bpm;
  const before = Math.floor(anchor / period);
  const count = Math.max(2, before + 1 + Math.floor(Math.max(0, duration - anchor) / period));
  const beats = Array.from({ length: count }, (_, index) => anchor + (index - before) * period);
  return { beats, beatsPerBar, firstDownbeat: before % beatsPerBar };
}

const lastPeriod = ({ beats }: BeatGrid) => beats[beats.length - 1] - beats[beats.length - 2];

/** Seconds at a beat position; outside the beats the first or last beat's length goes on. */
export function timeOfBeat(grid: BeatGrid, position: number): number {
  const { beats } = grid;
  const index = position + grid.firstDownbeat;
  const last = beats.length - 1;
  if (index <= 0) return beats[0] + index * (beats[1] - beats[0]);
  if (index >= last) return beats[last] + (index - last) * lastPeriod(grid);
  const whole = Math.floor(index);
  return beats[whole] + (index - whole) * (beats[whole + 1] - beats[whole]);
}

/** Beat position at a time in seconds; the inverse of {@link timeOfBeat}. */
export function beatOfTime(grid: BeatGrid, seconds: number): number {
  const { beats, firstDownbeat } = grid;
  const last = beats.length - 1;
  if (seconds <= beats[0]) return (seconds - beats[0]) / (beats[1] - beats[0]) - firstDownbeat;
  if (seconds >= beats[last]) return last + (seconds - beats[last]) / lastPeriod(grid) - firstDownbeat;
  let low = 0;
  let high = last;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (beats[middle] <= seconds) low = middle;
    else high = middle;
  }
  return low + (seconds - beats[low]) / (beats[low + 1] - beats[low]) - firstDownbeat;
}

/** Where an instant lies on the song: the nearest beat, and seconds by which it is late (early below 0). */
export type OnSong = { beat: number; late: number };

/** The nearest beat to a second of the song. */
export function nearestBeat(grid: BeatGrid, seconds: number): OnSong {
  const beat = Math.round(beatOfTime(grid, seconds));
  return { beat, late: seconds - timeOfBeat(grid, beat) };
}

/** The frame that a beat position rounds to, from absolute time: never more than half a frame off. */
export const frameOfBeat = (grid: BeatGrid, rate: Rate, position: number): number =>
  frameOfTime(rate, timeOfBeat(grid, position));

/** A stretch of bars of one length; `bar` counts from 0 at position 0. */
type Meter = { at: number; bar: number; beatsPerBar: number };

/** The stretches of bars of one length; the first reaches back before position 0. */
export function metersOf({ beatsPerBar, changes = [] }: BeatGrid): Meter[] {
  const meters: Meter[] = [{ at: 0, bar: 0, beatsPerBar }];
  for (const change of changes) {
    const last = meters[meters.length - 1];
    const bars = Math.ceil((change.at - last.at) / last.beatsPerBar);
    meters.push({ ...change, bar: last.bar + bars });
  }
  return meters;
}

/** The stretch of bars that a position lies in. */
export function meterAt(grid: BeatGrid, position: number): Meter {
  const meters = metersOf(grid);
  return meters.findLast((meter) => position >= meter.at) ?? meters[0];
}

/** Where the bar begins that a position lies in. */
export function barStart(grid: BeatGrid, position: number): number {
  const { at, beatsPerBar } = meterAt(grid, position);
  return at + Math.floor((position - at) / beatsPerBar) * beatsPerBar;
}

/** Where the next bar begins; a change of metre always begins one. */
export function nextBar(grid: BeatGrid, position: number): number {
  const end = barStart(grid, position) + meterAt(grid, position).beatsPerBar;
  const cut = grid.changes?.find(({ at }) => at > position && at < end);
  return cut ? cut.at : end;
}

/** Bar and beat of a position, both counted from 1; the beat carries the fraction. */
export function barAndBeat(grid: BeatGrid, position: number): { bar: number; beat: number } {
  const exact = Math.round(position * 1000) / 1000;
  const meter = meterAt(grid, exact);
  const bars = Math.floor((exact - meter.at) / meter.beatsPerBar);
  return { bar: meter.bar + bars + 1, beat: exact - meter.at - bars * meter.beatsPerBar + 1 };
}

/** Position of a bar and beat that count from 1. */
export function positionOf(grid: BeatGrid, bar: number, beat = 1): number {
  const meters = metersOf(grid);
  const meter = meters.findLast((one) => bar - 1 >= one.bar) ?? meters[0];
  return meter.at + (bar - 1 - meter.bar) * meter.beatsPerBar + beat - 1;
}

/** "bar 10, beat 2.5" */
export function beatLabel(grid: BeatGrid, position: number): string {
  const { bar, beat } = barAndBeat(grid, position);
  return `bar ${bar}, beat ${Number(beat.toFixed(2))}`;
}
