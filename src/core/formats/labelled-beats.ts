import { refuse } from '../error';
import { barAndBeat, type BeatGrid } from '../time/grid';

/** A beat as files write it: seconds, and where it stands in its bar if the file says so (both from 1). */
type LabelledBeat = { time: number; bar?: number; beat?: number };

/** What was put right while reading; all zero for a file in order. */
export type Mended = { unsorted: number; doubled: number; negative: number };

/** A grid that was read, and what had to be put right. */
export type ReadGrid = { grid: BeatGrid; mended: Mended };

/** Every beat with its bar and its place in it. */
export const labelBeats = (grid: BeatGrid): Required<LabelledBeat>[] =>
  grid.beats.map((time, index) => ({ time, ...barAndBeat(grid, index - grid.firstDownbeat) }));

/** "bar 3 beat 1", as it stands in cue labels and captions. */
export const beatText = ({ bar, beat }: Required<LabelledBeat>): string => `bar ${bar} beat ${beat}`;

/** Reads {@link beatText}; other words say nothing of bars. */
export function readBeatText(text: string): { bar?: number; beat?: number } {
  const match = /bar\s+(-?\d+)\D+beat\s+(\d+)/i.exec(text);
  return match ? { bar: Number(match[1]), beat: Number(match[2]) } : {};
}

/**
 * The grid of beats that a file names. Times before zero and doubles (under 20 ms apart) are left out, others
 * sorted; bars follow the beats that are called first.
 * @throws CoreError `beats-file` where fewer than two beats remain
 */
export function gridOfLabels(rows: readonly LabelledBeat[]): ReadGrid {
  const mended: Mended = { unsorted: 0, doubled: 0, negative: 0 };
  rows.forEach((row, index) => {
    if (index > 0 && row.time < rows[index - 1].time) mended.unsorted++;
    if (row.time < 0) mended.negative++;
  });
  const beats: LabelledBeat[] = [];
  for (const row of rows.filter(({ time }) => time >= 0).sort((a, b) => a.time - b.time)) {
    if (beats.length > 0 && row.time - beats[beats.length - 1].time < 0.02) mended.doubled++;
    else beats.push(row);
  }
  if (beats.length < 2)
    refuse('beats-file', 'This file names fewer than two beats. Choose one with a time for every beat.');
  const firsts = beats.flatMap((row, index) => (row.beat === 1 ? [index] : []));
  const lengths = firsts.slice(1).map((first, bar) => first - firsts[bar]);
  const beatsPerBar = Math.min(16, lengths[0] ?? Math.max(4, ...beats.map(({ beat }) => beat ?? 0)));
  const changes = lengths.flatMap((length, bar) =>
    bar > 0 && length !== lengths[bar - 1] && length <= 16
      ? [{ at: firsts[bar] - firsts[0], beatsPerBar: length }]
      : [],
  );
  const grid: BeatGrid = { beats: beats.map(({ time }) => time), beatsPerBar, firstDownbeat: firsts[0] ?? 0 };
  return { grid: changes.length > 0 ? { ...grid, changes } : grid, mended };
}
