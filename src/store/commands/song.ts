import { refuse } from '@/core/error';
import {
  beatOfTime,
  doubleGrid,
  halveGrid,
  regularGrid,
  setDownbeat,
  shiftGrid,
  timeOfBeat,
  type BeatGrid,
  type GridChange,
} from '@/core/time/grid';
import { change, type Edit } from '../change';
import type { Store } from '../db';
import { songMeasure, type Snapshot } from '../snapshot';

/** Puts a corrected grid in force; moments move along so that they keep their place in the music. */
function correct(store: Store, snapshot: Snapshot, label: string, { grid, move }: GridChange) {
  const { song, moments, project } = snapshot;
  if (!song) return refuse('no-song', 'There is no song yet. Bring one in first.');
  const edits: Edit[] = [{ record: song.id, set: { grid, confidence: null } }];
  for (const moment of moments) {
    const set = { start: move(moment.start), lands: move(moment.lands), end: move(moment.end) };
    edits.push({ record: moment.id, set });
  }
  return change(store, project.id, label, edits);
}

function gridOf({ song }: Snapshot): BeatGrid {
  return song?.grid ?? refuse('no-grid', 'There are no beats yet. Set the tempo first.');
}

export const halveTempo = (store: Store, snapshot: Snapshot) =>
  correct(store, snapshot, 'Half the tempo', halveGrid(gridOf(snapshot)));
export const doubleTempo = (store: Store, snapshot: Snapshot) =>
  correct(store, snapshot, 'Double the tempo', doubleGrid(gridOf(snapshot)));
export const shiftBeats = (store: Store, snapshot: Snapshot, seconds: number) =>
  correct(store, snapshot, 'Shift the beats', shiftGrid(gridOf(snapshot), seconds));
export const firstOfBarAt = (store: Store, snapshot: Snapshot, seconds: number) =>
  correct(store, snapshot, 'First of the bar', setDownbeat(gridOf(snapshot), seconds));

/** Half a beat later. Whatever the tempo is, a grid that sits between the beats is right after it. */
export function shiftHalfBeat(store: Store, snapshot: Snapshot) {
  const grid = gridOf(snapshot);
  return shiftBeats(store, snapshot, (timeOfBeat(grid, 1) - timeOfBeat(grid, 0)) / 2);
}

export function setBeatsPerBar(store: Store, snapshot: Snapshot, beatsPerBar: number) {
  const grid = gridOf(snapshot);
  const firstDownbeat = grid.firstDownbeat % beatsPerBar;
  const by = grid.firstDownbeat - firstDownbeat;
  return correct(store, snapshot, 'Beats in a bar', {
    grid: { ...grid, beatsPerBar, firstDownbeat },
    move: (position) => position + by,
  });
}

/** A regular tempo with a beat where the needle stands. Moments keep their time. */
export async function setTempo(store: Store, snapshot: Snapshot, bpm: number, anchor: number) {
  const { song } = snapshot;
  const duration = songMeasure(snapshot)?.song.duration ?? 0;
  const old = song?.grid;
  const near = old ? timeOfBeat(old, Math.round(beatOfTime(old, anchor))) : anchor;
  const grid = regularGrid(bpm, Math.max(0, near), duration, old?.beatsPerBar ?? 4);
  return correct(store, snapshot, 'Tempo', {
    grid,
    move: (position) => (old ? Math.round(beatOfTime(grid, timeOfBeat(old, position)) * 4) / 4 : position),
  });
}

/** Puts back the beats that were found in the sound. */
export function putFoundBeats(store: Store, snapshot: Snapshot) {
  const found = songMeasure(snapshot)?.beats;
  if (!snapshot.song || !found || found.beats.length < 2) {
    return refuse('no-beats', 'No beats were found in this song. Set the tempo by hand.');
  }
  const grid = foundGrid(found);
  return change(store, snapshot.project.id, 'Beats as found', [
    { record: snapshot.song.id, set: { grid, confidence: found.confidence } },
  ]);
}

/** The grid that a search found; its bars as the first beats of bars say. */
export function foundGrid({ beats, downbeats }: { beats: number[]; downbeats: number[] }): BeatGrid {
  const first = Math.max(0, beats.indexOf(downbeats[0]));
  const second = beats.indexOf(downbeats[1]);
  const beatsPerBar = second > first ? second - first : 4;
  return { beats, beatsPerBar, firstDownbeat: first };
}
