import { median } from '../statistics';
import { barAndBeat, nextBar, type BeatGrid } from './grid';
import { deliveryRates, frameOfTime, perSecond, timeOfFrame, type Rate } from './rate';

/** How the grid sits: its tempo, how much bars breathe, and what rounding to frames does to it. */
type GridReport = {
  rate: Rate;
  bpm: number;
  /** largest departure of a bar's length from the median bar, as a share */
  breathing: number;
  framesPerBeat: number;
  /** frames a beat after rounding, until they come round again at this mean tempo */
  pattern: number[];
  /** mean and largest distance that rounding moves a beat, seconds */
  mean: number;
  worst: number;
};

/** A beat on its frame. `off` is how much later the frame begins than the beat, seconds. */
export type BeatFrame = {
  position: number;
  time: number;
  frame: number;
  off: number;
  /** frames since the beat before; null for the first */
  since: number | null;
};

/** Every beat with the frame that it rounds to, from absolute time. */
export function beatFrames(grid: BeatGrid, rate: Rate): BeatFrame[] {
  const frames = grid.beats.map((beat) => frameOfTime(rate, beat));
  return grid.beats.map((time, index) => ({
    position: index - grid.firstDownbeat,
    time,
    frame: frames[index],
    off: timeOfFrame(rate, frames[index]) - time,
    since: index > 0 ? frames[index] - frames[index - 1] : null,
  }));
}

/** Frames a beat, one after the other, until the sum is whole again to a fiftieth of a frame, or for 24 beats. */
export function beatPattern(framesPerBeat: number): number[] {
  const pattern: number[] = [];
  for (let beat = 1; beat <= 24; beat++) {
    pattern.push(Math.round(beat * framesPerBeat) - Math.round((beat - 1) * framesPerBeat));
    if (Math.abs(beat * framesPerBeat - Math.round(beat * framesPerBeat)) < 0.02) break;
  }
  return pattern;
}

/** Measures a grid against a delivery rate. */
export function reportGrid(grid: BeatGrid, rate: Rate): GridReport {
  const { beats, beatsPerBar, firstDownbeat } = grid;
  const period = (beats[beats.length - 1] - beats[0]) / (beats.length - 1);
  const bars: number[] = [];
  for (let index = firstDownbeat; index + beatsPerBar < beats.length; index += beatsPerBar)
    bars.push(beats[index + beatsPerBar] - beats[index]);
  const usual = bars.length > 0 ? median(bars) : period * beatsPerBar;
  const offs = beatFrames(grid, rate).map(({ off }) => Math.abs(off));
  const framesPerBeat = period * perSecond(rate);
  return {
    rate,
    bpm: 60 / period,
    breathing: bars.reduce((most, bar) => Math.max(most, Math.abs(bar / usual - 1)), 0),
    framesPerBeat,
    pattern: beatPattern(framesPerBeat),
    mean: offs.reduce((sum, off) => sum + off, 0) / offs.length,
    worst: offs.reduce((most, off) => Math.max(most, off), 0),
  };
}

/** The tempo of each whole bar: its number, and its beats a minute. */
export function tempoByBar(grid: BeatGrid): { bar: number; bpm: number }[] {
  const { beats, firstDownbeat } = grid;
  const tempos: { bar: number; bpm: number }[] = [];
  for (let at = 0; ;) {
    const next = nextBar(grid, at);
    const [from, to] = [beats[firstDownbeat + at], beats[firstDownbeat + next]];
    if (from === undefined || to === undefined) return tempos;
    tempos.push({ bar: barAndBeat(grid, at).bar, bpm: (60 * (next - at)) / (to - from) });
    at = next;
  }
}

/** The same grid at every rate that films are delivered at. */
export const compareRates = (grid: BeatGrid): GridReport[] =>
  deliveryRates.map((rate) => reportGrid(grid, rate));

/** How far sound and picture may part, seconds; early: the sound comes before the picture. */
const soundLimits = {
  /** ITU-R BT.1359-1: noticed beyond these */
  noticed: { early: 0.045, late: 0.125 },
  /** ITU-R BT.1359-1: no longer acceptable beyond these */
  acceptable: { early: 0.09, late: 0.185 },
  /** EBU R37: allowed in a programme */
  programme: { early: 0.04, late: 0.06 },
};

/** What a viewer makes of a beat whose picture begins `off` seconds after its sound (negative: before). */
export function offsetNotice(off: number): 'unnoticed' | 'beyond R37' | 'noticed' | 'unacceptable' {
  const beyond = ({ early, late }: { early: number; late: number }) => off > early || off < -late;
  if (beyond(soundLimits.acceptable)) return 'unacceptable';
  if (beyond(soundLimits.noticed)) return 'noticed';
  return beyond(soundLimits.programme) ? 'beyond R37' : 'unnoticed';
}
