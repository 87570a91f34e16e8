import axe from 'axe-core';
import type { Browser, BrowserContext, Download, Locator, Page } from 'playwright-core';
import type { Song } from '@/core/model/records';
import type { BeatGrid } from '@/core/time/grid';
import type { StoredRecord } from '@/store/db';
import { lay, type Heavy, type Seed } from './seeds';

export const desktop = { width: 1280, height: 800 };
export const phone = { width: 390, height: 844 };
export type Station = 'Song' | 'Plan' | 'Shoot' | 'Match' | 'Build' | 'Hand over';

/** Presses, choices and numbers typed that lead from takes to a landed shot, at the most. */
const mostActions = 9;

/** How a bench is opened. */
export type Opening = {
  size?: { width: number; height: number };
  /** held with fingers; a phone is, unless said otherwise */
  touch?: boolean;
  /** what the store holds beforehand; without one it is the first visit */
  seed?: Seed;
  /** large tables of the seed that are wanted */
  keep?: readonly Heavy[];
  /** bytes that the browser gives the page in all; left out, as many as it likes */
  quota?: number;
  /** keeps the application for days without a network, as browsers do; left out, each page costs less */
  offline?: boolean;
  /** the rest of the address: "station=build" */
  at?: string;
};

/** A person at the bench: opens it, works, waits. Each has a browser profile of their own. */
export class BenchPage {
  readonly errors: string[] = [];
  /** what the person has done so far: presses, choices and numbers typed, each as one */
  actions = 0;
  /** when the person began, as `performance.now()` says it */
  readonly began = performance.now();

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

  static async open(browser: Browser, url: string, opening: Opening): Promise<BenchPage> {
    const { size = desktop, touch = size.width < 600, offline = false } = opening;
    const context = await browser.newContext({
      viewport: size,
      acceptDownloads: true,
      serviceWorkers: offline ? 'allow' : 'block',
      hasTouch: touch,
    });
    return BenchPage.openIn(context, url, opening);
  }

  /** Opens the bench in a context whose size and fingers are decided already. */
  static async openIn(
    context: BrowserContext,
    url: string,
    { seed, keep = [], quota, at = '' }: Omit<Opening, 'size' | 'touch' | 'offline'>,
  ): Promise<BenchPage> {
    context.setDefaultTimeout(240_000);
    const page = await context.newPage();
    const bench = new BenchPage(context, page);
    // Before anything is kept: the browser remembers for a while how much it has given.
    if (quota !== undefined) await bench.giveRoom(url, quota);
    if (seed) await lay(page, url, seed, keep);
    await page.goto(seed ? `${url}/?project=${seed.project}&${at}` : url);
    await bench.arrived();
    return bench;
  }

  /** Sets how many bytes the browser gives an address in all; left out, as many as it likes. */
  async giveRoom(url: string, bytes?: number): Promise<void> {
    const session = await this.context.newCDPSession(this.page);
    const { origin } = new URL(url);
    await session.send('Storage.overrideQuotaForOrigin', {
      origin,
      ...(bytes === undefined ? {} : { quotaSize: bytes }),
    });
  }

  /** Another page of the same person: a second tab, or one after a page was lost. */
  async another(address = this.page.url()): Promise<BenchPage> {
    const page = await this.context.newPage();
    const bench = new BenchPage(this.context, page);
    await page.goto(address);
    await bench.arrived();
    return bench;
  }

  async bringIn(...files: string[]): Promise<void> {
    this.actions++;
    await this.page.getByTestId('files').setInputFiles(files);
  }

  async go(station: Station): Promise<void> {
    await this.page
      .getByRole('navigation', { name: 'Stations' })
      .getByRole('button', { name: station })
      .click();
    await this.arrived();
  }

  /** What stands on the screen, for whoever reads of a test that failed. */
  shown(): Promise<string> {
    return this.page.locator('body').innerText({ timeout: 5000 }).catch(String);
  }

  /** Waits until a station is on the screen, whatever is still worked at. */
  async arrived(): Promise<void> {
    await this.page.locator('[data-bench]:not([data-bench=opening])').waitFor();
  }

  /** Presses a button by its whole name, the first one where several have it. */
  async press(name: string): Promise<void> {
    this.actions++;
    await this.page.getByRole('button', { name, exact: true }).first().click();
    await this.arrived();
  }

