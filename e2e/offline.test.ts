import { describe, expect } from 'vitest';
import { BenchPage, phone } from './support/bench-page';
import { demo, ffmpeg } from './support/ffmpeg';
import { FilmSet, planned } from './support/film-set';
import { songFilm } from './support/films';
import { type Seed } from './support/seeds';
import { startServer } from './support/server';
import { test } from './support/test';

/** A phone that has visited once, and whose network is cut since; the server is gone. */
async function cutOff(
  browser: Parameters<typeof BenchPage.open>[0],
  seed: (url: string) => Promise<Seed>,
  at: string,
) {
  const server = await startServer();
  const bench = await BenchPage.open(browser, server.url, {
    size: phone,
    seed: await seed(server.url),
    keep: ['proxies', 'originals'],
    offline: true,
    at,
  });
  await bench.page.evaluate('navigator.serviceWorker.ready.then(() => undefined)');
  await bench.page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await server.stop();
  await bench.page.reload();
  await bench.arrived();
  return bench;
}

describe('with the network cut after the first visit', () => {
  test('the whole job is done on a phone-sized screen, after a reload too', async ({ browser, file }) => {
    const song = songFilm();
    const bench = await cutOff(browser, async () => song, 'station=match');
    const { page } = bench;
    const names = ['bench-plate-start.mp4', 'bench-left-1.mp4', 'bench-right-1.mp4'];
    for (const name of names)
      ffmpeg('-i', demo(name), '-an', '-vf', 'scale=640:360', '-crf', '16', file(name));
    await bench.bringIn(...names.map(file));
    await page.locator('[data-take="Bench right 1"]').waitFor();
    await bench.settled();
    await page.reload();
    await page.getByRole('button', { name: 'Use this pair' }).click();
    await page.locator('[data-finding^="clone.join"]').waitFor({ state: 'attached', timeout: 300_000 });
    await bench.go('Hand over');
    await bench.press('Render the shot');
    await page.locator('[data-render=done]').waitFor({ timeout: 400_000 });
    expect((await bench.save('Save')).suggestedFilename()).toMatch(/^meets-a-copy-.*\.mov$/);
    for (const theme of ['day', 'night']) {
      for (const station of ['Song', 'Match', 'Build', 'Hand over'] as const) {
        await bench.go(station);
        expect(await bench.audit(), `${theme} ${station}`).toEqual([]);
      }
      await page.keyboard.press('n');
    }
    await bench.close();
  });

  test('a set is watched over and recorded', async ({ browser }) => {
    const bench = await cutOff(browser, planned, 'station=shoot');
    const { page } = bench;
    const set = new FilmSet(bench);
    await set.part('Carry');
    await page.locator('[data-offline=ready]').waitFor();
    // What a browser asks of an application before it offers to install it.
    const told = (await page.evaluate(`fetch('/manifest.webmanifest').then((answer) => answer.json())`)) as {
      display: string;
      icons: { src: string; sizes: string }[];
    };
    expect(told.display).toBe('standalone');
    expect(told.icons.map(({ sizes }) => sizes)).toEqual(expect.arrayContaining(['192x192', '512x512']));
    for (const { src } of told.icons)
      expect(await page.evaluate(`fetch('${src}').then(({ ok }) => ok)`)).toBe(true);
    await set.choose('/first plate');
    await set.camera();
    await set.record(2);
    await set.told('fine');
    expect((await set.logs()).map(({ take }) => take !== null)).toEqual([true]);
    await bench.close();
  });
});
