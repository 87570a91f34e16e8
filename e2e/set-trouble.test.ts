import { readFileSync, utimesSync, writeFileSync } from 'node:fs';
import { describe, expect } from 'vitest';
import { BenchPage, desktop } from './support/bench-page';
import { openBrowser } from './support/browser';
import { demo, ffmpeg } from './support/ffmpeg';
import { heldBack } from '@/workers/recordings';
import { FilmSet } from './support/film-set';
import { test } from './support/test';

describe('trouble on the set', () => {
  test('judges clips of another camera within ten seconds, and refuses what is none', async ({
    open,
    file,
  }) => {
    const { page } = await FilmSet.open(open, { at: 'station=shoot&part=camera' });
    await page.getByTestId('quick-plate').setInputFiles(demo('bench-plate-start.mp4'));
    const check = async (clip: string) => {
      await page.getByTestId('quick-clip').setInputFiles(clip);
      await page.getByRole('button', { name: 'Looking …' }).waitFor();
      await page.getByRole('button', { name: 'Check a clip' }).waitFor();
      const verdict = page.getByTestId('verdict');
      const usable = page.locator('[data-usable]');
      return {
        usable: (await usable.count()) > 0 ? await usable.getAttribute('data-usable') : null,
        codes: await verdict
          .locator('[data-finding]')
          .evaluateAll((notes) => notes.map((note) => note.getAttribute('data-finding'))),
        text: await verdict.innerText(),
      };
    };
    ffmpeg('-i', demo('bench-left-1.mp4'), '-t', '4', '-c', 'copy', file('calm.mp4'));
    const good = await check(file('calm.mp4'));
    expect(good).toMatchObject({ usable: 'true', codes: ['watch.good'] });
    expect(good.text).toMatch(/in [\d.]+ s/);
    // Later on, her palm reaches over the join.
    const reaches = await check(demo('bench-left-1.mp4'));
    expect(reaches).toMatchObject({ usable: 'true', codes: ['watch.crossing', 'watch.good'] });
    expect(reaches.text).not.toContain('nobody crossed');
    expect(good.text).toContain('nobody crossed');
    // Planted: a bump of 2.4 px at 5.2 s, and a light that is 0.34 stop lower.
    expect(await check(demo('bench-left-2.mp4'))).toMatchObject({ usable: 'false', codes: ['watch.moved'] });
    expect(await check(demo('bench-right-2.mp4'))).toMatchObject({ usable: 'false', codes: ['watch.light'] });
    writeFileSync(file('no-clip.mp4'), 'not a clip at all');
    expect((await check(file('no-clip.mp4'))).text).toMatch(/No pictures of this file can be decoded here/);
  });

  test('says what to do where there is no camera', async ({ open }) => {
    const { page } = await FilmSet.open(open, { at: 'station=shoot&part=camera' });
    await page.getByRole('button', { name: 'Open the camera' }).click();
    expect(await page.locator('[data-problem="camera.none"]').innerText()).toMatch(/practice camera/);
  });

  test('matches files of another camera to log lines, two hours off', async ({ open, file }) => {
    const set = await FilmSet.open(open);
    const { page } = set;
    await set.choose('/first plate');
    await set.slate(2);
    await set.choose('/left');
    await set.slate(2);
    const logs = await set.logs();
    for (const [index, { started, length }] of logs.entries()) {
      const name = file(`camera-${index}.mp4`);
      // The camera runs as long as the take was logged, however long a busy machine made that, and a second more.
      const seconds = (length ?? 0) + 1;
      const plate = demo(index === 0 ? 'bench-plate-start.mp4' : 'bench-plate-end.mp4');
      ffmpeg('-stream_loop', '-1', '-i', plate, '-t', seconds.toFixed(2), '-an', '-c', 'copy', name);
      const end = started / 1000 + seconds + 7200;
      utimesSync(name, end, end);
    }
    await set.bench.bringIn(file('camera-0.mp4'), file('camera-1.mp4'));
    await page
      .getByTestId('match-files')
      .getByText(/2 files fit.*2 h/s)
      .waitFor();
    await set.bench.press('These are right');
    await set.bench.settled();
    expect((await set.logs()).every(({ take }) => take !== null)).toBe(true);
    const takes = (await set.records()).flatMap((one) =>
      one.kind === 'take' ? [`${one.name}: ${one.slot}`] : [],
    );
    expect(takes.sort()).toEqual(['Clean plate, take 1: plate', 'Left: first role, take 1: left']);
  });

  test('ends a take visibly when the room runs out, with its line closed, and makes a take of it once there is some', async ({
    open,
    server,
  }) => {
    const set = await FilmSet.open(open, { quota: 1_500_000 });
    const { page, bench } = set;
    await set.choose('/right');
    await set.camera();
    const record = page.getByRole('button', { name: /^Record take/ });
    await page
      .locator('[data-testid=short-of-room]', { hasText: /Room for 0 s, and this shot takes \d+ s/ })
      .waitFor();
    // Not even the log would fit: said instead of begun.
    await record.click();
    await page
      .getByText(/no room left on this device for a take/)
      .first()
      .waitFor();
    await expect.poll(() => set.logs()).toEqual([]);
    const taken = await page.evaluate(async () => (await navigator.storage.estimate()).usage ?? 0);
    await bench.giveRoom(server.url, taken + heldBack + 500_000);
    // The browser does not look at once how much it gives now: pressed until a take runs.
    const runs = async () => {
      if (await record.isVisible()) await record.click();
      return Number(
        (await page
          .locator('[data-ran]')
          .getAttribute('data-ran', { timeout: 500 })
          .catch(() => 0)) ?? 0,
      );
    };
    await expect.poll(runs, { timeout: 100_000, interval: 500 }).toBeGreaterThan(0);
    // It ends by itself, and the set is ready for the next one.
    await page
      .getByText(/no room left on this device: the take was ended/)
      .first()
      .waitFor();
    await record.waitFor();
    await expect.poll(async () => (await set.logs()).at(-1)?.length ?? null).toBeGreaterThan(0);
    await bench.giveRoom(server.url);
    await page.reload();
    await expect.poll(async () => (await set.logs()).at(-1)?.take, { timeout: 90_000 }).not.toBeNull();
  });

  test('keeps what was recorded when the browser throws the page out', async ({ open }) => {
    const set = await FilmSet.open(open);
    const { context, page } = set.bench;
    await set.choose('/right');
    await set.camera();
    await page.getByRole('button', { name: /^Record take/ }).click();
    await set.ran(4);
    const address = page.url();
    const session = await context.newCDPSession(page);
    const crashed = page.waitForEvent('crash');
    void session.send('Page.crash').catch(() => undefined);
    await crashed;
    const again = new FilmSet(await set.bench.another(address));
    await again.page.getByText('A recording was broken off').waitFor();
    await again.bench.settled();
    const last = (await again.logs()).at(-1);
    expect(last?.take).not.toBeNull();
    expect(last?.length).toBeGreaterThan(1.5);
  });

  test('refuses carried files that are damaged or no project, and changes nothing', async ({
    open,
    file,
  }) => {
    const own = await FilmSet.open(open, { size: desktop });
    await own.save(file('whole.zip'));
    const bytes = readFileSync(file('whole.zip'));
    writeFileSync(file('short.zip'), bytes.subarray(0, bytes.length - 60));
    writeFileSync(file('text.zip'), 'hello');
    const before = (await own.records()).length;
    for (const name of ['short.zip', 'text.zip']) {
      await own.page.getByTestId('carried').setInputFiles(file(name));
      await own.page
        .getByText(/breaks off, or is no zip/)
        .first()
        .waitFor();
    }
    await own.bench.settled();
    expect((await own.records()).length).toBe(before);
  });
});

