import { partKey } from '@/core/footage/analysers';
import type { Comparison, SongMeasure, TakeMeasure } from '@/core/model/measures';
import type { Project, Take } from '@/core/model/records';
import { rememberedWith, sharedList } from '@/core/remember';
import type { BeatTrack } from '@/core/song/track';
import type { Ruler } from '@/core/recipes/recipe';
import { arrange, type Arranged } from './arrange';
import { readRows } from './read-rows';
import type { Conflict, Halted, Media, Measure, MeasureValue, Render, Store, StoredRecord } from './db';

/** Everything small about a project at one instant; what screens draw and work is found from. */
export type Snapshot = Arranged & {
  /** the newest step of this tab that it holds, as a stamp; '' before the first */
  step: string;
  /** every record, also those that were removed */
  records: ReadonlyMap<string, StoredRecord>;
  conflicts: Conflict[];
  media: ReadonlyMap<string, Media>;
  measures: ReadonlyMap<string, Measure>;
  halted: Map<string, Halted>;
  renders: Render[];
};

/** The last snapshot of a store: what has not changed since is taken over from it, and stays the same object. */
const kept = new WeakMap<Store, Snapshot>();

/** A short list as it is now; the one before where nothing in it has changed. */
const sameList = <Row>(before: Row[] | undefined, now: Row[]): Row[] =>
  before && JSON.stringify(before) === JSON.stringify(now) ? before : now;

function sharedArranged(before: Snapshot | undefined, now: Arranged): Arranged {
  const entries = Object.entries(now).map(([name, value]) => {
    const old = before?.[name as keyof Arranged];
    return [name, Array.isArray(value) ? sharedList(old as unknown[] | undefined, value) : value];
  });
  return Object.fromEntries(entries) as Arranged;
}

/**
 * Reads a project; null where it is not there. Whatever is as it was when this store was read the last time is the
 * same object, the whole snapshot as well, so that what follows from it need not be worked out again.
 */
export async function readSnapshot(store: Store, projectId: string): Promise<Snapshot | null> {
  const step = store.latest.get(projectId) ?? '';
  const last = kept.get(store);
  const before = last?.project.id === projectId ? last : undefined;
  const [read, halted, renders, conflicts] = await Promise.all([
    readRows(store, projectId),
    store.halted.where({ project: projectId }).toArray(),
    store.renders.where({ project: projectId }).toArray(),
    store.conflicts.where({ project: projectId }).toArray(),
  ]);
  const { records, media, measures } = read;
  const halts = sameList(before && [...before.halted.values()], halted);
  const arranged = before?.records === records ? before : arrange([...records.values()]);
  if (!arranged) return null;
  const small = {
    step,
    records,
    media,
    measures,
    renders: sameList(
      before?.renders,
      renders.sort((a, b) => b.created - a.created),
    ),
    conflicts: sameList(before?.conflicts, conflicts),
    halted: before && halts !== halted ? before.halted : new Map(halted.map((one) => [one.key, one])),
  };
  const same =
    before && Object.entries(small).every(([name, part]) => before[name as keyof Snapshot] === part);
  if (same) return before;
  const snapshot: Snapshot = {
    ...(arranged === before ? before : sharedArranged(before, arranged)),
    ...small,
  };
  kept.set(store, snapshot);
  return snapshot;
}

export const songKey = (media: string) => `song-2:${media}`;
/** @param take id of the take's file; @param plate id of the plate's file */
export const compareKey = (take: string, plate: string) =>
  `comparison-2(${partKey('camera', take)},${partKey('camera', plate)})`;

type KeptMeasure = TakeMeasure & { poster: Blob; complete: boolean };
const takes = rememberedWith<MeasureValue, KeptMeasure>();

/** What is known of a take; null until its pictures were decoded. */
export function takeMeasure({ measures }: Pick<Snapshot, 'measures'>, take: Take | null): KeptMeasure | null {
  if (!take) return null;
  const value = measures.get(partKey('pictures', take.media))?.value;
  if (value?.method !== 'pictures') return null;
  const found = measures.get(partKey('motion', take.media))?.value;
  return takes(value, [found], () => ({
    ...value.pictures,
    motion: found?.method === 'motion' ? found.small : null,
    poster: value.poster,
    complete: value.complete,
  }));
}

export function comparisonOf(snapshot: Snapshot, take: Take | null, plate: Take | null): Comparison | null {
  if (!take || !plate || take.id === plate.id) return null;
  const value = snapshot.measures.get(compareKey(take.media, plate.media))?.value;
  return value?.method === 'comparison' ? value.comparison : null;
}

export function songMeasure(snapshot: Snapshot): { song: SongMeasure; beats: BeatTrack } | null {
  const media = snapshot.song?.media;
  const value = media && snapshot.measures.get(songKey(media))?.value;
  return value && value.method === 'song-2' ? value : null;
}

const rulers = rememberedWith<Project, Ruler>();

/** Turns beats into frames; null until there is a grid. */
export const rulerOf = ({ project, song }: Snapshot): Ruler | null => {
  const grid = song?.grid;
  return grid ? rulers(project, [grid], () => ({ grid, project })) : null;
};
