import { refuse } from '@/core/error';
import { gridOfLabels, type ReadGrid } from '@/core/formats/labelled-beats';
import type { TextCue } from '@/core/formats/webvtt';
import type { BeatTrack } from '@/core/song/track';
import { barAndBeat, beatOfTime, regularGrid, timeOfBeat, type BeatGrid } from '@/core/time/grid';
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
import { change, type Edit } from '../change';
import { newId, type Store } from '../db';
import { songMeasure, type Snapshot } from '../snapshot';
import { newRecord } from './projects';

/** Puts a corrected grid in force; whatever is pinned to beats moves along and keeps its place in the music. */
function correct(
  store: Store,
  snapshot: Snapshot,
  label: string,
  { grid, move }: GridChange,
  confidence: number | null = null,
  automatic = false,
) {
  const { song, moments, sections, cues, project } = snapshot;
  if (!song) return refuse('no-song', 'There is no song yet. Bring one in first.');
  const locked = song.locked?.map(({ from, to }) => ({ from: move(from), to: move(to) }));
  const edits: Edit[] = [{ record: song.id, set: { grid, confidence, ...(locked ? { locked } : {}) } }];
  for (const { id, start, lands, end } of moments)
    edits.push({ record: id, set: { start: move(start), lands: move(lands), end: move(end) } });
  for (const { id, at } of sections) edits.push({ record: id, set: { at: move(at) } });
  for (const { id, at, until } of cues) edits.push({ record: id, set: { at: move(at), until: move(until) } });
  return change(store, project.id, label, edits, automatic);
}

function gridOf({ song }: Snapshot): BeatGrid {
  return song?.grid ?? refuse('no-grid', 'There are no beats yet. Set the tempo first.');
}

const durationOf = (snapshot: Snapshot): number => {
  const last = snapshot.song?.grid?.beats.at(-1) ?? 60;
  return songMeasure(snapshot)?.song.duration ?? last;
};

/** Every second beat. Where the needle stands on the first of a bar, that stays one. */
export function halveTempo(store: Store, snapshot: Snapshot, needle = 0) {
  const grid = gridOf(snapshot);
  const near = Math.round(beatOfTime(grid, needle));
  const first = barAndBeat(grid, near).beat === 1 ? near : 0;
  return correct(store, snapshot, 'Half the tempo', halveGrid(grid, first));
}
export const doubleTempo = (store: Store, snapshot: Snapshot) =>
  correct(store, snapshot, 'Double the tempo', doubleGrid(gridOf(snapshot)));
export const shiftBeats = (store: Store, snapshot: Snapshot, seconds: number) =>
  correct(store, snapshot, 'Shift the beats', shiftGrid(gridOf(snapshot), seconds));
export const firstOfBarAt = (store: Store, snapshot: Snapshot, seconds: number) =>
  correct(store, snapshot, 'First of the bar', setDownbeat(gridOf(snapshot), seconds));
export const moveBeatTo = (store: Store, snapshot: Snapshot, position: number, seconds: number) =>
  correct(store, snapshot, 'Move a beat', moveBeat(gridOf(snapshot), position, seconds));
export const setMeterAt = (store: Store, snapshot: Snapshot, position: number, beatsPerBar: number) =>
  correct(store, snapshot, 'Beats in a bar from here', setMeter(gridOf(snapshot), position, beatsPerBar));
export const setTempoAt = (store: Store, snapshot: Snapshot, position: number, bpm: number) =>
  correct(
    store,
    snapshot,
    'Tempo from here',
    setTempoFrom(gridOf(snapshot), position, bpm, durationOf(snapshot)),
  );

/** Half a beat later. Whatever the tempo is, a grid that sits between the beats is right after it. */
export function shiftHalfBeat(store: Store, snapshot: Snapshot) {
  const grid = gridOf(snapshot);
  return shiftBeats(store, snapshot, (timeOfBeat(grid, 1) - timeOfBeat(grid, 0)) / 2);
}

/** The beat nearest to the needle moves to it. */
export function beatAtNeedle(store: Store, snapshot: Snapshot, seconds: number) {
  const position = Math.round(beatOfTime(gridOf(snapshot), seconds));
  return moveBeatTo(store, snapshot, position, seconds);
}

export function setBeatsPerBar(store: Store, snapshot: Snapshot, beatsPerBar: number) {
  const grid = gridOf(snapshot);
  const firstDownbeat = grid.firstDownbeat % beatsPerBar;
  const by = grid.firstDownbeat - firstDownbeat;
  const changes = grid.changes?.map((one) => ({ ...one, at: one.at + by }));
  return correct(store, snapshot, 'Beats in a bar', {
    grid: { ...grid, beatsPerBar, firstDownbeat, ...(changes ? { changes } : {}) },
    move: (position) => position + by,
  });
}

