import type { Store, StoredRecord } from './db';

/** Every record of a project as it was read once, also those that were removed. */
export type ReadRecords = {
  project: string;
  records: ReadonlyMap<string, StoredRecord>;
  /** the highest number of a writing that it holds */
  written: number;
};

/** What was read of each store the last time, outside of any change that may yet be given up. */
const kept = new WeakMap<Store, ReadRecords>();

async function readAll(store: Store, project: string): Promise<ReadRecords> {
  // The number first: what is written between the two is only read once more than needed.
  const last = await store.writes.orderBy('number').last();
  const records = await store.records.where({ project }).toArray();
  return {
    project,
    records: new Map(records.map((record) => [record.id, record])),
    written: last?.number ?? 0,
  };
}

async function readOn(store: Store, before: ReadRecords): Promise<ReadRecords> {
  const { project, written } = before;
  const writes = await store.writes
    .where('[project+number]')
    .between([project, written], [project, Infinity], false)
    .toArray();
  if (writes.length === 0) return before;
  const changed = await store.records.bulkGet(writes.map(({ record }) => record));
  const records = new Map(before.records);
  for (const record of changed) if (record) records.set(record.id, record);
  return { project, records, written: Math.max(...writes.map(({ number }) => number)) };
}

/**
 * The records of a project as they are now; inside a transaction, as they are for all of it. Only those that were
 * written since this store was last read are read again: the others are the objects of before.
 */
export function readRecords(store: Store, project: string): Promise<ReadRecords> {
  const before = kept.get(store);
  return before?.project === project ? readOn(store, before) : readAll(store, project);
}

/** Keeps what was read, so that the next reading goes on from it. Not for readings inside a change. */
export const keepRecords = (store: Store, read: ReadRecords): void => void kept.set(store, read);
