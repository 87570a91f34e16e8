import { median } from '../statistics';
import { refuse } from '../error';
import { barStart, beatOfTime, timeOfBeat, type BeatGrid } from './grid';

/** A corrected grid, and where a position of the old grid lies in the new one. */
export type GridChange = { grid: BeatGrid; move: (position: number) => number };

const stay = (position: number) => position;

function checkTempo(bpm: number): void {
  if (!(bpm >= 20 && bpm <= 400)) refuse('tempo', 'Give a tempo between 20 and 400 beats a minute.');
}

type Meters = Pick<BeatGrid, 'beatsPerBar' | 'changes'>;

/**
 * Changes of metre at other positions, on whole beats and rising; of two on one beat the later one holds, and one that
 * comes to lie at the song's bar 1 or before becomes the song's own metre.
 */
function movedMeters({ beatsPerBar, changes }: BeatGrid, move: (position: number) => number): Meters {
  if (!changes) return { beatsPerBar };
  const moved = changes.map((change) => ({ ...change, at: Math.round(move(change.at)) }));
  return {
    beatsPerBar: moved.findLast(({ at }) => at <= 0)?.beatsPerBar ?? beatsPerBar,
    changes: moved.filter(
      ({ at }, index) => at > 0 && !moved.slice(index + 1).some((later) => later.at <= at),
    ),
  };
}

/**
 * A beat made the first of a bar: where the bars before it count from a change of metre, that change begins up to half
 * a bar earlier or later, else the song's bar 1 does.
 */
function alignBar(grid: BeatGrid, position: number): GridChange {
  const { changes = [] } = grid;
  const index = changes.findLastIndex(({ at }) => at <= position);
  if (index < 0) {
    const place = position + grid.firstDownbeat;
    const wrapped = ((place % grid.beatsPerBar) + grid.beatsPerBar) % grid.beatsPerBar;
    const firstDownbeat = Math.min(wrapped, grid.beats.length - 1);
    const by = grid.firstDownbeat - firstDownbeat;
    const move = (one: number) => one + by;
    return { grid: { ...grid, firstDownbeat, ...movedMeters(grid, move) }, move };
  }
  const { at, beatsPerBar } = changes[index];
  const over = (position - at) % beatsPerBar;
  if (over === 0) return { grid, move: stay };
  const [before, after] = [changes[index - 1]?.at ?? 0, changes[index + 1]?.at ?? Infinity];
  const [earlier, later] = [at + over - beatsPerBar, at + over];
  const begins = (over * 2 > beatsPerBar || later >= after) && earlier > before ? earlier : later;
  const next = changes.map((change, place) => (place === index ? { ...change, at: begins } : change));
  return { grid: { ...grid, changes: next }, move: stay };
}

/**
 * Every second beat, kept in step with the first of the bar; a moment stays at its place in the music.
 * @param first position of a beat that stays the first of a bar; else the grid's own position 0
 */
export function halveGrid(grid: BeatGrid, first = 0): GridChange {
  const index = first + grid.firstDownbeat;
  const phase = ((index % 2) + 2) % 2;
  const beats = grid.beats.filter((_, at) => at % 2 === phase);
  if (beats.length < 2) refuse('grid', 'There are too few beats to halve. Set the tempo instead.');
  const { beatsPerBar } = grid;
  const bar = (index - phase) / 2;
  const firstDownbeat = first === 0 ? bar : ((bar % beatsPerBar) + beatsPerBar) % beatsPerBar;
  const move = (position: number) => (position + grid.firstDownbeat - phase) / 2 - firstDownbeat;
  const halved = { ...grid, beats, firstDownbeat, ...movedMeters(grid, move) };
  const aligned = first === 0 ? { grid: halved, move: stay } : alignBar(halved, move(first));
  return { grid: aligned.grid, move: (position) => aligned.move(move(position)) };
}

