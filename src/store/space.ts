import type { Stills } from '@/core/model/measures';
import type { Take } from '@/core/model/records';
import { refuse } from '@/core/error';
import { isOverPlate, recipeOf, slotsInUse } from '@/core/recipes/built';
import type { Store } from './db';
import { takeIn } from './material';
import { plateFor } from './plates';
import type { Snapshot } from './snapshot';

/** Bytes of one project by what they are. */
export type Held = {
  originals: number;
  /** small copies that the bench plays */
  proxies: number;
  /** pictures and curves that were measured */
  stills: number;
  renders: number;
  /** recordings that are no file yet */
  recordings: number;
};
export type ProjectSpace = { id: string; name: string; alive: boolean; held: Held };

/** A take that was removed and whose file is still here. */
export type RemovedTake = { id: string; media: string; name: string; bytes: number; removed: number };

export const bytesOf = (held: Held): number => Object.values(held).reduce((sum, bytes) => sum + bytes, 0);

const stillBytes = ({ pictures, views }: Stills): number =>
  pictures.reduce((sum, { picture }) => sum + picture.y.length + picture.u.length + picture.v.length, 0) +
  views.reduce((sum, { luma }) => sum + luma.data.length, 0);

/** What every project keeps on this device, also removed ones, the largest first. */
export async function spaceOfProjects(store: Store): Promise<ProjectSpace[]> {
  const projects = await store.records.where({ kind: 'project' }).toArray();
  const out = projects
    .flatMap((one) => (one.kind === 'project' ? [one] : []))
    .map(async (project) => {
      const { id, name, alive } = project;
      const files = await store.media.where({ project: id }).primaryKeys();
      const sum = (rows: readonly ({ blob: Blob | null } | undefined)[]) =>
        rows.reduce((bytes, row) => bytes + (row?.blob?.size ?? 0), 0);
      const recordings = await store.recordings.where({ project: id }).primaryKeys();
      const curves = await store.curves.where({ project: id }).toArray();
      const stills = await store.stills.bulkGet(files);
      const held: Held = {
        originals: sum(await store.originals.bulkGet(files)),
        proxies: sum(await store.proxies.bulkGet(files)),
        stills:
          stills.reduce((bytes, row) => bytes + (row ? stillBytes(row.stills) : 0), 0) +
          curves.reduce((bytes, { values }) => bytes + values.byteLength, 0),
        renders: sum(await store.renders.where({ project: id }).toArray()),
        recordings: sum(await store.chunks.where('recording').anyOf(recordings).toArray()),
      };
      return { id, name, alive, held };
    });
  return (await Promise.all(out)).sort((a, b) => bytesOf(b.held) - bytesOf(a.held));
}

/**
 * Where a take is used, in words: moments by what it fills in them, other takes that are held against it, versions,
 * its line in the log.
 */
export function usesOfTake(snapshot: Snapshot, take: Take): string[] {
  const { moments, versions, logs, takes } = snapshot;
  const inMoments = moments.flatMap((moment) => {
    const recipe = recipeOf(moment);
    const slots = recipe ? slotsInUse(moment, recipe) : [];
    return slots.flatMap(({ key, title }) =>
      takeIn(snapshot, moment, key)?.id === take.id ? [`${moment.name} (${title.toLowerCase()})`] : [],
    );
  });
  const against = takes.filter(
    (one) => one !== take && isOverPlate(one.slot) && plateFor(snapshot, one)?.id === take.id,
  ).length;
  const asPlate =
    against > 0 ? [`${against} ${against === 1 ? 'take is' : 'takes are'} held against it`] : [];
  const inVersions = versions
    .filter(({ kept }) => JSON.stringify(kept).includes(`"${take.id}"`))
    .map(({ name }) => `version ${name} of a moment`);
  const inLog = logs.filter((log) => log.take === take.id).map(({ number }) => `take ${number} in the log`);
  return [...inMoments, ...asPlate, ...inVersions, ...inLog];
}

/** Bytes of a take's file with what was made of it. */
export async function bytesOfTake(store: Store, media: string): Promise<number> {
  const [original, proxy, still] = await Promise.all([
    store.originals.get(media),
    store.proxies.get(media),
    store.stills.get(media),
  ]);
  return (original?.blob.size ?? 0) + (proxy?.blob.size ?? 0) + (still ? stillBytes(still.stills) : 0);
}

/** Takes of a project that were removed and whose files wait, the last one first. */
export async function removedTakes(store: Store, project: string): Promise<RemovedTake[]> {
  const records = await store.records.where({ project }).toArray();
  const used = new Set(records.flatMap((one) => (one.alive && 'media' in one ? [one.media] : [])));
  const gone = records.flatMap((one) =>
    one.kind === 'take' && !one.alive && !used.has(one.media) ? [one] : [],
  );
  const rows = gone.map(async ({ id, media, name, changed }) => ({
    id,
    media,
    name,
    bytes: await bytesOfTake(store, media),
    removed: changed,
  }));
  return (await Promise.all(rows)).filter(({ bytes }) => bytes > 0).sort((a, b) => b.removed - a.removed);
}

/**
 * Deletes the file of a removed take for good, with all that was made of it. Its record stays in the history:
 * brought back by undo it asks for its file, and the same file brought in again is taken for it.
 * @throws CoreError `alive` where the file is still used
 */
export async function emptyTake(store: Store, project: string, media: string): Promise<void> {
  const tables = [store.records, store.originals, store.proxies, store.stills, store.curves, store.measures];
  await store.transaction('rw', [...tables, store.writes], async () => {
    const users = await store.records
      .where({ project })
      .filter((one) => one.alive && 'media' in one && one.media === media)
      .count();
    if (users > 0) refuse('alive', 'This file is in use. Take it out of the project first.');
    for (const table of [store.originals, store.proxies, store.stills]) await table.delete(media);
    const measured = await store.measures.where({ subject: media }).primaryKeys();
    await store.curves.bulkDelete(measured);
    await store.removeRows('measures', project, measured);
  });
}