/** A regular tempo with a beat where the needle stands. Moments keep their time. */
export async function setTempo(store: Store, snapshot: Snapshot, bpm: number, anchor: number) {
  const old = snapshot.song?.grid ?? null;
  const near = old ? timeOfBeat(old, Math.round(beatOfTime(old, anchor))) : anchor;
  const grid = regularGrid(bpm, Math.max(0, near), durationOf(snapshot), old?.beatsPerBar ?? 4);
  return correct(store, snapshot, 'Tempo', replaceGrid(old, grid));
}

/** Lays tapped beats over the grid. @param taps seconds of the song */
export function tapBeats(store: Store, snapshot: Snapshot, taps: readonly number[], latency: number) {
  const duration = durationOf(snapshot);
  const grid = snapshot.song?.grid ?? regularGrid(60, 0, duration);
  return correct(store, snapshot, 'Tap the beats', layTaps(grid, taps, latency, duration));
}

/** Beats that a file brought. */
export const layReadBeats = (store: Store, snapshot: Snapshot, { grid }: Pick<ReadGrid, 'grid'>) =>
  correct(store, snapshot, 'Beats from a file', replaceGrid(snapshot.song?.grid ?? null, grid));

/**
 * The first beats of a song that took the place of another or of a ruler: whatever was pinned stays where it was in
 * time, to the last digit, until it is asked to snap.
 */
export function layFirstBeats(store: Store, snapshot: Snapshot, found: BeatTrack, old: BeatGrid | null) {
  const grid = foundGrid(found);
  const move = (position: number) => (old ? beatOfTime(grid, timeOfBeat(old, position)) : position);
  return correct(store, snapshot, 'Beats found', { grid, move }, found.confidence, true);
}

/** Every moment onto the nearest beats. */
export function snapMoments(store: Store, { moments, project }: Snapshot) {
  const edits = moments.map(({ id, start, lands, end }) => {
    const set = {
      start: Math.round(start),
      lands: Math.round(lands),
      end: Math.max(Math.round(start) + 1, Math.round(end)),
    };
    return { record: id, set };
  });
  return change(store, project.id, 'Snap to beats', edits);
}

/** Instants of a take's sound in place of the seconds of a ruler. @param times seconds */
export function layEvents(store: Store, snapshot: Snapshot, times: readonly number[]) {
  const { grid } = gridOfLabels(times.map((time) => ({ time })));
  return correct(store, snapshot, 'Events as beats', replaceGrid(snapshot.song?.grid ?? null, grid));
}

/** Puts back the beats that were found in the sound. */
export function putFoundBeats(store: Store, snapshot: Snapshot) {
  const found = songMeasure(snapshot)?.beats;
  if (!snapshot.song || !found || found.beats.length < 2) {
    return refuse('no-beats', 'No beats were found in this song. Set the tempo by hand.');
  }
  const put = replaceGrid(snapshot.song.grid, foundGrid(found));
  return correct(store, snapshot, 'Beats as found', put, found.confidence);
}

/** Keeps the beats of a passage when the others are looked for again. Beat positions. */
export function lockPassage(store: Store, snapshot: Snapshot, from: number, to: number) {
  const { song, project } = snapshot;
  if (!song) return refuse('no-song', 'There is no song yet. Bring one in first.');
  const others = (song.locked ?? []).filter((one) => one.to < from || one.from > to);
  const locked = [...others, { from, to }].sort((a, b) => a.from - b.from);
  return change(store, project.id, 'Lock a passage', [{ record: song.id, set: { locked } }]);
}

export function unlockAll(store: Store, { song, project }: Snapshot) {
  if (!song) return refuse('no-song', 'There is no song yet. Bring one in first.');
  return change(store, project.id, 'Unlock all', [{ record: song.id, set: { locked: [] } }]);
}

/** Asks for the beats outside locked passages to be found again. */
export function findRestAgain(store: Store, { song, project }: Snapshot) {
  if (!song?.media || !song.locked?.length)
    return refuse('no-lock', 'Lock the passage that is right first; then the rest can be found again.');
  return change(
    store,
    project.id,
    'Find the rest again',
    [{ record: song.id, set: { again: Date.now() } }],
    true,
  );
}

/** The locked passages in seconds, as the search wants them. */
export function lockedPassages({ song }: Pick<Snapshot, 'song'>) {
  const grid = song?.grid;
  if (!grid) return [];
  return (song.locked ?? []).map(({ from, to }) => {
    const numbers = Array.from({ length: Math.max(2, Math.floor(to - from) + 1) }, (_, step) => from + step);
    const beats = numbers.map((position) => timeOfBeat(grid, position));
    const downbeats = numbers
      .filter((one) => one % grid.beatsPerBar === 0)
      .map((one) => timeOfBeat(grid, one));
    return { from: beats[0], to: beats[beats.length - 1], beats, downbeats };
  });
}