/** A beat between every two; a moment stays at its place in the music. */
export function doubleGrid(grid: BeatGrid): GridChange {
  const beats = grid.beats.flatMap((beat, index) =>
    index + 1 < grid.beats.length ? [beat, (beat + grid.beats[index + 1]) / 2] : [beat],
  );
  return {
    grid: {
      ...grid,
      beats,
      firstDownbeat: grid.firstDownbeat * 2,
      changes: grid.changes?.map((change) => ({ ...change, at: change.at * 2 })),
    },
    move: (position) => position * 2,
  };
}

/** All beats later by `seconds`; positions keep their numbers and so follow the beats. */
export const shiftGrid = (grid: BeatGrid, seconds: number): GridChange => ({
  grid: { ...grid, beats: grid.beats.map((beat) => beat + seconds) },
  move: stay,
});

/** The beat nearest to `seconds` becomes the first of a bar; everything keeps its time. */
export const setDownbeat = (grid: BeatGrid, seconds: number): GridChange =>
  alignBar(grid, Math.round(beatOfTime(grid, seconds)));

/**
 * One beat elsewhere; those before and after stay.
 * @throws CoreError `grid` where it would pass a neighbour, or where there is no beat
 */
export function moveBeat(grid: BeatGrid, position: number, seconds: number): GridChange {
  const index = position + grid.firstDownbeat;
  if (!(index in grid.beats))
    refuse(
      'grid',
      index < 0
        ? 'The beats begin later than that. Shift all beats, or tap them from there.'
        : 'The beats end before that. Set the tempo from the last bar, or tap them from there.',
    );
  const [before, after] = [grid.beats[index - 1] ?? -Infinity, grid.beats[index + 1] ?? Infinity];
  if (!(seconds > before + 0.02 && seconds < after - 0.02))
    refuse('grid', 'A beat cannot pass its neighbours. Move it less far, or shift all beats.');
  const beats = grid.beats.map((beat, at) => (at === index ? seconds : beat));
  return { grid: { ...grid, beats }, move: stay };
}

/** From a position on, bars have another length; moments keep their beats. Before bar 1 it becomes the song's own. */
export function setMeter(grid: BeatGrid, at: number, beatsPerBar: number): GridChange {
  if (at <= 0) {
    const firstDownbeat = Math.max(0, grid.firstDownbeat + at);
    const by = grid.firstDownbeat - firstDownbeat;
    const move = (position: number) => position + by;
    const { changes = [] } = movedMeters(grid, move);
    return { grid: { ...grid, beatsPerBar, firstDownbeat, changes }, move };
  }
  const changes = (grid.changes ?? []).filter((change) => change.at !== at);
  const isNone = meterBefore(grid, at) === beatsPerBar && barStart({ ...grid, changes }, at) === at;
  const kept = isNone ? changes : [...changes, { at, beatsPerBar }];
  return { grid: { ...grid, changes: kept.sort((a, b) => a.at - b.at) }, move: stay };
}

const meterBefore = ({ beatsPerBar, changes = [] }: BeatGrid, at: number) =>
  changes.findLast((change) => change.at < at)?.beatsPerBar ?? beatsPerBar;

/** From the beat at a position on, a steady tempo until the song ends; moments after it keep their time. */
export function setTempoFrom(grid: BeatGrid, position: number, bpm: number, duration: number): GridChange {
  checkTempo(bpm);
  const index = Math.max(0, position + grid.firstDownbeat);
  const anchor = timeOfBeat(grid, index - grid.firstDownbeat);
  // Past the last beat its tempo goes on until there.
  const kept = Array.from({ length: index }, (_, place) => timeOfBeat(grid, place - grid.firstDownbeat));
  const count = Math.max(2 - kept.length, 1 + Math.floor((duration - anchor) / (60 / bpm)));
  const beats = [...kept, ...Array.from({ length: count }, (_, step) => anchor + (step * 60) / bpm)];
  return keptInTime(grid, { ...grid, beats }, position);
}

