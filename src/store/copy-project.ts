import { refuse } from '@/core/error';
import type { AnyRecord } from '@/core/model/records';
import { change } from './change';
import { freeName } from './commands/projects';
import { newId, type Measure, type Media, type Store, type StoredRecord } from './db';

const idInText = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/g;

/** Gives everything that a value names its new id, also inside keys that are made of several. */
function renamer(ids: ReadonlyMap<string, string>) {
  const inText = (text: string) => ids.get(text) ?? text.replace(idInText, (id) => ids.get(id) ?? id);
  const inValue = (value: unknown): unknown => {
    if (typeof value === 'string') return inText(value);
    if (Array.isArray(value)) return value.map(inValue);
    if (value === null || typeof value !== 'object') return value;
    return Object.fromEntries(Object.entries(value).map(([key, part]) => [inText(key), inValue(part)]));
  };
  return { inText, inValue };
}

/** A record without what its history says of it. */
const plainRecord = (record: StoredRecord) =>
  Object.fromEntries(Object.entries(record).filter(([field]) => field !== 'stamps'));

/**
 * Makes a second project of everything that is in one: its files, what was measured of them, the plan, moments and
 * log. Neither is changed by what is done in the other. Renders are not copied, nor what was removed.
 * @returns the copy's id
 * @throws CoreError `gone` where the project is no longer there
 */
export async function copyProject(store: Store, project: string): Promise<string> {
  const original = await store.records.get(project);
  if (original?.kind !== 'project' || !original.alive)
    refuse('gone', 'This project is no longer there. Bring it back under “Removed projects” first.');
  const name = await freeName(store, original.name);
  const copy = newId();
  await store.transaction('rw', store.tables, async () => {
    const records = (await store.records.where({ project }).toArray()).filter(({ alive }) => alive);
    const media = await store.media.where({ project }).toArray();
    // A plate that is still to be put together has no file yet: each project makes its own.
    const making = records.flatMap((one) => (one.kind === 'take' && one.made ? [{ id: one.media }] : []));
    const ids = new Map([...records, ...media, ...making].map(({ id }) => [id, newId()]));
    ids.set(project, copy);
    const { inText, inValue } = renamer(ids);

    await store.writeRows(
      'media',
      media.map((row): Media => ({ ...row, id: inText(row.id), project: copy })),
    );
    for (const { id } of media)
      for (const table of [store.originals, store.proxies, store.stills]) {
        const row = await table.get(id);
        if (row) await table.put({ ...row, id: inText(id) } as never);
      }
    const measures = await store.measures.where({ project }).toArray();
    await store.writeRows(
      'measures',
      measures.map((row): Measure => ({
        ...row,
        key: inText(row.key),
        subject: inText(row.subject),
        project: copy,
      })),
    );
    for (const row of await store.curves.where({ project }).toArray())
      await store.curves.put({ ...row, key: inText(row.key), project: copy });

    const now = Date.now();
    await change(
      store,
      copy,
      'Project copied',
      records.map((record) => {
        const renamed = inValue(plainRecord(record)) as AnyRecord;
        const mine = { ...renamed, project: copy, created: now, changed: now };
        return { create: mine.kind === 'project' ? { ...mine, name } : mine };
      }),
    );
  });
  return copy;
}
