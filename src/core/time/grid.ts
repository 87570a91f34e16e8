import { z } from 'zod';
import { frameOfTime, perSecond, timeOfFrame, type Rate } from './rate';
import { refuse } from '../error';

/**
 * Where the beats of a song fall. Position 0 is the first beat of bar 1, which is `beats[firstDownbeat]`;
 * positions count in beats and may be fractions or negative. `beats` are seconds, strictly rising.
 */
export const beatGridSchema = z.object({
  beats: z.array(z.number()).min(2),
  beatsPerBar: z.number().int().min(1).max(16),
  firstDownbeat: z.number().int().nonnegative(),
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

/** The frame that a beat position rounds to, from absolute time: never more than half a frame off. */
export const frameOfBeat = (grid: BeatGrid, rate: Rate, position: number): number =>
  frameOfTime(rate, timeOfBeat(grid, position));

/** Bar and beat of a position, both counted from 1; the beat carries the fraction. */
export function barAndBeat(grid: BeatGrid, position: number): { bar: number; beat: number } {
  const exact = Math.round(position * 1000) / 1000;
  const bar = Math.floor(exact / grid.beatsPerBar);
  return { bar: bar + 1, beat: exact - bar * grid.beatsPerBar + 1 };
}

/** Position of a bar and beat that count from 1. */
export const positionOf = (grid: BeatGrid, bar: number, beat = 1): number =>
  (bar - 1) * grid.beatsPerBar + beat - 1;

/** "bar 10, beat 2.5" */
export function beatLabel(grid: BeatGrid, position: number): string {
  const { bar, beat } = barAndBeat(grid, position);
  return `bar ${bar}, beat ${Number(beat.toFixed(2))}`;
}

/** A corrected grid, and where a position of the old grid lies in the new one. */
export type GridChange = { grid: BeatGrid; move: (position: number) => number };

/** Every second beat, kept in step with the first of the bar; a moment stays at its place in the music. */
export function halveGrid(grid: BeatGrid): GridChange {
  const phase = grid.firstDownbeat % 2;
  const beats = grid.beats.filter((_, index) => index % 2 === phase);
  if (beats.length < 2) refuse('grid', 'There are too few beats to halve. Set the tempo instead.');
  return {
    grid: { ...grid, beats, firstDownbeat: (grid.firstDownbeat - phase) / 2 },
    move: (position) => position / 2,
  };
}

/** A beat between every two; a moment stays at its place in the music. */
export function doubleGrid(grid: BeatGrid): GridChange {
  const beats = grid.beats.flatMap((beat, index) =>
    index + 1 < grid.beats.length ? [beat, (beat + grid.beats[index + 1]) / 2] : [beat],
  );
  return {
    grid: { ...grid, beats, firstDownbeat: grid.firstDownbeat * 2 },
    move: (position) => position * 2,
  };
}

/** All beats later by `seconds`; positions keep their numbers and so follow the beats. */
export const shiftGrid = (grid: BeatGrid, seconds: number): GridChange => ({
  grid: { ...grid, beats: grid.beats.map((beat) => beat + seconds) },
  move: (position) => position,
});

/** The beat nearest to `seconds` becomes the first of a bar; everything keeps its time. */
export function setDownbeat(grid: BeatGrid, seconds: number): GridChange {
  const index = Math.round(beatOfTime(grid, seconds)) + grid.firstDownbeat;
  const wrapped = ((index % grid.beatsPerBar) + grid.beatsPerBar) % grid.beatsPerBar;
  const firstDownbeat = Math.min(wrapped, grid.beats.length - 1);
  return {
    grid: { ...grid, firstDownbeat },
    move: (position) => position + grid.firstDownbeat - firstDownbeat,
  };
}

/** How the grid sits: its tempo, how much bars breathe, and what rounding to frames does to it. */
export type GridReport = {
  bpm: number;
  /** largest departure of a bar's length from the median bar, as a share */
  breathing: number;
  framesPerBeat: number;
  /** frames of the first bars' beats, after rounding */
  pattern: number[];
  /** the beat that rounding moves furthest: by frames and by seconds */
  worst: { frames: number; seconds: number };
};

/** Measures a grid against a delivery rate. */
export function reportGrid(grid: BeatGrid, rate: Rate): GridReport {
  const { beats, beatsPerBar, firstDownbeat } = grid;
  const period = (beats[beats.length - 1] - beats[0]) / (beats.length - 1);
  const bars: number[] = [];
  for (let index = firstDownbeat; index + beatsPerBar < beats.length; index += beatsPerBar) {
    bars.push(beats[index + beatsPerBar] - beats[index]);
  }
  const median = [...bars].sort((a, b) => a - b)[bars.length >> 1] ?? period * beatsPerBar;
  const breathing = bars.reduce((most, bar) => Math.max(most, Math.abs(bar / median - 1)), 0);
  const frames = beats.map((beat) => frameOfTime(rate, beat));
  const start = Math.min(firstDownbeat, Math.max(0, beats.length - beatsPerBar - 1));
  const pattern = frames
    .slice(start, start + beatsPerBar)
    .map((frame, index) => frames[start + index + 1] - frame);
  const seconds = beats.reduce(
    (most, beat, index) => Math.max(most, Math.abs(timeOfFrame(rate, frames[index]) - beat)),
    0,
  );
  return {
    bpm: 60 / period,
    breathing,
    framesPerBeat: period * perSecond(rate),
    pattern: pattern.filter(Number.isFinite),
    worst: { frames: seconds * perSecond(rate), seconds },
  };
}
