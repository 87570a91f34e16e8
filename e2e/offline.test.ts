import AxeBuilder from '@axe-core/playwright';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { BenchPage } from './support/bench-page';
import { openBrowser } from './support/browser';
import { FilmSet } from './support/film-set';
import { demo } from './support/ffmpeg';
import { startServer } from './support/server';

describe('with the network cut after the first visit', () => {
  let browser: Browser;
  let bench: BenchPage;

  beforeAll(async () => {
    const server = await startServer(4393);
    browser = await openBrowser();
    bench = await BenchPage.open(browser, server.url, { width: 390, height: 844 });
    await bench.page.evaluate('navigator.serviceWorker.ready.then(() => undefined)');
    await bench.page.waitForFunction(() => navigator.serviceWorker.controller !== null);
    await server.stop();
    await bench.page.reload();
    await bench.page.locator('[data-ribbon]').first().waitFor({ timeout: 60_000 });
  });
  afterAll(async () => {
    await bench?.close();
    await browser?.close();
  });

  it('does the whole job on a phone-sized screen, after a reload too', async () => {
    const { page } = bench;
    await bench.ownProject();
    await bench.bringIn(
      demo('left-hand-thread.opus'),
      demo('bench-plate-start.mp4'),
      demo('bench-left-1.mp4'),
      demo('bench-right-1.mp4'),
    );
    await page.getByText(/beats, sure/).waitFor({ timeout: 300_000 });
    await bench.settled();
    await page.reload();
    await bench.go('Match');
    await page.getByRole('button', { name: 'Use this pair' }).click();
    await bench.page.locator('[data-finding^="clone.join"]').waitFor({ timeout: 300_000 });
    await bench.go('Deliver');
    await page.getByRole('button', { name: 'Render the shot' }).click();
    await page.locator('[data-render=done]').waitFor({ timeout: 400_000 });
    expect((await bench.save('Save')).suggestedFilename()).toMatch(/^meets-herself-.*\.mov$/);
  });

  it('watches over a set with the server gone', async () => {
    const { page } = bench;
    await bench.go('Plan');
    await page.getByRole('button', { name: 'Room', exact: true }).click();
    await page.getByRole('button', { name: 'Add a setup' }).click();
    await page.getByRole('group', { name: 'The room from above' }).waitFor();
    await bench.go('Shoot');
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
  });

  it('is free of what axe-core finds, by day and by night', async () => {
    for (const theme of ['day', 'night']) {
      for (const station of ['Song', 'Match', 'Build', 'Deliver'] as const) {
        await bench.go(station);
        await bench.page.waitForTimeout(400);
        const { violations } = await new AxeBuilder({ page: bench.page }).analyze();
        expect(
          violations.map((one) => `${theme} ${station}: ${one.id} ${one.nodes[0].html.slice(0, 160)}`),
        ).toEqual([]);
      }
      await bench.page.keyboard.press('n');
    }
  });
});
