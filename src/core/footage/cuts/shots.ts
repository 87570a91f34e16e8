import type { FilmEvent } from './cut-finder';
import type { Size } from '../../geometry/size';
import { quantile } from '../../statistics';
import { beatOfTime, nearestBeat, type BeatGrid, type OnSong } from '../../time/grid';
import { onReference, type Alignment } from '../align-sound';

/** What happens in a film, at its second. */
export type FilmMark = {
  frame: number;
  seconds: number;
  kind: FilmEvent['kind'] | 'freeze';
  strength: number;
};

/** A film that was taken apart. */
export type Apart = {
  /** rising by frame */
  marks: FilmMark[];
  /** pictures it has, and seconds to its end */
  frames: number;
  seconds: number;
};

/** Small pictures of a film's shots on one sheet: how many stand in a row, how many there are, and the size of each. */
export type ShotSheet = Size & { columns: number; count: number };

/** A shot of a film: its first frame and the one after its last, and what it begins with. */
export type FilmShot = {
  from: number;
  until: number;
  seconds: { from: number; until: number };
  begins: 'beginning' | 'cut' | 'dissolve';
};

/** The shots of a film, from one cut or middle of a dissolve to the next. */
export function shotsOf({ marks, frames, seconds }: Apart): FilmShot[] {
  const starts = marks.filter(({ kind }) => kind === 'cut' || kind === 'dissolve');
  const all = [{ frame: 0, seconds: 0, kind: 'beginning' as const }, ...starts];
  return all.map(({ frame, kind, seconds: from }, index) => ({
    from: frame,
    until: all[index + 1]?.frame ?? frames,
    seconds: { from, until: all[index + 1]?.seconds ?? seconds },
    begins: kind as FilmShot['begins'],
  }));
}

/** What happens in a film, in words: one of it, and several. */
export const markNames = {
  beginning: ['beginning', 'beginnings'],
  cut: ['cut', 'cuts'],
  dissolve: ['dissolve', 'dissolves'],
  flash: ['flash', 'flashes'],
  freeze: ['freeze', 'freezes'],
} as const;

/** True for what happens within a shot and joins none. */
export const isWithin = ({ kind }: FilmMark): boolean => kind === 'flash' || kind === 'freeze';

/** How many there are of everything but plain cuts: "2 dissolves". */
export function sayMarks(marks: readonly FilmMark[]): string[] {
  return (['dissolve', 'flash', 'freeze'] as const).flatMap((kind) => {
    const count = marks.filter((mark) => mark.kind === kind).length;
    return count > 0 ? [`${count} ${markNames[kind][count === 1 ? 0 : 1]}`] : [];
  });
}

/** The nearest beat to an instant of a film. @param heard where the song is heard in the film */
export const onSong = (grid: BeatGrid, heard: Alignment, seconds: number): OnSong =>
  nearestBeat(grid, onReference(heard, seconds));

/** Beats that a stretch of a film lasts. */
export const beatsBetween = (grid: BeatGrid, heard: Alignment, from: number, until: number): number =>
  beatOfTime(grid, onReference(heard, until)) - beatOfTime(grid, onReference(heard, from));

/** How a film is cut, in few numbers. */
export type Rhythm = {
  shots: number;
  /** seconds of the shot in the middle, the shortest and the longest */
  usual: number;
  shortest: number;
  longest: number;
  /** cuts and dissolves that lie within a limit of a beat, and seconds in the middle of all by which they are off it; null without a song */
  onBeat: { count: number; of: number; off: number } | null;
};

/**
 * @param near seconds within which a cut lies on its beat
 * @param song the beats and where they are heard in the film; null where they are not
 */
export function rhythmOf(
  apart: Apart,
  near: number,
  song: { grid: BeatGrid; heard: Alignment } | null,
): Rhythm {
  const shots = shotsOf(apart);
  const lengths = shots.map(({ seconds }) => seconds.until - seconds.from);
  const offs = song
    ? shots.slice(1).map(({ seconds }) => Math.abs(onSong(song.grid, song.heard, seconds.from).late))
    : [];
  return {
    shots: shots.length,
    usual: quantile(lengths, 0.5),
    shortest: Math.min(...lengths),
    longest: Math.max(...lengths),
    onBeat: song && {
      count: offs.filter((off) => off <= near).length,
      of: offs.length,
      off: quantile(offs, 0.5),
    },
  };
}
