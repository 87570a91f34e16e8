import Papa from 'papaparse';
import { beatsBetween, onSong, shotsOf, type Apart } from '../footage/cuts/shots';
import type { Alignment } from '../footage/align-sound';
import { barAndBeat, type BeatGrid } from '../time/grid';

/**
 * The shots of a film as CSV (RFC 4180): number, first frame, seconds, what it begins with, frames, and where the song
 * is heard in it the beats it lasts, its nearest bar and beat, and milliseconds by which it is late; then the note.
 */
export function writeCutList(
  apart: Apart,
  song: { grid: BeatGrid; heard: Alignment } | null,
  notes: Readonly<Record<string, string>>,
): string {
  const fields = ['shot', 'frame', 'seconds', 'begins', 'frames', 'beats', 'bar', 'beat', 'late ms', 'note'];
  const data = shotsOf(apart).map(({ from, until, seconds, begins }, index) => {
    const near = song && onSong(song.grid, song.heard, seconds.from);
    const label = song && near && barAndBeat(song.grid, near.beat);
    return [
      index + 1,
      from,
      seconds.from.toFixed(4),
      begins,
      until - from,
      song ? beatsBetween(song.grid, song.heard, seconds.from, seconds.until).toFixed(3) : '',
      label?.bar ?? '',
      label?.beat ?? '',
      near ? (near.late * 1000).toFixed(1) : '',
      notes[from] ?? '',
    ];
  });
  return Papa.unparse({ fields, data }) + '\r\n';
}
