import { movedKeys } from '@/core/hand/moved';
import { movedKept } from '@/core/keep/keep';
import { movePins } from '@/core/model/pins';
import { refuse } from '@/core/error';
import { gridOfLabels, type ReadGrid } from '@/core/formats/labelled-beats';
import type { TextCue } from '@/core/formats/webvtt';
import type { Song } from '@/core/model/records';
import { foundGrid } from '@/core/song/found-grid';
import { songPartKey, songParts } from '@/core/song/parts';
import type { BeatTrack } from '@/core/song/track';
import { barAndBeat, barStart, beatOfTime, regularGrid, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import {
  doubleGrid,
  halveGrid,
  layTaps,
  moveBeat,
  replaceGrid,
  setDownbeat,
  setMeter,
  setTempoFrom,
  shiftGrid,
  type GridChange,
} from '@/core/time/grid-change';
import { same } from '../apply';
import type { Arranged } from '../arrange';
import { change, type Edit } from '../change';
import { newId, type Store } from '../db';
import { heardOf, type HeardSong } from '../snapshot';
import { newRecord } from './projects';

/** Records with what was measured of their song, read in the transaction of a step. */
type Heard = Arranged & { measured: HeardSong | null };

async function hear(store: Store, now: Arranged): Promise<Heard> {
  const media = now.song?.media;
  if (!media) return { ...now, measured: null };
  const rows = await store.measures.bulkGet(songParts.map((part) => songPartKey(part, media)));
  return { ...now, measured: heardOf(rows.map((row) => row?.value)) };
}

/** A corrected grid; null where it is to stay as it is. */
type Correction = (GridChange & { confidence?: number | null }) | null;

/**
 * Puts a corrected grid in force; whatever is pinned to beats moves along and keeps its place in the music.
 * @param correction what becomes of the song as it is when the step is made
 */
function correct(
  store: Store,
  project: string,
  label: string,
  correction: (now: Heard) => Correction,
  automatic = false,
) {
  return change(
    store,
    project,
    label,
    async (records) => {
      const now = await hear(store, records);
      const { song, moments, versions, sections, cues } = now;
      if (!song) return refuse('no-song', 'There is no song yet. Bring one in first.');
      const corrected = correction(now);
      if (!corrected) return [];
      const { grid, move, confidence = null } = corrected;
      // Passages hold whole beats.
      const locked = song.locked
        ?.map(({ from, to }) => ({
          from: Math.ceil(move(from) - 1e-6),
          to: Math.floor(move(to) + 1e-6),
        }))
        .filter(({ from, to }) => to > from);
      const edits: Edit[] = [
        { record: song.id, set: { grid, confidence, ...(locked ? { locked } : {}) } },
        ...moments.map((moment) => ({
          record: moment.id,
          set: {
            ...movePins(moment, move),
            ...(moment.keys ? { keys: movedKeys(moment.keys, moment, move) } : {}),
          },
        })),
        ...versions.flatMap(({ id, moment, kept }) => {
          const of = moments.find((one) => one.id === moment);
          return of ? [{ record: id, set: { kept: movedKept(kept, of.lands, move) } }] : [];
        }),
        ...sections.map(({ id, at }) => ({ record: id, set: { at: move(at) } })),
        ...cues.map(({ id, at, until }) => ({ record: id, set: { at: move(at), until: move(until) } })),
      ];
      return edits;
    },
    automatic,
  );
}

function gridOf({ song }: Arranged): BeatGrid {
  return song?.grid ?? refuse('no-grid', 'There are no beats yet. Set the tempo first.');
}

const durationOf = ({ measured, song }: Heard): number =>
  measured?.song.duration ?? song?.grid?.beats.at(-1) ?? 60;

/** Every second beat. Where the needle stands on the first of a bar, that stays one. */
export const halveTempo = (store: Store, project: string, needle = 0) =>
  correct(store, project, 'Half the tempo', (now) => {
    const grid = gridOf(now);
    const near = Math.round(beatOfTime(grid, needle));
    const first = barAndBeat(grid, near).beat === 1 ? near : 0;
    return halveGrid(grid, first);
  });
export const doubleTempo = (store: Store, project: string) =>
  correct(store, project, 'Double the tempo', (now) => doubleGrid(gridOf(now)));
export const shiftBeats = (store: Store, project: string, seconds: number) =>
  correct(store, project, 'Shift the beats', (now) => shiftGrid(gridOf(now), seconds));
export const firstOfBarAt = (store: Store, project: string, seconds: number) =>
  correct(store, project, 'First of the bar', (now) => setDownbeat(gridOf(now), seconds));
export const moveBeatTo = (store: Store, project: string, position: number, seconds: number) =>
  correct(store, project, 'Move a beat', (now) => moveBeat(gridOf(now), position, seconds));
export const setMeterAt = (store: Store, project: string, position: number, beatsPerBar: number) =>
  correct(store, project, 'Beats in a bar from here', (now) => setMeter(gridOf(now), position, beatsPerBar));
export const setTempoAt = (store: Store, project: string, position: number, bpm: number) =>
  correct(store, project, 'Tempo from here', (now) =>
    setTempoFrom(gridOf(now), position, bpm, durationOf(now)),
  );

/**
 * Beats that were laid on a sound which began late move to where it begins now; whatever is pinned to them stays
 * pinned.
 * @param seconds by which the sound was late
 */
export const followSound = (store: Store, project: string, seconds: number) =>
  correct(
    store,
    project,
    'Sound from where it begins',
    ({ song }) => (song?.grid ? { ...shiftGrid(song.grid, -seconds), confidence: song.confidence } : null),
    true,
  );

/** Half a beat later. Whatever the tempo is, a grid that sits between the beats is right after it. */
export const shiftHalfBeat = (store: Store, project: string) =>
  correct(store, project, 'Shift the beats', (now) => {
    const grid = gridOf(now);
    return shiftGrid(grid, (timeOfBeat(grid, 1) - timeOfBeat(grid, 0)) / 2);
  });

/** The beat nearest to the needle moves to it. */
export const beatAtNeedle = (store: Store, project: string, seconds: number) =>
  correct(store, project, 'Move a beat', (now) => {
    const grid = gridOf(now);
    return moveBeat(grid, Math.round(beatOfTime(grid, seconds)), seconds);
  });

export const setBeatsPerBar = (store: Store, project: string, beatsPerBar: number) =>
  correct(store, project, 'Beats in a bar', (now) => {
    const grid = gridOf(now);
    const firstDownbeat = grid.firstDownbeat % beatsPerBar;
    const by = grid.firstDownbeat - firstDownbeat;
    const changes = grid.changes?.map((one) => ({ ...one, at: one.at + by }));
    return {
      grid: { ...grid, beatsPerBar, firstDownbeat, ...(changes ? { changes } : {}) },
      move: (position) => position + by,
    };
  });

/** A regular tempo with a beat where the needle stands. Moments keep their time. */
export const setTempo = (store: Store, project: string, bpm: number, anchor: number) =>
  correct(store, project, 'Tempo', (now) => {
    const old = now.song?.grid ?? null;
    const near = old ? timeOfBeat(old, Math.round(beatOfTime(old, anchor))) : anchor;
    const grid = regularGrid(bpm, Math.max(0, near), durationOf(now), old?.beatsPerBar ?? 4);
    return replaceGrid(old, grid);
  });

/** Lays tapped beats over the grid. @param taps seconds of the song */
export const tapBeats = (store: Store, project: string, taps: readonly number[], latency: number) =>
  correct(store, project, 'Tap the beats', (now) => {
    const duration = durationOf(now);
    return layTaps(now.song?.grid ?? regularGrid(60, 0, duration), taps, latency, duration);
  });

/** Beats that a file brought. */
export const layReadBeats = (store: Store, project: string, { grid }: Pick<ReadGrid, 'grid'>) =>
  correct(store, project, 'Beats from a file', ({ song }) => replaceGrid(song?.grid ?? null, grid));

/**
 * The first beats of a song that took the place of another or of a ruler: whatever was pinned stays where it was in
 * time, to the last digit, until it is asked to snap. A grid that somebody set meanwhile stays.
 */
export async function layFirstBeats(store: Store, project: string, song: string, found: BeatTrack) {
  return correct(
    store,
    project,
    'Beats found',
    (now) => {
      if (now.song?.id !== song || now.song.grid) return null;
      const grid = foundGrid(found);
      const old = now.gridBefore;
      const move = (position: number) => (old ? beatOfTime(grid, timeOfBeat(old, position)) : position);
      return { grid, move, confidence: found.confidence };
    },
    true,
  );
}

/** Every moment onto the nearest beats. */
export const snapMoments = (store: Store, project: string) =>
  change(store, project, 'Snap to beats', ({ moments }) =>
    moments.map((moment) => ({
      record: moment.id,
      set: {
        ...movePins(moment, Math.round),
        end: Math.max(Math.round(moment.start) + 1, Math.round(moment.end)),
      },
    })),
  );

/** Instants of a take's sound in place of the seconds of a ruler. @param times seconds */
export const layEvents = (store: Store, project: string, times: readonly number[]) =>
  correct(store, project, 'Events as beats', ({ song }) =>
    replaceGrid(song?.grid ?? null, gridOfLabels(times.map((time) => ({ time }))).grid),
  );

/** Puts back the beats that were found in the sound. */
export const putFoundBeats = (store: Store, project: string) =>
  correct(store, project, 'Beats as found', ({ song, measured }) => {
    const found = measured?.beats;
    if (!song || !found || found.beats.length < 2)
      return refuse('no-beats', 'No beats were found in this song. Set the tempo by hand.');
    return { ...replaceGrid(song.grid, foundGrid(found)), confidence: found.confidence };
  });

/** Puts the other reading of the song's beats in force; whatever was pinned stays where it was in time. */
export const putOtherBeats = (store: Store, project: string) =>
  correct(store, project, 'The other reading', ({ song, measured }) => {
    const other = measured?.beats.other;
    if (!song || !other || other.beats.length < 2)
      return refuse('no-beats', 'No other beats were found in this song. Set the tempo by hand.');
    return replaceGrid(song.grid, foundGrid(other));
  });

/** A step that changes fields of the song as it is. */
const setSong = (
  store: Store,
  project: string,
  label: string,
  set: (song: Song) => Partial<Song>,
  automatic = false,
) =>
  change(
    store,
    project,
    label,
    ({ song }) =>
      song
        ? [{ record: song.id, set: set(song) }]
        : refuse('no-song', 'There is no song yet. Bring one in first.'),
    automatic,
  );

/** Keeps the beats of a passage when the others are looked for again. Beat positions. */
export const lockPassage = (store: Store, project: string, from: number, to: number) =>
  setSong(store, project, 'Lock a passage', (song) => {
    const others = (song.locked ?? []).filter((one) => one.to < from || one.from > to);
    return { locked: [...others, { from, to }].sort((a, b) => a.from - b.from) };
  });

export const unlockAll = (store: Store, project: string) =>
  setSong(store, project, 'Unlock all', () => ({ locked: [] }));

/** Asks for the beats outside locked passages to be found again. */
export const findRestAgain = (store: Store, project: string) =>
  setSong(
    store,
    project,
    'Find the rest again',
    ({ media, locked }) =>
      media && locked?.length
        ? { again: Date.now() }
        : refuse('no-lock', 'Lock the passage that is right first; then the rest can be found again.'),
    true,
  );

/** The locked passages in seconds, as the search wants them. */
export function lockedPassages({ song }: Pick<Arranged, 'song'>) {
  const grid = song?.grid;
  if (!grid) return [];
  return (song.locked ?? []).map(({ from, to }) => {
    const numbers = Array.from({ length: Math.max(2, Math.floor(to - from) + 1) }, (_, step) => from + step);
    const beats = numbers.map((position) => timeOfBeat(grid, position));
    const downbeats = numbers
      .filter((one) => barStart(grid, one) === one)
      .map((one) => timeOfBeat(grid, one));
    return { from: beats[0], to: beats[beats.length - 1], beats, downbeats };
  });
}

/**
 * Puts a found grid in force as a step of its own, and the request for it away.
 * @param searched the grid that the search was asked over
 * @throws CoreError `beats-changed` where beats were set by hand meanwhile; those stay, and so does the request
 */
export async function layFoundRest(
  store: Store,
  project: string,
  searched: BeatGrid | null,
  found: BeatTrack,
) {
  if (found.beats.length >= 2)
    await correct(store, project, 'Find the rest again', ({ song }) => {
      const grid = song?.grid ?? null;
      if (!same(grid, searched))
        return refuse(
          'beats-changed',
          'The beats were changed while the others were looked for; the change was kept.',
        );
      return { ...replaceGrid(grid, foundGrid(found)), confidence: found.confidence };
    });
  await setSong(store, project, 'Found again', () => ({ again: null }), true);
}

/** A ruler of seconds for a project without a song. */
export const laySeconds = (store: Store, project: string, duration = 120) =>
  change(store, project, 'A ruler of seconds', [
    {
      create: {
        ...newRecord(project),
        kind: 'song' as const,
        media: null,
        grid: regularGrid(60, 0, duration, 5),
        confidence: null,
      },
    },
  ]);

const newSection = (project: string, at: number, name: string, dye: number) => ({
  ...newRecord(project),
  id: newId(),
  kind: 'section' as const,
  at,
  name,
  dye: dye % 6,
});

/** A section from a beat position on; its name can be changed afterwards. */
export const addSection = (store: Store, project: string, at: number) =>
  change(store, project, 'New section', ({ sections }) => {
    if (sections.some((section) => section.at === at))
      return refuse('section', 'A section begins here already. Put the needle elsewhere.');
    return [{ create: newSection(project, at, `Part ${sections.length + 1}`, sections.length) }];
  });

export const setSection = (
  store: Store,
  project: string,
  section: string,
  set: { name?: string; at?: number },
) => change(store, project, 'Change the section', [{ record: section, set }]);

export const removeSection = (store: Store, project: string, section: string) =>
  change(store, project, 'Remove the section', [{ remove: section }]);

/** Sections as they were found in the sound; they take the place of those that are there. */
export const layFoundSections = (store: Store, project: string) =>
  change(store, project, 'Sections as found', async (records) => {
    const made = foundSections(await hear(store, records));
    if (made.length === 0)
      return refuse('sections', 'No sections were found. Put the needle where one begins and add it.');
    return [...records.sections.map(({ id }) => ({ remove: id })), ...made];
  });

/** The same by itself, once the song was measured; where there are sections already they stay. */
export const layFirstSections = (store: Store, project: string) =>
  change(
    store,
    project,
    'Sections as found',
    async (records) => {
      const made = records.sections.length > 0 ? [] : foundSections(await hear(store, records));
      return made.length > 1 ? made : [];
    },
    true,
  );

function foundSections({ project, song, measured }: Heard) {
  const grid = song?.grid;
  if (!grid) return [];
  const counts = new Map<string, number>();
  return (measured?.song.sections ?? []).map(({ time, letter }) => {
    const count = (counts.get(letter) ?? 0) + 1;
    counts.set(letter, count);
    const name = count > 1 ? `Part ${letter} ${count}` : `Part ${letter}`;
    const at = Math.round(beatOfTime(grid, time));
    return { create: newSection(project.id, at, name, letter.charCodeAt(0) - 65) };
  });
}

/** Words over the ribbon; they take the place of those that are there. */
export const layCues = (store: Store, project: string, cues: readonly TextCue[]) =>
  change(store, project, 'Words of the song', (now) => {
    const grid = gridOf(now);
    const made = cues.map(({ start, end, text }) => ({
      create: {
        ...newRecord(project),
        id: newId(),
        kind: 'cue' as const,
        at: beatOfTime(grid, start),
        until: beatOfTime(grid, end),
        text,
      },
    }));
    return [...now.cues.map(({ id }) => ({ remove: id })), ...made];
  });

/** Hits weaker than this share are not drawn. */
export const setHitsAbove = (store: Store, project: string, hitsAbove: number) =>
  setSong(store, project, 'Which hits are shown', () => ({ hitsAbove }));
