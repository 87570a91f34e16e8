import { statSync } from 'node:fs';
import { describe, expect } from 'vitest';
import { desktop, phone, type BenchPage, type Station } from './support/bench-page';
import { probe } from './support/ffmpeg';
import { demoFilm } from './support/films';
import { fingerOf, keysOf, type Hands } from './support/hands';
import { test } from './support/test';

const sideways = { width: 844, height: 390 };

/** The clone from its song to its file, with one kind of hand. */
async function clone(bench: BenchPage, { press, write }: Hands, file: string): Promise<void> {
  const { page } = bench;
  const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true }).first();
  const station = async (name: Station) => {
    await press(page.getByRole('navigation', { name: 'Stations' }).getByRole('button', { name }));
    await bench.arrived();
  };
  // Song: one more moment where the needle stands, taken back again.
  const moments = () => page.locator('[data-moment]').count();
  await page.locator('[data-moment]').first().waitFor();
  const before = await moments();
  await press(button('Moment here'));
  await expect.poll(moments).toBe(before + 1);
  await press(button('Undo (Ctrl+Z)'));
  await expect.poll(moments).toBe(before);
  // Match: another pair, then the best one, used.
  await station('Match');
  await press(page.locator('[data-pair="Bench left 2 with Bench right 2"]'));
  await press(page.locator('[data-pair="Bench left 1 with Bench right 1"]'));
  await press(button(/^Use this pair/));
  await bench.arrived();
  // Build: looked at from one side, a frame on, the join softer.
  await page.getByTestId('sentence').waitFor();
  await press(button('Right'));
  await press(button('Joined'));
  await press(button('+ 1 frame'));
  await write(bench.number('Softness of the join'), '20');
  await expect.poll(() => bench.number('Softness of the join').innerText()).toBe('20 px');
  await bench.settled();
  await page.locator('[data-finding^="clone.join"]').waitFor({ state: 'attached' });
  // Hand over: a small file of it.
  await station('Hand over');
  await write(bench.number('Width'), '320');
  await write(bench.number('Height'), '180');
  await press(button('Render the shot'));
  await page.locator('[data-render=done]').waitFor({ timeout: 120_000 });
  const saved = page.waitForEvent('download');
  await press(button('Save'));
  await (await saved).saveAs(file);
  expect(statSync(file).size).toBeGreaterThan(10_000);
  expect(probe(file, 'v:0')).toMatchObject({ width: 320, height: 180 });
}

describe('the whole clone job', () => {
  for (const [held, size] of [
    ['on a desk', desktop],
    ['on a phone', phone],
    ['on a phone held sideways', sideways],
  ] as const) {
    test(`${held}, with keys alone`, async ({ open, file }) => {
      const bench = await open({
        seed: demoFilm(),
        keep: ['proxies', 'originals', 'stills'],
        size,
        touch: false,
        at: 'station=song',
      });
      await clone(bench, keysOf(bench), file('keys.mov'));
    });

    test(`${held}, with a finger alone`, async ({ open, file }) => {
      const bench = await open({
        seed: demoFilm(),
        keep: ['proxies', 'originals', 'stills'],
        size,
        touch: true,
        at: 'station=song',
      });
      await clone(bench, fingerOf(bench), file('finger.mov'));
    });
  }
});
