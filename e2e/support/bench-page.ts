import type { Browser, BrowserContext, Download, Page } from 'playwright-core';
import { expect } from 'vitest';
import type { Song } from '@/core/model/records';
import type { BeatGrid } from '@/core/time/grid';
import type { StoredRecord } from '@/store/db';

/** A person at the bench: opens it, makes a project of their own, works, waits. */
export class BenchPage {
  readonly errors: string[] = [];

  private constructor(
    readonly context: BrowserContext,
    readonly page: Page,
  ) {
    page.on('pageerror', (error) => this.errors.push(error.message));
    page.on('request', (request) => {
      const url = new URL(request.url());
      if (url.protocol.startsWith('http') && url.hostname !== 'localhost')
        this.errors.push(`asked ${url.hostname}`);
    });
  }

  static async open(
    browser: Browser,
    url: string,
    size = { width: 1280, height: 800 },
    hasTouch = false,
  ): Promise<BenchPage> {
    const context = await browser.newContext({ viewport: size, acceptDownloads: true, hasTouch });
    const page = await context.newPage();
    const bench = new BenchPage(context, page);
    await page.goto(url);
    await page.locator('[data-ribbon]').first().waitFor({ timeout: 120_000 });
    return bench;
  }

  /** Another page of the same person, as after a page was lost. */
  async another(address: string): Promise<BenchPage> {
    const page = await this.context.newPage();
    const bench = new BenchPage(this.context, page);
    await page.goto(address);
    return bench;
  }

  async ownProject(): Promise<void> {
    await this.page.keyboard.press('Control+k');
    await this.page.getByLabel('Search what can be done').fill('project of your own');
    await this.page.keyboard.press('Enter');
    await this.page.getByText('Lay a song on the bench').waitFor();
  }

  async bringIn(...files: string[]): Promise<void> {
    await this.page.getByTestId('files').setInputFiles(files);
  }

  async go(station: 'Song' | 'Plan' | 'Shoot' | 'Match' | 'Build' | 'Deliver'): Promise<void> {
    await this.page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('button', { name: station })
      .click();
  }

  /** Waits until nothing is being measured, solved or rendered any more. */
  async settled(): Promise<void> {
    const idle = () =>
      this.page.waitForFunction(() => !document.querySelector('[role=progressbar]'), null, {
        timeout: 400_000,
        polling: 200,
      });
    // Work follows work: it is over when it stays away for a moment.
    await idle();
    await this.page.waitForTimeout(1200);
    await idle();
  }

  finding(code: string) {
    return this.page.locator(`[data-finding="${code}"]`);
  }

  async save(button: string): Promise<Download> {
    const download = this.page.waitForEvent('download');
    await this.page.getByRole('button', { name: button, exact: true }).first().click();
    return download;
  }

  /** The records of the open project as the page keeps them. */
  records(): Promise<StoredRecord[]> {
    return this.page.evaluate(`(async () => {
      const open = indexedDB.open('fickle-ribbon');
      await new Promise((done) => (open.onsuccess = done));
      const get = open.result.transaction('records').objectStore('records').getAll();
      await new Promise((done) => (get.onsuccess = done));
      open.result.close();
      return get.result.filter((one) => location.search.includes(one.project));
    })()`) as Promise<StoredRecord[]>;
  }

  /** The grid as the page keeps it. */
  async grid(): Promise<BeatGrid> {
    const songs = (await this.records()).filter(
      (one): one is StoredRecord & Song => one.kind === 'song' && one.alive,
    );
    return songs.sort((a, b) => b.created - a.created)[0].grid as BeatGrid;
  }

  async close(): Promise<void> {
    await this.context.close();
    expect(this.errors).toEqual([]);
  }
}
