import type { Table } from 'dexie';
import { keyOfRow, type NotedRows, type NotedTable, type Store } from './db';

/** All rows of a project in the tables that every screen follows, by their keys; also records that were removed. */
export type ReadRows = { readonly [Name in NotedTable]: ReadonlyMap<string, NotedRows[Name]> } & {
  readonly project: string;
  /** the highest number of a writing that it holds */
  readonly written: number;
};

/** What was read of each store the last time, outside of any change that may yet be given up. */
const kept = new WeakMap<Store, ReadRows>();

const byKey = <Row extends NotedRows[NotedTable]>(rows: readonly Row[]): Map<string, Row> =>
  new Map(rows.map((row) => [keyOfRow(row), row]));

async function readAll(store: Store, project: string): Promise<ReadRows> {
  // The number first: what is written between the two is only read once more than needed.
  const last = await store.writes.orderBy('number').last();
  const [records, media, measures] = await Promise.all([
    store.records.where({ project }).toArray(),
    store.media.where({ project }).toArray(),
    store.measures.where({ project }).toArray(),
  ]);
  return {
    project,
    records: byKey(records),
    media: byKey(media),
    measures: byKey(measures),
    written: last?.number ?? 0,
  };
}

/** A table's rows with those read again that some keys name; the same map where there are none. */
async function readAgain<Name extends NotedTable>(
  store: Store,
  name: Name,
  before: ReadonlyMap<string, NotedRows[Name]>,
  keys: readonly string[],
): Promise<ReadonlyMap<string, NotedRows[Name]>> {
  if (keys.length === 0) return before;
  const found = await (store[name] as unknown as Table<NotedRows[Name], string>).bulkGet([...keys]);
  const rows = new Map(before);
  found.forEach((row, index) => {
    if (row) rows.set(keys[index], row);
    else rows.delete(keys[index]);
  });
  return rows;
}

async function readOn(store: Store, before: ReadRows, tables: readonly NotedTable[]): Promise<ReadRows> {
  const { project, written } = before;
  const writes = await store.writes
    .where('[project+number]')
    .between([project, written], [project, Infinity], false)
    .toArray();
  if (writes.length === 0) return before;
  const again = <Name extends NotedTable>(name: Name) =>
    tables.includes(name)
      ? readAgain(
          store,
          name,
          before[name] as ReadonlyMap<string, NotedRows[Name]>,
          writes.filter(({ table }) => table === name).map(({ key }) => key),
        )
      : (before[name] as ReadonlyMap<string, NotedRows[Name]>);
  const [records, media, measures] = await Promise.all([again('records'), again('media'), again('measures')]);
  return { project, records, media, measures, written: Math.max(...writes.map(({ number }) => number)) };
}

/**
 * A project's rows as they are now. Only those that were written since this store was last read are read again: the
 * others are the objects of before. What is read goes on from here the next time, so this is not for readings inside
 * a change.
 */
export async function readRows(store: Store, project: string): Promise<ReadRows> {
  const before = kept.get(store);
  const all: readonly NotedTable[] = ['records', 'media', 'measures'];
  const now = await (before?.project === project ? readOn(store, before, all) : readAll(store, project));
  kept.set(store, now);
  return now;
}

/** A project's records as they are now, inside a change as well: then as they are for all of it. */
export async function readRecords(store: Store, project: string): Promise<ReadRows['records']> {
  const before = kept.get(store);
  if (before?.project === project) return (await readOn(store, before, ['records'])).records;
  return byKey(await store.records.where({ project }).toArray());
}
