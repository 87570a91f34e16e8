import type { Project } from '@/core/model/records';
import { refuse } from '@/core/error';
import type { NotedTable, Store } from './db';

/** A project that was removed and waits. */
export type RemovedProject = { id: string; name: string; takes: number; bytes: number; removed: number };

/** Projects that were removed, the last one first, with what they hold. */
export async function removedProjects(store: Store): Promise<RemovedProject[]> {
  const all = await store.records.where({ kind: 'project' }).toArray();
  const gone = all.filter((one): one is Project & typeof one => one.kind === 'project' && !one.alive);
  const rows = gone.map(async ({ id, name, changed }) => {
    const media = await store.media.where({ project: id }).toArray();
    const takes = await store.records
      .where({ project: id })
      .filter((record) => record.kind === 'take' && record.alive)
      .count();
    return { id, name, takes, bytes: media.reduce((sum, { size }) => sum + size, 0), removed: changed };
  });
  return (await Promise.all(rows)).sort((a, b) => b.removed - a.removed);
}

const noted: readonly NotedTable[] = ['records', 'media', 'measures', 'halted', 'renders', 'conflicts'];

/**
 * Deletes a removed project for good, with its files, measures and history.
 * @throws CoreError `alive` for a project that was not removed
 */
export async function emptyProject(store: Store, project: string): Promise<void> {
  await store.transaction('rw', store.tables, async () => {
    if ((await store.records.get(project))?.alive)
      refuse('alive', 'This project is in use. Remove it first.');
    const files = await store.media.where({ project }).primaryKeys();
    const recordings = await store.recordings.where({ project }).primaryKeys();
    for (const table of [store.originals, store.proxies, store.stills]) await table.bulkDelete(files);
    await store.chunks.where('recording').anyOf(recordings).delete();
    for (const table of [store.recordings, store.arrivals, store.references, store.curves, store.commands])
      await table.where({ project }).delete();
    for (const name of noted)
      await store.removeRows(name, project, await store.tableOf(name).where({ project }).primaryKeys());
  });
  store.latest.delete(project);
}
