import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { createProject } from '@/store/commands/projects';
import { Store } from '@/store/db';
import { pack, unpack } from './packed';

/** What a browser's store holds before a test begins, and the project that is opened. */
export type Seed = {
  project: string;
  tables: readonly string[];
  rowsOf: (table: string) => string;
  /** the version of the store that wrote it; left out, today's */
  version?: number;
};

export const seedOf = (project: string, rows: Record<string, string>): Seed => ({
  project,
  tables: Object.keys(rows),
  rowsOf: (table) => rows[table] ?? '[]',
});

/** Tables whose rows are large; a test says which of them it needs. */
const heavy = ['originals', 'proxies', 'stills'] as const;
export type Heavy = (typeof heavy)[number];

const schema = () =>
  new Store().tables.map(({ name, schema: { primKey, indexes } }) => ({
    name,
    keyPath: primKey.keyPath ?? null,
    indexes: indexes.map((index) => ({ name: index.name, keyPath: index.keyPath ?? null })),
  }));

/** A function's words for a page; what runs TypeScript may name functions through a helper that pages lack. */
const inPage = (one: { name: string }) => `const __name = (named) => named; const ${one.name} = ${one};`;

let count = 0;

/** Letters of a table that are handed to a page at once: a browser refuses answers that are much larger. */
const partLength = 2 ** 24;

/** A project made by the application's own commands, without a browser. */
export async function seeded(
  fill: (store: Store, project: string) => Promise<unknown> = async () => undefined,
  name = 'My film',
): Promise<Seed> {
  const store = new Store(`seed-${count++}`);
  const project = await createProject(store, name);
  await fill(store, project);
  const tables: Record<string, string> = {};
  for (const table of store.tables) tables[table.name] = await pack(await table.toArray());
  store.close();
  return seedOf(project, tables);
}

/** A seed in which the rows of some tables are others. */
export async function reseeded(
  seed: Seed,
  change: Record<string, (row: Record<string, unknown>) => Record<string, unknown>>,
): Promise<Seed> {
  const changed: Record<string, string> = {};
  for (const [table, of] of Object.entries(change))
    changed[table] = await pack(((await unpack(seed.rowsOf(table))) as Record<string, unknown>[]).map(of));
  return { ...seed, rowsOf: (table) => changed[table] ?? seed.rowsOf(table) };
}

/** Everything that the page's store holds; the project that it shows is opened. */
export async function taken(page: Page): Promise<Seed> {
  const project = new URL(page.url()).searchParams.get('project') ?? '';
  const tables = (await page.evaluate(`(async () => {
    ${inPage(pack)}
    const open = indexedDB.open('fickle-ribbon');
    await new Promise((done) => (open.onsuccess = done));
    const tables = {};
    for (const name of open.result.objectStoreNames) {
      const get = open.result.transaction(name).objectStore(name).getAll();
      await new Promise((done) => (get.onsuccess = done));
      tables[name] = await pack(get.result);
    }
    open.result.close();
    return tables;
  })()`)) as Record<string, string>;
  return seedOf(project, tables);
}

/**
 * Puts a seed into the store of a page that shows nothing of the application yet.
 * @param keep large tables that the test needs; the others stay empty
 */
export async function lay(page: Page, url: string, seed: Seed, keep: readonly Heavy[]): Promise<void> {
  const left = heavy.filter((name) => !keep.includes(name));
  const wanted = seed.tables.filter((name) => !left.some((one) => one === name));
  const texts = new Map<string, string>();
  await page.route(`${url}/seed/*/*`, (route) => {
    const [table, part] = route.request().url().split('/').slice(-2);
    const text = texts.get(table) ?? seed.rowsOf(table);
    texts.set(table, text);
    const body = text.slice(Number(part) * partLength, (Number(part) + 1) * partLength);
    return route.fulfill({ body, contentType: 'text/plain' });
  });
  await page.goto(`${url}/icon.svg`);
  await page.evaluate(`(async () => {
    ${inPage(unpack)}
    const open = indexedDB.open('fickle-ribbon', ${(seed.version ?? new Store().verno) * 10});
    open.onupgradeneeded = () => {
      for (const { name, keyPath, indexes } of ${JSON.stringify(schema().filter(({ name }) => seed.tables.includes(name)))}) {
        const table = open.result.createObjectStore(name, { keyPath });
        for (const index of indexes) table.createIndex(index.name, index.keyPath);
      }
    };
    await new Promise((done, fail) => { open.onsuccess = done; open.onerror = fail; });
    for (const name of ${JSON.stringify(wanted)}) {
      const parts = [];
      while (parts.length === 0 || parts.at(-1).length === ${partLength})
        parts.push(await (await fetch('/seed/' + name + '/' + parts.length)).text());
      const rows = unpack(parts.join(''));
      if (rows.length === 0) continue;
      const put = open.result.transaction(name, 'readwrite');
      for (const row of rows) put.objectStore(name).put(row);
      await new Promise((done, fail) => { put.oncomplete = done; put.onerror = fail; });
    }
    open.result.close();
  })()`);
  await page.unroute(`${url}/seed/*/*`);
}

const folderOf = (name: string) => {
  // It names every file of the build.
  const version = createHash('sha256').update(readFileSync('out/sw.js')).digest('hex').slice(0, 16);
  return `.cache/seeds/${version}/${name}`;
};

/** Keeps a seed that takes long to make for the tests that need it; made once for each build. */
export async function keepSeed(name: string, make: () => Promise<Seed>): Promise<void> {
  const folder = folderOf(name);
  if (existsSync(`${folder}/project`)) return;
  const seed = await make();
  mkdirSync(folder, { recursive: true });
  for (const table of seed.tables) writeFileSync(`${folder}/${table}.json`, seed.rowsOf(table));
  writeFileSync(`${folder}/project`, seed.project);
}

/** A seed that {@link keepSeed} kept. */
export function keptSeed(name: string): Seed {
  const folder = folderOf(name);
  return {
    project: readFileSync(`${folder}/project`, 'utf8'),
    tables: readdirSync(folder).flatMap((file) => /^(\w+)\.json$/.exec(file)?.[1] ?? []),
    rowsOf: (table) => readFileSync(`${folder}/${table}.json`, 'utf8'),
  };
}
