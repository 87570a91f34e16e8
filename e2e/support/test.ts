import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'playwright-core';
import { test as base } from 'vitest';
import { BenchPage, type Opening } from './bench-page';
import { openBrowser } from './browser';
import { startServer } from './server';

/** What every end-to-end test is given; each opens benches of its own, so that none needs another. */
type Given = {
  server: { url: string; stop: () => Promise<void> };
  browser: Browser;
  /** opens a bench that is closed, and looked over for errors, once the test is over */
  open: (how?: Opening) => Promise<BenchPage>;
  /** a path in a folder of the test's own */
  file: (name: string) => string;
};

export const test = base.extend<Given>({
  server: [
    async ({}, give) => {
      const server = await startServer();
      await give(server);
      await server.stop();
    },
    { scope: 'worker' },
  ],
  browser: [
    async ({}, give) => {
      const browser = await openBrowser();
      await give(browser);
      await browser.close();
    },
    { scope: 'worker' },
  ],
  open: async ({ browser, server, task }, give) => {
    const benches: BenchPage[] = [];
    await give(async (how = {}) => {
      const bench = await BenchPage.open(browser, server.url, how);
      benches.push(bench);
      return bench;
    });
    if (task.result?.errors) for (const bench of benches) console.info(await bench.shown());
    for (const bench of benches) await bench.close();
  },
  file: async ({}, give) => {
    const folder = mkdtempSync(join(tmpdir(), 'ribbon-'));
    await give((name) => join(folder, name));
    rmSync(folder, { recursive: true });
  },
});