describe('a real camera', () => {
  /** A phone whose browser has a camera, or has one that is not allowed. */
  const withCamera = async (url: string, more: string, work: (set: FilmSet) => Promise<void>) => {
    const browser = await openBrowser('--use-fake-device-for-media-stream', more);
    try {
      const set = await FilmSet.open((how) => BenchPage.open(browser, url, how));
      await work(set);
      await set.bench.close();
    } finally {
      await browser.close();
    }
  };

  test('shows and records it as a draft, and keeps the take when it is taken away', ({ server }) =>
    withCamera(server.url, '--use-fake-ui-for-media-stream', async (set) => {
      const { page } = set;
      await set.choose('/first plate');
      await set.part('Camera');
      await page.getByRole('button', { name: 'Open the camera' }).click();
      await page.getByTestId('draft').waitFor();
      await page.getByRole('button', { name: /^Record take/ }).click();
      await set.ran(3);
      // A camera that is unplugged ends its track.
      await page.evaluate(`(() => {
        const track = document.querySelector('video').srcObject.getVideoTracks()[0];
        track.stop();
        track.dispatchEvent(new Event('ended'));
      })()`);
      await page.locator('[data-problem="camera.gone"]').waitFor();
      await expect.poll(async () => (await set.logs())[0]?.take).not.toBeNull();
      const [log] = await set.logs();
      expect(log.draft).toBe(true);
      expect(log.length).toBeGreaterThan(2);
    }));

  test('says what to do where the camera is not allowed', ({ server }) =>
    withCamera(server.url, '--deny-permission-prompts', async (set) => {
      const { page } = set;
      await set.part('Camera');
      await page.getByRole('button', { name: 'Open the camera' }).click();
      expect(await page.locator('[data-problem="camera.refused"]').innerText()).toMatch(
        /Allow it for this page/,
      );
    }));
});
