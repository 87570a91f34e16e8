import type { Comparison, SongMeasure, TakeMeasure } from '@/core/model/measures';
import type { Take } from '@/core/model/records';
import type { BeatTrack } from '@/core/song/track';
import type { Ruler } from '@/core/recipes/recipe';
import { arrange, type Arranged } from './arrange';
import type { Conflict, Halted, Media, Measure, Render, Store } from './db';

/** Everything small about a project at one instant; what screens draw and work is found from. */
export type Snapshot = Arranged & {
  /** the newest step of this tab that it holds, as a stamp; '' before the first */
  step: string;
  conflicts: Conflict[];
  media: Map<string, Media>;
  measures: Map<string, Measure>;
  halted: Map<string, Halted>;
  renders: Render[];
};

/** Reads a project; null where it is not there. */
export async function readSnapshot(store: Store, projectId: string): Promise<Snapshot | null> {
  const step = store.latest.get(projectId) ?? '';
  const [records, media, measures, halted, renders, conflicts] = await Promise.all([
    store.records.where({ project: projectId }).toArray(),
    store.media.where({ project: projectId }).toArray(),
    store.measures.where({ project: projectId }).toArray(),
    store.halted.where({ project: projectId }).toArray(),
    store.renders.where({ project: projectId }).toArray(),
    store.conflicts.where({ project: projectId }).toArray(),
  ]);
  const arranged = arrange(records);
  if (!arranged) return null;
  return {
    ...arranged,
    step,
    media: new Map(media.map((one) => [one.id, one])),
    measures: new Map(measures.map((one) => [one.key, one])),
    halted: new Map(halted.map((one) => [one.key, one])),
    renders: renders.sort((a, b) => b.created - a.created),
    conflicts,
  };
}

export const takeKey = (media: string) => `take-2:${media}`;
export const songKey = (media: string) => `song-2:${media}`;
export const compareKey = (take: string, plate: string) => `compare-1:${take}:${plate}`;

export function takeMeasure(
  snapshot: Snapshot,
  take: Take | null,
): (TakeMeasure & { poster: Blob; complete: boolean }) | null {
  const value = take && snapshot.measures.get(takeKey(take.media))?.value;
  return value?.method === 'take-2'
    ? { ...value.take, poster: value.poster, complete: value.complete }
    : null;
}

export function comparisonOf(snapshot: Snapshot, take: Take | null, plate: Take | null): Comparison | null {
  if (!take || !plate || take.id === plate.id) return null;
  const value = snapshot.measures.get(compareKey(take.media, plate.media))?.value;
  return value?.method === 'compare-1' ? value.comparison : null;
}

export function songMeasure(snapshot: Snapshot): { song: SongMeasure; beats: BeatTrack } | null {
  const media = snapshot.song?.media;
  const value = media && snapshot.measures.get(songKey(media))?.value;
  return value && value.method === 'song-2' ? value : null;
}

/** Turns beats into frames; null until there is a grid. */
export const rulerOf = ({ project, song }: Snapshot): Ruler | null =>
  song?.grid ? { grid: song.grid, project } : null;
