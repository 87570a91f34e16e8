import { describe, expect } from 'vitest';
import type { BenchPage } from './support/bench-page';
import { phone } from './support/bench-page';
import { demo } from './support/ffmpeg';
import { planned } from './support/film-set';
import { demoFilm } from './support/films';
import { test } from './support/test';

const menu = async (bench: BenchPage, name: string) => {
  await bench.page.locator('button[aria-haspopup=menu]').first().click();
  await bench.page.getByRole('menuitem', { name }).click();
  await bench.arrived();
};
const takes = async (bench: BenchPage) =>
  (await bench.records()).flatMap((one) => (one.kind === 'take' && one.alive ? [one.name] : []));

describe('room on the device', () => {
  test('runs out with a word, is shown, and is given back by what is deleted for good', async ({
    open,
    server,
  }) => {
    const bench = await open({ seed: await planned(), quota: 2_600_000, at: 'station=match' });
    const { page } = bench;
    const refused = page.getByText(
      /There is no room left for bench-(left|right)-\d\.mp4\. Free some under Space/,
    );
    // Brought in one after the other until one finds no room. What is said of it goes by itself, so it is looked for at once.
    let without = 0;
    for (const clip of ['bench-left-1', 'bench-left-2', 'bench-right-1', 'bench-right-2']) {
      const before = (await takes(bench)).length;
      await bench.bringIn(demo(`${clip}.mp4`));
      await expect
        .poll(async () => {
          without = await refused.count();
          return (await takes(bench)).length - before + without;
        })
        .toBeGreaterThan(0);
      if (without > 0) break;
      await bench.settled();
    }
    expect(without).toBeGreaterThan(0);
    const kept = await takes(bench);
    expect(kept).toContain('Bench left 1');
    await menu(bench, 'Space: what takes room');
    const room = page.getByTestId('room');
    await room.waitFor();
    expect(await room.innerText()).toMatch(/[\d.]+ MB are kept here; .* min of takes/s);
    await bench.giveRoom(server.url);
    expect(await bench.audit()).toEqual([]);

    await bench.press('Remove Bench left 1');
    const waits = page.getByTestId('removed');
    await waits.getByText('Bench left 1').waitFor();
    expect(await takes(bench)).not.toContain('Bench left 1');
    await bench.press('Bring back Bench left 1');
    await waits.getByText('Nothing waits here.').waitFor();
    expect(await takes(bench)).toContain('Bench left 1');
    await bench.press('Remove Bench left 1');
    await bench.press('Delete for good …: Bench left 1');
    await waits.getByText('Nothing brings it back then.').waitFor();
    await bench.press('Delete for good: Bench left 1');
    await waits.getByText('Nothing waits here.').waitFor();
    const media = (await bench.rows('media')) as { id: string; name: string }[];
    const files = (await page.evaluate(`(async () => {
      const open = indexedDB.open('fickle-ribbon');
      await new Promise((done) => (open.onsuccess = done));
      const get = open.result.transaction('originals').objectStore('originals').getAllKeys();
      await new Promise((done) => (get.onsuccess = done));
      open.result.close();
      return get.result;
    })()`)) as string[];
    const gone = media.find(({ name }) => name === 'bench-left-1.mp4');
    expect(files).not.toContain(gone?.id);
    // The same file is taken for it when it comes again.
    await bench.press('Back to the bench');
    await bench.bringIn(demo('bench-left-1.mp4'));
    await expect.poll(() => takes(bench)).toContain('Bench left 1');
  });

  test('says what uses a take before it is taken out, on a phone as well', async ({ open }) => {
    const bench = await open({ seed: await demoFilm(), keep: ['proxies'], size: phone, at: 'station=space' });
    const { page } = bench;
    await page.getByRole('heading', { name: 'What takes room on this device?' }).waitFor();
    expect(await bench.overflow()).toBe(0);
    expect(await bench.audit()).toEqual([]);
    await page.getByRole('button', { name: 'Remove Bench left 1' }).tap();
    const asks = page.getByRole('alertdialog');
    expect(await asks.innerText()).toMatch(/Take Bench left 1 out\?[\s\S]*It is used: .+/);
    await page.getByRole('button', { name: 'Keep it' }).tap();
    expect(await takes(bench)).toContain('Bench left 1');
    await page.getByRole('button', { name: 'Remove Bench left 1' }).tap();
    await page.getByRole('button', { name: 'Take it out' }).tap();
    await page.getByTestId('removed').getByText('Bench left 1').waitFor();
    await bench.undo();
    expect(await takes(bench)).toContain('Bench left 1');
  });

  test('is not filled by demos: a fresh one takes the place of the one before', async ({ open }) => {
    const bench = await open({ seed: await demoFilm() });
    const { page } = bench;
    const before = new URL(page.url()).searchParams.get('project');
    const copies = async (count: number) => {
      await menu(bench, 'Space: what takes room');
      await expect.poll(() => page.locator('[data-space^="Left-Hand Thread"]').count()).toBe(count);
      await bench.press('Back to the bench');
    };
    for (let round = 0; round < 2; round++) {
      await menu(bench, 'Open the demo afresh');
      await page.getByRole('alertdialog').getByText('Replace the demo?').waitFor();
      const now = new URL(page.url()).searchParams.get('project');
      await bench.press('Open it afresh');
      await expect.poll(() => new URL(page.url()).searchParams.get('project')).not.toBe(now);
      await page.locator('[data-ribbon]').first().waitFor();
      // One that is worked with, one that waits.
      await copies(2);
    }
    expect(new URL(page.url()).searchParams.get('project')).not.toBe(before);
  });
});

describe('names', () => {
  test('as long as they may be are cut short where they stand, and widen no page', async ({ open }) => {
    const bench = await open({ seed: await planned(), size: phone, at: 'station=plan&part=room' });
    const { page } = bench;
    const long = 'Workshop'.repeat(20);
    await page
      .getByRole('button', { name: /^Name of the setup: / })
      .first()
      .click();
    await page.keyboard.type(long);
    await page.getByTestId('longest').waitFor();
    expect(await page.getByTestId('longest').innerText()).toBe('At most 120 letters fit here.');
    await page.keyboard.press('Enter');
    await menu(bench, 'Rename this project');
    await page.getByLabel('Name of the project').fill(long.slice(0, 120));
    await page.keyboard.press('Enter');
    await page.getByRole('tab', { name: 'Moments' }).click();
    await page
      .getByRole('button', { name: /^Name of Meets/ })
      .first()
      .click();
    await page.keyboard.type(long);
    await page.keyboard.press('Enter');
    await bench.settled();
    for (const size of [phone, { width: 1280, height: 800 }]) {
      await page.setViewportSize(size);
      for (const station of ['Song', 'Plan', 'Shoot', 'Match', 'Build', 'Hand over'] as const) {
        await bench.go(station);
        await bench.settled();
        expect(await bench.overflow(), station).toBeLessThanOrEqual(0);
      }
      for (const part of ['Moments', 'Room', 'Numbers', 'Order', 'Take along']) {
        await bench.go('Plan');
        await page.getByRole('tab', { name: part }).click();
        expect(await bench.overflow(), part).toBeLessThanOrEqual(0);
      }
      await menu(bench, 'Space: what takes room');
      expect(await bench.overflow(), 'Space').toBeLessThanOrEqual(0);
      await bench.press('Back to the bench');
    }
  });
});
