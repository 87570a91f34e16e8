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
    async ({}, use) => {
      const server = await startServer();
      await use(server);
      await server.stop();
    },
    { scope: 'file' },
  ],
  browser: [
    async ({}, use) => {
      const browser = await openBrowser();
      await use(browser);
      await browser.close();
    },
    { scope: 'file' },
  ],
  open: async ({ browser, server }, use) => {
    const benches: BenchPage[] = [];
    await use(async (how = {}) => {
      const bench = await BenchPage.open(browser, server.url, how);
      benches.push(bench);
      return bench;
    });
    for (const bench of benches) await bench.close();
  },
  file: async ({}, use) => {
    const folder = mkdtempSync(join(tmpdir(), 'ribbon-'));
    await use((name) => join(folder, name));
    rmSync(folder, { recursive: true });
  },
});
