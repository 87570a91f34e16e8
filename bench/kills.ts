/**
 * Takes that are broken off at random points: the tab closed, its renderer crashed, the browser killed. After each the
 * page is opened again, and what was recorded has to be a take: `ROUNDS=100 npm run bench:kills` after a build.
 */
import 'fake-indexeddb/auto';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext, type Page } from 'playwright-core';
import { seeded as randomOf } from '@/core/random';
import type { Log } from '@/core/model/shoot-records';
import { phone } from '../e2e/support/bench-page';
import { planned } from '../e2e/support/film-set';
import { lay } from '../e2e/support/seeds';
import { startServer } from '../e2e/support/server';

const rounds = Number(process.env.ROUNDS ?? 100);
const random = randomOf(Number(process.env.SEED ?? 1));
const folder = mkdtempSync(join(tmpdir(), 'ribbon-kills-'));

const openBrowser = (): Promise<BrowserContext> =>
  chromium.launchPersistentContext(folder, {
    executablePath: '/usr/bin/chromium',
    headless: true,
    viewport: phone,
    serviceWorkers: 'block',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-sync'],
  });

/** The lines of the log as they are stored. */
const logs = (page: Page): Promise<Log[]> =>
  page.evaluate(`(async () => {
    const open = indexedDB.open('fickle-ribbon');
    await new Promise((done) => (open.onsuccess = done));
    const get = open.result.transaction('records').objectStore('records').getAll();
    await new Promise((done) => (get.onsuccess = done));
    open.result.close();
    return get.result.filter((one) => one.kind === 'log' && one.alive);
  })()`);

const kills: Record<string, (page: Page, context: BrowserContext) => Promise<unknown>> = {
  tab: (page) => page.close(),
  renderer: async (page, context) => {
    const session = await context.newCDPSession(page);
    const crashed = page.waitForEvent('crash');
    void session.send('Page.crash').catch(() => undefined);
    await crashed;
    await page.close();
  },
  browser: async (_, context) => {
    const closed = new Promise((done) => context.on('close', done));
    spawnSync('pkill', ['-9', '-f', folder]);
    await closed;
  },
};

const server = await startServer();
let context = await openBrowser();
const seed = await planned();
await lay(context.pages()[0], server.url, seed, []);
const address = `${server.url}/?project=${seed.project}&station=shoot&part=camera`;
let [lost, early] = [0, 0];
for (let round = 0; round < rounds; round++) {
  const [kind, kill] = Object.entries(kills)[round % 3];
  const page = await context.newPage();
  await page.goto(address);
  await page.locator('[data-bench=settled]').waitFor();
  const before = (await logs(page)).length;
  await page.getByRole('button', { name: 'Practice camera' }).click();
  await page.getByRole('button', { name: /^Record take/ }).click();
  const wait = 200 + Math.abs(random()) * 4500;
  await page.waitForTimeout(wait);
  await kill(page, context);
  if (kind === 'browser') context = await openBrowser();
  const again = await context.newPage();
  await again.goto(address);
  await again.locator('[data-bench=settled]').waitFor({ timeout: 120_000 });
  await again.waitForTimeout(1500);
  await again.locator('[data-bench=settled]').waitFor({ timeout: 120_000 });
  const all = await logs(again);
  const fresh = all
    .slice()
    .sort((a, b) => a.started - b.started)
    .at(-1);
  const begun = all.length > before;
  const kept = Boolean(begun && fresh?.take);
  // Pieces come every second: before the first there is nothing to keep, and the line says so.
  const nothing = !begun || (fresh?.take === null && fresh.length === 0);
  if (nothing && wait < 2500) early++;
  else if (!kept) lost++;
  const length = fresh?.length?.toFixed(1) ?? '–';
  console.log(
    `${kept ? 'kept' : nothing ? 'none' : 'LOST'} ${kind} after ${(wait / 1000).toFixed(1)} s: ${length} s`,
  );
  await again.close();
}
console.log(`${rounds} kills, ${lost} takes lost, ${early} before the first piece was there.`);
await context.close();
await server.stop();
rmSync(folder, { recursive: true, force: true });
process.exit(lost > 0 ? 1 : 0);
