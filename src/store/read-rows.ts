import { keyOfRow, type NotedRows, type NotedTable, type Store } from './db';

/** All rows of a project in the tables that every screen follows, by their keys; also records that were removed. */
export type ReadRows = { readonly [Name in NotedTable]: ReadonlyMap<string, NotedRows[Name]> } & {
  readonly project: string;
  /** the highest number of a writing that it holds */
  readonly written: number;
};

type RowsOf<Name extends NotedTable> = ReadonlyMap<string, NotedRows[Name]>;

/** What was read of each store the last time, outside of any change that may yet be given up. */
const kept = new WeakMap<Store, ReadRows>();

const byKey = <Row extends NotedRows[NotedTable]>(rows: readonly Row[]): Map<string, Row> =>
  new Map(rows.map((row) => [keyOfRow(row), row]));

const tables = ['records', 'media', 'measures', 'halted', 'renders', 'conflicts'] as const;

/** What some reading of each table comes to. */
async function readEach(
  read: <Name extends NotedTable>(name: Name) => Promise<RowsOf<Name>>,
): Promise<Omit<ReadRows, 'project' | 'written'>> {
  const [records, media, measures, halted, renders, conflicts] = await Promise.all([
    read('records'),
    read('media'),
    read('measures'),
    read('halted'),
    read('renders'),
    read('conflicts'),
  ]);
  return { records, media, measures, halted, renders, conflicts };
}

/** What was read of one table. */
const rowsIn = <Name extends NotedTable>(read: ReadRows, name: Name) => read[name] as unknown as RowsOf<Name>;

async function readAll(store: Store, project: string): Promise<ReadRows> {
  // The number first: what is written between the two is only read once more than needed.
  const last = await store.writes.orderBy('number').last();
  const rows = await readEach(async (name) => byKey(await store.tableOf(name).where({ project }).toArray()));
  return { ...rows, project, written: last?.number ?? 0 };
}

/** A table's rows with those read again that some keys name; the same map where there are none. */
async function readAgain<Name extends NotedTable>(
  store: Store,
  name: Name,
  before: RowsOf<Name>,
  keys: readonly string[],
): Promise<RowsOf<Name>> {
  if (keys.length === 0) return before;
  const found = await store.tableOf(name).bulkGet([...keys]);
  const rows = new Map(before);
  found.forEach((row, index) => {
    if (row) rows.set(keys[index], row);
    else rows.delete(keys[index]);
  });
  return rows;
}

async function readOn(store: Store, before: ReadRows, wanted: readonly NotedTable[]): Promise<ReadRows> {
  const { project, written } = before;
  const writes = await store.writes
    .where('[project+number]')
    .between([project, written], [project, Infinity], false)
    .toArray();
  if (writes.length === 0) return before;
  const rows = await readEach(async (name) => {
    const keys = writes.filter(({ table }) => table === name).map(({ key }) => key);
    return readAgain(store, name, rowsIn(before, name), wanted.includes(name) ? keys : []);
  });
  return { ...rows, project, written: Math.max(...writes.map(({ number }) => number)) };
}

/**
 * A project's rows as they are now. Only those that were written since this store was last read are read again: the
 * others are the objects of before. What is read goes on from here the next time, so this is not for readings inside
 * a change.
 */
export async function readRows(store: Store, project: string): Promise<ReadRows> {
  const before = kept.get(store);
  const now = await (before?.project === project ? readOn(store, before, tables) : readAll(store, project));
  kept.set(store, now);
  return now;
}

/** A project's records as they are now, inside a change as well: then as they are for all of it. */
export async function readRecords(store: Store, project: string): Promise<ReadRows['records']> {
  const before = kept.get(store);
  if (before?.project === project) return (await readOn(store, before, ['records'])).records;
  return byKey(await store.records.where({ project }).toArray());
}