  /** Chooses a word of a sentence, by its whole text in whatever letters. */
  async choose(label: string, option: string): Promise<void> {
    this.actions++;
    await this.page.getByRole('combobox', { name: label, exact: true }).click();
    await this.page.getByRole('option', { name: new RegExp(`^${option}$`, 'i') }).click();
    await this.settled();
  }

  /** Opens what lies folded under a line. */
  async unfold(line: string): Promise<void> {
    await this.page.locator('summary', { hasText: line }).click();
  }

  /** Types into a quantity of a sentence. */
  async type(field: string, text: string): Promise<void> {
    this.actions++;
    await this.number(field).focus();
    await this.page.keyboard.press('Enter');
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
  }
  number(field: string): Locator {
    return this.page.getByRole('spinbutton', { name: field, exact: true });
  }

  async undo(times = 1): Promise<void> {
    for (let step = 0; step < times; step++) await this.page.keyboard.press('Control+z');
    await this.settled();
  }

  /** Waits until all that was asked for is on the screen and no work is left to do. The page says so itself. */
  async settled(): Promise<void> {
    await this.page.locator('[data-bench=settled]').waitFor({ timeout: 400_000 });
  }

  /** Says what it took from the takes to a landed shot. @throws where it took more actions than a person may be asked for */
  landed(): void {
    const seconds = (performance.now() - this.began) / 1000;
    console.info(`From its takes to a landed shot: ${this.actions} actions, ${seconds.toFixed(0)} s.`);
    if (this.actions > mostActions)
      throw new Error(`It took ${this.actions} actions; ${mostActions} are allowed.`);
  }

  finding(code: string): Locator {
    return this.page.locator(`[data-finding="${code}"]`);
  }

  /** Waits until something was found; what is fine may lie folded in its line. */
  async found(code: string): Promise<void> {
    await this.finding(code).first().waitFor({ state: 'attached' });
  }

  async save(button: string): Promise<Download> {
    const download = this.page.waitForEvent('download');
    await this.press(button);
    return download;
  }

  /** Renders the shot at Hand over and saves it. */
  async render(path: string): Promise<void> {
    await this.press('Render the shot');
    await this.page.locator('[data-render=done]').waitFor({ timeout: 400_000 });
    await (await this.save('Save')).saveAs(path);
  }

  /** What axe-core finds once nothing on the page moves any more. @param within what lies in front of a hidden page */
  async audit(within = 'document'): Promise<string[]> {
    await this.page.evaluate(
      `Promise.all(document.getAnimations().map((one) => one.finished.catch(() => undefined))).then(() => undefined)`,
    );
    if (!(await this.page.evaluate(`'axe' in globalThis`))) await this.page.evaluate(axe.source);
    return this.page.evaluate(`axe
      .run(${within}, { resultTypes: ['violations'], preload: false })
      .then(({ violations }) => violations.map(({ id, nodes }) => id + ': ' + nodes[0].html.slice(0, 160)))`);
  }

  /** By how many pixels the page is wider than its window. */
  overflow(): Promise<number> {
    return this.page.evaluate('document.documentElement.scrollWidth - innerWidth');
  }

  /** The records of the open project as the page keeps them. */
  records(): Promise<StoredRecord[]> {
    return this.rows('records') as Promise<StoredRecord[]>;
  }

  /** Rows of a table that belong to the open project, with typed arrays as plain lists. */
  rows(table: string): Promise<unknown[]> {
    return this.page.evaluate(`(async () => {
      const open = indexedDB.open('fickle-ribbon');
      await new Promise((done) => (open.onsuccess = done));
      const get = open.result.transaction('${table}').objectStore('${table}').getAll();
      await new Promise((done) => (get.onsuccess = done));
      open.result.close();
      const mine = get.result.filter((one) => location.search.includes(one.project));
      return JSON.parse(JSON.stringify(mine, (_, one) => (ArrayBuffer.isView(one) ? [...one] : one)));
    })()`);
  }

  /** The grid as the page keeps it. */
  async grid(): Promise<BeatGrid> {
    const songs = (await this.records()).filter(
      (one): one is StoredRecord & Song => one.kind === 'song' && one.alive,
    );
    return songs.sort((a, b) => b.created - a.created)[0].grid as BeatGrid;
  }

  /** Ends the visit; nothing may have gone wrong in the page meanwhile. */
  async close(): Promise<void> {
    await this.context.close();
    if (this.errors.length > 0) throw new Error(`The page went wrong: ${this.errors.join('; ')}`);
  }
}
