import type { Browser } from 'playwright-core';
import type { Log } from '@/core/model/shoot-records';
import type { StoredRecord } from '@/store/db';
import { BenchPage } from './bench-page';

export const phone = { width: 390, height: 844 };

/** What people do on the set, said once. */
export class FilmSet {
  constructor(readonly bench: BenchPage) {}
  get page() {
    return this.bench.page;
  }

  /** A project of one's own with one clone, filmed in one setup: plate, left, right, plate. */
  static async planned(browser: Browser, url: string, size = phone): Promise<FilmSet> {
    const bench = await BenchPage.open(browser, url, size, size === phone);
    const { page } = bench;
    const press = (name: string) => page.getByRole('button', { name, exact: true }).first().click();
    await bench.ownProject();
    await press('Work without a song');
    await press('Moment here');
    await bench.go('Plan');
    await press('Room');
    await press('Add a setup');
    await page.getByRole('group', { name: 'The room from above' }).waitFor();
    await bench.go('Shoot');
    await page.locator('[data-row]').nth(3).waitFor();
    return new FilmSet(bench);
  }

  async part(name: 'Board' | 'Camera' | 'Practice' | 'Carry'): Promise<void> {
    const parts = this.page.getByRole('group', { name: 'Parts of this station' });
    await parts.getByRole('button', { name, exact: true }).click();
  }

  /** Chooses a shot on the board by the end of its id. */
  async choose(row: string): Promise<void> {
    await this.part('Board');
    await this.page.locator(`[data-row$="${row}"]`).click();
  }

  /** Goes to the camera and turns the practice camera on. */
  async camera(): Promise<void> {
    await this.part('Camera');
    await this.page.getByRole('button', { name: 'Practice camera' }).click();
    await this.page.waitForFunction(() => (document.querySelector('video')?.videoWidth ?? 0) > 0);
    // The first pictures of the practice set take a moment to be drawn.
    await this.page.waitForTimeout(1500);
  }

  /** Records a take of the chosen shot. */
  async record(seconds: number, during?: () => Promise<void>): Promise<void> {
    await this.page.getByRole('button', { name: /^Record take/ }).click();
    await this.page.getByRole('button', { name: /^Stop take/ }).waitFor();
    await this.page.waitForTimeout(seconds * 1000);
    await during?.();
    await this.page.getByRole('button', { name: /^Stop take/ }).click();
    await this.page.getByRole('button', { name: /^Record take/ }).waitFor({ timeout: 60_000 });
  }

  async rate(rating: 'Good' | 'Maybe' | 'No'): Promise<void> {
    const button = this.page.getByRole('button', { name: new RegExp(`^Take \\d+: ${rating}$`) });
    await button.click();
    await button.and(this.page.locator('[aria-pressed=true]')).waitFor();
  }

  /** A switch of the practice camera, on or off. */
  async fault(name: string): Promise<void> {
    const faults = this.page.getByRole('group', { name: 'What goes wrong' });
    await faults.getByRole('button', { name, exact: true }).click();
  }

  /** Waits until the watch says so. */
  async told(code: string): Promise<void> {
    await this.page.locator(`[data-watch="${code}"]`).waitFor({ timeout: 60_000 });
  }

  /** A take by hand, on the slate. */
  async slate(seconds: number): Promise<void> {
    await this.page.getByRole('button', { name: /^Slate take/ }).click();
    await this.page.getByRole('button', { name: /^Begin take/ }).click({ timeout: 60_000 });
    await this.page.waitForTimeout(seconds * 1000);
    await this.page.getByRole('button', { name: /^Stop/ }).click();
    await this.page.getByRole('button', { name: /^Slate take/ }).waitFor();
  }

  records(): Promise<StoredRecord[]> {
    return this.bench.records();
  }

  async logs(): Promise<Log[]> {
    const records = await this.records();
    const logs = records.filter((one): one is StoredRecord & Log => one.kind === 'log' && one.alive);
    return logs.sort((a, b) => a.started - b.started);
  }

  /** Saves the whole project to a file. */
  async save(path: string): Promise<void> {
    await this.part('Carry');
    await (await this.bench.save('Save the whole project')).saveAs(path);
  }

  /** Brings a carried file in. @returns what the bench said of it */
  async bring(path: string): Promise<string> {
    await this.bench.go('Shoot');
    await this.part('Carry');
    await this.page.getByTestId('carried').setInputFiles(path);
    const toast = this.page.locator('[data-sonner-toast]').first();
    await toast.waitFor({ timeout: 60_000 });
    return toast.innerText();
  }
}
