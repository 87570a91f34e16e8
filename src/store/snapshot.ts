import { partKey } from '@/core/footage/analysers';
import type { Comparison, SongMeasure, TakeMeasure } from '@/core/model/measures';
import type { Project, Take } from '@/core/model/records';
import { rememberedWith, sharedList } from '@/core/remember';
import type { BeatTrack } from '@/core/song/track';
import type { Ruler } from '@/core/recipes/recipe';
import { arrange, type Arranged } from './arrange';
import { keepRecords, readRecords } from './read-records';
import type { Conflict, Halted, Media, Measure, MeasureValue, Render, Store, StoredRecord } from './db';

/** Everything small about a project at one instant; what screens draw and work is found from. */
export type Snapshot = Arranged & {
  /** the newest step of this tab that it holds, as a stamp; '' before the first */
  step: string;
  /** every record, also those that were removed */
  records: ReadonlyMap<string, StoredRecord>;
  conflicts: Conflict[];
  media: Map<string, Media>;
  measures: Map<string, Measure>;
  halted: Map<string, Halted>;
  renders: Render[];
};

/** The last snapshot of a store: what has not changed since is taken over from it, and stays the same object. */
const kept = new WeakMap<Store, Snapshot>();

/** Rows of a small table as they are now; those that are as before are the objects of before. */
function sharedRows<Row>(
  before: ReadonlyMap<string, Row> | undefined,
  now: Row[],
  idOf: (row: Row) => string,
): Map<string, Row> {
  return new Map(
    now.map((row) => {
      const old = before?.get(idOf(row));
      return [idOf(row), old && JSON.stringify(old) === JSON.stringify(row) ? old : row];
    }),
  );
}

/** Measures by key; a key holds everything that its answer depends on, so each is read only once. */
async function readMeasures(
  store: Store,
  project: string,
  before: Map<string, Measure> | undefined,
): Promise<Map<string, Measure>> {
  const keys = (await store.measures.where({ project }).primaryKeys()) as string[];
  const missing = keys.filter((key) => !before?.has(key));
  if (before && missing.length === 0 && keys.length === before.size) return before;
  const read = new Map(
    (await store.measures.bulkGet(missing)).flatMap((one) => (one ? [[one.key, one]] : [])),
  );
  return new Map(
    keys.flatMap((key) => {
      const found = before?.get(key) ?? read.get(key);
      return found ? [[key, found]] : [];
    }),
  );
}

function sharedArranged(before: Snapshot | undefined, now: Arranged): Arranged {
  const entries = Object.entries(now).map(([name, value]) => {
    const old = before?.[name as keyof Arranged];
    return [name, Array.isArray(value) ? sharedList(old as unknown[] | undefined, value) : value];
  });
  return Object.fromEntries(entries) as Arranged;
}

/**
 * Reads a project; null where it is not there. Whatever is as it was when this store was read the last time is the
 * same object, so that what follows from it need not be worked out again.
 */
export async function readSnapshot(store: Store, projectId: string): Promise<Snapshot | null> {
  const step = store.latest.get(projectId) ?? '';
  const last = kept.get(store);
  const before = last?.project.id === projectId ? last : undefined;
  const [read, media, measures, halted, renders, conflicts] = await Promise.all([
    readRecords(store, projectId),
    store.media.where({ project: projectId }).toArray(),
    readMeasures(store, projectId, before?.measures),
    store.halted.where({ project: projectId }).toArray(),
    store.renders.where({ project: projectId }).toArray(),
    store.conflicts.where({ project: projectId }).toArray(),
  ]);
  const arranged = arrange([...read.records.values()]);
  if (!arranged) return null;
  const snapshot: Snapshot = {
    ...sharedArranged(before, arranged),
    step,
    records: read.records,
    media: sharedRows(before?.media, media, ({ id }) => id),
    measures,
    halted: new Map(halted.map((one) => [one.key, one])),
    renders: renders.sort((a, b) => b.created - a.created),
    conflicts,
  };
  kept.set(store, snapshot);
  keepRecords(store, read);
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