/** A grid with other beats, in which everything after a position keeps its time, changes of metre as well. */
function keptInTime(old: BeatGrid, next: BeatGrid, from: number): GridChange {
  const move = keepTime(old, next, from);
  return { grid: { ...next, ...movedMeters(old, move) }, move };
}

/** Positions after `from` keep their time, to the nearest quarter of a beat; the others keep their number. */
const keepTime = (old: BeatGrid, next: BeatGrid, from: number) => (position: number) =>
  position <= from ? position : Math.round(beatOfTime(next, timeOfBeat(old, position)) * 4) / 4;

/** Another grid altogether; moments keep their time, to the nearest quarter of a beat. */
export const replaceGrid = (old: BeatGrid | null, grid: BeatGrid): GridChange => ({
  grid,
  move: old ? keepTime(old, grid, -Infinity) : stay,
});

/**
 * Beats that were tapped along, laid over the grid: the taps' line of best fit gives tempo and phase for their
 * passage, outliers left out; outside it the grid stays.
 * @param taps seconds, at least four
 * @param latency seconds by which taps come late; taken out
 * @throws CoreError `taps` where there are too few or they are no row of beats
 */
export function layTaps(
  grid: BeatGrid,
  taps: readonly number[],
  latency: number,
  duration: number,
): GridChange {
  const times = [...taps].map((time) => time - latency).sort((a, b) => a - b);
  if (times.length < 4) refuse('taps', 'Tap at least four beats in a row.');
  const gaps = times.slice(1).map((time, index) => time - times[index]);
  const usual = median(gaps);
  if (!(usual > 0.15 && usual < 3)) refuse('taps', 'Tap between 20 and 400 beats a minute.');
  let number = 0;
  const points = times.map((time, index) => {
    if (index > 0) number += Math.max(1, Math.round(gaps[index - 1] / usual));
    return { number, time };
  });
  const { slope, start } = bestLine(points);
  if (!(slope > 0.15 && slope < 3)) refuse('taps', 'Tap between 20 and 400 beats a minute.');
  const steps = points[points.length - 1].number;
  const laid = Array.from({ length: steps + 1 }, (_, step) => start + step * slope);
  const before = grid.beats.filter((beat) => beat < laid[0] - slope / 2);
  const after = grid.beats.filter((beat) => beat > laid[steps] + slope / 2);
  if (before.length === 0) while (laid[0] - slope > 0) laid.unshift(laid[0] - slope);
  if (after.length === 0)
    while (laid[laid.length - 1] + slope < duration) laid.push(laid[laid.length - 1] + slope);
  const beats = [...before, ...laid, ...after];
  const first = timeOfBeat(grid, 0);
  const nearest = beats.reduce(
    (best, beat, at) => (Math.abs(beat - first) < Math.abs(beats[best] - first) ? at : best),
    0,
  );
  return keptInTime(grid, { ...grid, beats, firstDownbeat: nearest % grid.beatsPerBar }, -Infinity);
}

/** Least squares; points further than three times the usual distance are left out. */
function bestLine(points: { number: number; time: number }[]): { slope: number; start: number } {
  const fit = (some: typeof points) => {
    const mean = (pick: (point: (typeof points)[0]) => number) =>
      some.reduce((sum, point) => sum + pick(point), 0) / some.length;
    const [x, y] = [mean((point) => point.number), mean((point) => point.time)];
    const slope =
      mean((point) => (point.number - x) * (point.time - y)) / mean((point) => (point.number - x) ** 2);
    return { slope, start: y - slope * x };
  };
  const rough = fit(points);
  const off = (point: (typeof points)[0]) => Math.abs(point.time - rough.start - rough.slope * point.number);
  const usual = median(points.map(off));
  const near = points.filter((point) => off(point) <= Math.max(0.01, 3 * usual));
  return near.length >= 3 ? fit(near) : rough;
}
