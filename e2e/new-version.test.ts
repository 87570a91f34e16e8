import { cpSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { describe, expect } from 'vitest';
import { shellIn } from '../bin/shell.mjs';
import { BenchPage } from './support/bench-page';
import { planned } from './support/film-set';
import { test } from './support/test';

/** Builds the shell's next version in its place: parts that come later have other names, and the old ones are gone. */
function renew(folder: string): void {
  const shown = readFileSync(`${folder}/index.html`, 'utf8');
  const gone = readdirSync(`${folder}/_next/static/chunks`).filter((name) => !shown.includes(name));
  expect(gone.length).toBeGreaterThan(5);
  for (const name of gone) rmSync(`${folder}/_next/static/chunks/${name}`);
  const worker = readFileSync(`${folder}/sw.js`, 'utf8');
  const entry = /\{[^{}]*"url":"\/_next\/static\/chunks\/([^"]+)"[^{}]*\},?/g;
  const renewed = worker
    .replace(entry, (whole, name: string) => (gone.includes(name) ? '' : whole))
    .replace(',]', ']')
    // Its model of people is another one as well.
    .replace(/people-[0-9a-f]{16}/, 'people-ffffffffffffffff');
  expect(renewed.length).toBeLessThan(worker.length);
  writeFileSync(`${folder}/sw.js`, renewed);
}

describe('a new version of the bench', () => {
  test('waits until the person changes over, and takes nothing away before', async ({ browser, file }) => {
    const folder = file('shell');
    cpSync('out', folder, { recursive: true });
    const server = createServer((request, response) => shellIn(folder)(request, response)).listen(0);
    const url = `http://localhost:${(server.address() as AddressInfo).port}`;
    const opening = { seed: await planned(), offline: true, at: 'station=song' };
    const bench = await BenchPage.open(browser, url, opening);
    const { page } = bench;
    await page.evaluate('navigator.serviceWorker.ready.then(() => undefined)');
    await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    const notice = page.getByText('A new version of the bench is ready');
    expect(await notice.count()).toBe(0);
    const models = () =>
      page.evaluate<string[]>("caches.keys().then((all) => all.filter((one) => one.startsWith('people-')))");
    await page.evaluate(
      "fetch('/people/vision_wasm_internal.js').then((answer) => answer.text()).then(() => undefined)",
    );
    const [model] = await models();
    expect(model).toMatch(/^people-[0-9a-f]{16}$/);

    renew(folder);
    const other = await bench.another();
    await other.page.evaluate('navigator.serviceWorker.getRegistration().then((one) => one.update())');
    await notice.waitFor();
    // A station that was not visited yet is opened from the old files.
    await bench.go('Hand over');
    await page.getByRole('heading', { name: 'Is it ready to leave?' }).waitFor();

    await bench.press('Later');
    await notice.waitFor({ state: 'detached' });
    const loaded = page.waitForEvent('load');
    await other.press('Change over');
    await page.getByText('renewed in another tab').waitFor();
    await bench.press('Load again');
    await loaded;
    await page.getByText('renewed in another tab').waitFor({ state: 'detached' });
    // The model of the version before is not used by this one, and gives its room back.
    await expect.poll(models).not.toContain(model);
    await bench.close();
    server.close();
  });
});
