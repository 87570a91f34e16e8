import type { Log } from '@/core/model/shoot-records';
import { createMoment } from '@/store/commands/moments';
import { addSetup } from '@/store/commands/plan';
import { laySeconds } from '@/store/commands/song';
import type { Store, StoredRecord } from '@/store/db';
import { phone, type BenchPage, type Opening } from './bench-page';
import { seeded, type Seed } from './seeds';

/** One clone of fifteen seconds on a ruler of seconds. */
export const ruled = async (store: Store, project: string): Promise<string> => {
  await laySeconds(store, project);
  return createMoment(store, project, 0, 15);
};

/** A film with one clone, to be filmed in one setup: plate, left, right, plate. */
export const planned = (): Promise<Seed> =>
  seeded(async (store, project) => {
    await ruled(store, project);
    await addSetup(store, project);
  });

type Part = 'Board' | 'Camera' | 'Practice' | 'Carry';

/** What people do on the set, said once. */
export class FilmSet {
  constructor(readonly bench: BenchPage) {}
  get page() {
    return this.bench.page;
  }

  /** The Shoot station of a planned film on a phone, with nothing filmed yet. */
  static async open(open: (how: Opening) => Promise<BenchPage>, how: Opening = {}): Promise<FilmSet> {
    const seed = how.seed ?? (await planned());
    const set = new FilmSet(await open({ size: phone, at: 'station=shoot', ...how, seed }));
    await set.bench.settled();
    return set;
  }

  async part(name: Part): Promise<void> {
    const button = this.page
      .getByRole('tablist', { name: 'Parts of this station' })
      .getByRole('tab', { name, exact: true });
    await button.click();
    await button.and(this.page.locator('[aria-selected=true]')).waitFor();
  }

  /** Chooses a shot on the board by the end of its id. */
  async choose(row: string): Promise<void> {
    await this.part('Board');
    const chosen = this.page.locator(`[data-row$="${row}"]`);
    await chosen.click();
    await chosen.and(this.page.locator('[aria-pressed=true]')).waitFor();
  }

  /** Goes to the camera and turns the practice camera on. */
  async camera(): Promise<void> {
    await this.part('Camera');
    await this.page.getByRole('button', { name: 'Practice camera' }).click();
    await this.page.getByRole('group', { name: 'What goes wrong' }).waitFor();
  }

  /** Records a take of the chosen shot that is at least so many seconds long. */
  async record(seconds: number, during?: () => Promise<void>): Promise<void> {
    await this.page.getByRole('button', { name: /^Record take/ }).click();
    await this.ran(seconds);
    await during?.();
    await this.page.getByRole('button', { name: /^Stop take/ }).click();
    await this.page.getByRole('button', { name: /^Record take/ }).waitFor();
  }

  /** Waits until the running take says that it is so long. */
  async ran(seconds: number): Promise<void> {
    const ran = this.page.locator('[data-ran]').first();
    await ran.waitFor();
    await this.page.waitForFunction(
      (least) => Number(document.querySelector('[data-ran]')?.getAttribute('data-ran')) >= least,
      seconds,
      { polling: 100 },
    );
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
    await this.page.locator(`[data-watch="${code}"]`).waitFor();
  }

  /** A take by hand, on the slate. */
  async slate(seconds: number): Promise<void> {
    await this.page.getByRole('button', { name: /^Slate take/ }).click();
    await this.page.getByRole('button', { name: /^Begin take/ }).click();
    await this.ran(seconds);
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
    const told = this.page.locator('[data-sonner-toast]', { hasText: /is merged|was here already/ }).first();
    await told.waitFor();
    return told.innerText();
  }
}