/** Puts a found grid in force as a step of its own, and the request for it away. */
export async function layFoundRest(store: Store, snapshot: Snapshot, found: BeatTrack) {
  const { song, project } = snapshot;
  if (!song) return;
  await change(store, project.id, 'Found again', [{ record: song.id, set: { again: null } }], true);
  if (found.beats.length < 2) return;
  await correct(
    store,
    snapshot,
    'Find the rest again',
    replaceGrid(song.grid, foundGrid(found)),
    found.confidence,
  );
}

/** A ruler of seconds for a project without a song. */
export function laySeconds(store: Store, snapshot: Snapshot, duration = 120) {
  const song = {
    ...newRecord(snapshot.project.id),
    kind: 'song' as const,
    media: null,
    grid: regularGrid(60, 0, duration, 5),
    confidence: null,
  };
  return change(store, snapshot.project.id, 'A ruler of seconds', [{ create: song }]);
}

/** The grid that a search found; bars begin where most of its first beats say. */
export function foundGrid({
  beats,
  downbeats,
  beatsPerBar,
}: Pick<BeatTrack, 'beats' | 'downbeats' | 'beatsPerBar'>): BeatGrid {
  const votes = new Array<number>(beatsPerBar).fill(0);
  for (const time of downbeats) {
    const index = beats.findIndex((beat) => Math.abs(beat - time) < 1e-3);
    if (index >= 0) votes[index % beatsPerBar]++;
  }
  return { beats, beatsPerBar, firstDownbeat: votes.indexOf(Math.max(...votes)) };
}

const newSection = (project: string, at: number, name: string, dye: number) => ({
  ...newRecord(project),
  id: newId(),
  kind: 'section' as const,
  at,
  name,
  dye: dye % 6,
});

/** A section from a beat position on; its name can be changed afterwards. */
export function addSection(store: Store, { project, sections }: Snapshot, at: number) {
  if (sections.some((section) => section.at === at))
    return refuse('section', 'A section begins here already. Put the needle elsewhere.');
  const name = `Part ${sections.length + 1}`;
  return change(store, project.id, 'New section', [
    { create: newSection(project.id, at, name, sections.length) },
  ]);
}

export const setSection = (
  store: Store,
  project: string,
  section: string,
  set: { name?: string; at?: number },
) => change(store, project, 'Change the section', [{ record: section, set }]);

export const removeSection = (store: Store, project: string, section: string) =>
  change(store, project, 'Remove the section', [{ remove: section }]);

/** Sections as they were found in the sound; they take the place of those that are there. */
export function layFoundSections(store: Store, snapshot: Snapshot, automatic = false) {
  const { project, sections, song } = snapshot;
  const found = songMeasure(snapshot)?.song.sections ?? [];
  const grid = song?.grid;
  if (!grid || found.length === 0)
    return refuse('sections', 'No sections were found. Put the needle where one begins and add it.');
  const counts = new Map<string, number>();
  const made = found.map(({ time, letter }) => {
    const count = (counts.get(letter) ?? 0) + 1;
    counts.set(letter, count);
    const name = count > 1 ? `Part ${letter} ${count}` : `Part ${letter}`;
    const at = Math.round(beatOfTime(grid, time));
    return { create: newSection(project.id, at, name, letter.charCodeAt(0) - 65) };
  });
  const gone = sections.map(({ id }) => ({ remove: id }));
  return change(store, project.id, 'Sections as found', [...gone, ...made], automatic);
}

/** Words over the ribbon; they take the place of those that are there. */
export function layCues(store: Store, snapshot: Snapshot, cues: readonly TextCue[]) {
  const { project } = snapshot;
  const grid = gridOf(snapshot);
  const made = cues.map(({ start, end, text }) => ({
    create: {
      ...newRecord(project.id),
      id: newId(),
      kind: 'cue' as const,
      at: beatOfTime(grid, start),
      until: beatOfTime(grid, end),
      text,
    },
  }));
  const gone = snapshot.cues.map(({ id }) => ({ remove: id }));
  return change(store, project.id, 'Words of the song', [...gone, ...made]);
}

/** Hits weaker than this share are not drawn. */
export function setHitsAbove(store: Store, { song, project }: Snapshot, hitsAbove: number) {
  if (!song) return refuse('no-song', 'There is no song yet. Bring one in first.');
  return change(store, project.id, 'Which hits are shown', [{ record: song.id, set: { hitsAbove } }]);
}
