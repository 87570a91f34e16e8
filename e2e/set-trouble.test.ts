import { copyFileSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openBrowser } from './support/browser';
import { demo } from './support/ffmpeg';
import { FilmSet } from './support/film-set';
import { startServer } from './support/server';

const folder = mkdtempSync(join(tmpdir(), 'ribbon-trouble-'));
const file = (name: string) => join(folder, name);
let server: Awaited<ReturnType<typeof startServer>>;
beforeAll(async () => {
  server = await startServer(4389);
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true });
});

describe('trouble on the set', () => {
  let browser: Browser;
  let set: FilmSet;
  beforeAll(async () => {
    browser = await openBrowser();
    set = await FilmSet.planned(browser, server.url);
  });
  afterAll(async () => {
    await set?.bench.close();
    await browser?.close();
  });

  it('judges clips of another camera within ten seconds, and refuses what is none', async () => {
    const { page } = set;
    await set.part('Camera');
    await page.getByTestId('quick-plate').setInputFiles(demo('bench-plate-start.mp4'));
    const check = async (clip: string) => {
      await page.getByTestId('quick-clip').setInputFiles(clip);
      await page.getByRole('button', { name: 'Looking …' }).waitFor();
      await page.getByRole('button', { name: 'Check a clip' }).waitFor({ timeout: 60_000 });
      const found = page.getByTestId('verdict').locator('[data-finding]');
      return {
        usable: await page
          .locator('[data-usable]')
          .getAttribute('data-usable', { timeout: 100 })
          .catch(() => null),
        codes: await found.evaluateAll((notes) => notes.map((note) => note.getAttribute('data-finding'))),
        text: await page.getByTestId('verdict').innerText(),
      };
    };
    const good = await check(demo('bench-left-1.mp4'));
    expect(good).toMatchObject({ usable: 'true', codes: ['watch.good'] });
    expect(Number(/in ([\d.]+) s/.exec(good.text)?.[1])).toBeLessThan(10);
    // Planted: a bump of 2.4 px at 5.2 s, and a light that is 0.34 stop lower.
    expect(await check(demo('bench-left-2.mp4'))).toMatchObject({ usable: 'false', codes: ['watch.moved'] });
    expect(await check(demo('bench-right-2.mp4'))).toMatchObject({ usable: 'false', codes: ['watch.light'] });
    writeFileSync(file('no-clip.mp4'), 'not a clip at all');
    expect((await check(file('no-clip.mp4'))).text).toMatch(/No pictures of this file can be decoded here/);
  });

  it('says what to do where there is no camera', async () => {
    const { page } = set;
    await page.getByRole('button', { name: 'Open the camera' }).click();
    expect(await page.locator('[data-problem="camera.none"]').innerText()).toMatch(/practice camera/);
  });

  it('matches files of another camera to log lines, two hours off', async () => {
    const { page } = set;
    await set.choose('/first plate');
    await set.slate(2.5);
    await set.choose('/left');
    await set.slate(2.5);
    const logs = await set.logs();
    for (const [index, { started, length }] of logs.entries()) {
      const name = file(`camera-${index}.mp4`);
      copyFileSync(demo(index === 0 ? 'bench-plate-start.mp4' : 'bench-plate-end.mp4'), name);
      const end = started / 1000 + (length ?? 0) + 7200;
      utimesSync(name, end, end);
    }
    await set.bench.bringIn(file('camera-0.mp4'), file('camera-1.mp4'));
    const offer = page.getByTestId('match-files');
    await expect
      .poll(() => offer.innerText().catch(() => ''), { timeout: 60_000 })
      .toMatch(/2 files fit.*2 h/s);
    await page.getByRole('button', { name: 'These are right' }).click();
    await expect.poll(async () => (await set.logs()).every(({ take }) => take !== null)).toBe(true);
    const takes = (await set.records()).flatMap((one) =>
      one.kind === 'take' ? [`${one.name}: ${one.role}`] : [],
    );
    expect(takes.sort()).toEqual(['Clean plate, take 1: plate', 'Left: first role, take 1: left']);
  });

  it('keeps what was recorded when the room runs out, and makes a take of it once there is some', async () => {
    const { page, bench } = set;
    await bench.settled();
    const session = await bench.context.newCDPSession(page);
    const origin = new URL(server.url).origin;
    await set.choose('/right');
    await set.camera();
    const used = await page.evaluate('navigator.storage.estimate().then(({ usage }) => usage)');
    await session.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: Number(used) + 150_000 });
    await page.getByRole('button', { name: /^Record take/ }).click();
    await page
      .getByText(/no room left on this device/i)
      .first()
      .waitFor({ timeout: 60_000 });
    await session.send('Storage.overrideQuotaForOrigin', { origin });
    const before = (await set.logs()).at(-1);
    expect(before?.take).toBeNull();
    await page.reload();
    await expect.poll(async () => (await set.logs()).at(-1)?.take, { timeout: 90_000 }).not.toBeNull();
  });

  it('keeps what was recorded when the browser throws the page out', async () => {
    const { context, page } = set.bench;
    await set.choose('/right');
    await set.camera();
    await page.getByRole('button', { name: /^Record take/ }).click();
    await page.getByRole('button', { name: /^Stop take/ }).waitFor();
    await page.waitForTimeout(4000);
    const address = page.url();
    const session = await context.newCDPSession(page);
    const crashed = page.waitForEvent('crash');
    void session.send('Page.crash').catch(() => undefined);
    await crashed;
    const again = new FilmSet(await set.bench.another(address));
    await again.page.getByText('A recording was broken off').waitFor({ timeout: 60_000 });
    const last = (await again.logs()).at(-1);
    expect(last?.take).not.toBeNull();
    expect(last?.length).toBeGreaterThan(1.5);
  });

  it('refuses carried files that are damaged, newer or no project, and changes nothing', async () => {
    const own = await FilmSet.planned(browser, server.url, { width: 1280, height: 800 });
    await own.save(file('whole.zip'));
    const bytes = readFileSync(file('whole.zip'));
    writeFileSync(file('short.zip'), bytes.subarray(0, bytes.length - 60));
    writeFileSync(file('text.zip'), 'hello');
    const before = (await own.records()).length;
    for (const [name, says] of [
      ['short.zip', /breaks off, or is no zip/],
      ['text.zip', /breaks off, or is no zip/],
    ] as const) {
      await own.page.getByTestId('carried').setInputFiles(file(name));
      await own.page.getByText(says).first().waitFor();
    }
    expect((await own.records()).length).toBe(before);
    await own.bench.close();
  });
});

describe('a real camera', () => {
  it('shows and records it as a draft, and keeps the take when it is taken away', async () => {
    const browser = await openBrowser('--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream');
    const set = await FilmSet.planned(browser, server.url);
    const { page } = set;
    await set.choose('/first plate');
    await set.part('Camera');
    await page.getByRole('button', { name: 'Open the camera' }).click();
    await page.getByTestId('draft').waitFor({ timeout: 30_000 });
    await page.getByRole('button', { name: /^Record take/ }).click();
    await page.getByRole('button', { name: /^Stop take/ }).waitFor();
    await page.waitForTimeout(3000);
    // A camera that is unplugged ends its track.
    await page.evaluate(`(() => {
      const track = document.querySelector('video').srcObject.getVideoTracks()[0];
      track.stop();
      track.dispatchEvent(new Event('ended'));
    })()`);
    await page.locator('[data-problem="camera.gone"]').waitFor();
    await expect.poll(async () => (await set.logs())[0]?.take, { timeout: 60_000 }).not.toBeNull();
    const [log] = await set.logs();
    expect(log.draft).toBe(true);
    expect(log.length).toBeGreaterThan(2);
    await set.bench.close();
    await browser.close();
  });

  it('says what to do where the camera is not allowed', async () => {
    const browser = await openBrowser('--use-fake-device-for-media-stream', '--deny-permission-prompts');
    const set = await FilmSet.planned(browser, server.url);
    await set.part('Camera');
    await set.page.getByRole('button', { name: 'Open the camera' }).click();
    expect(await set.page.locator('[data-problem="camera.refused"]').innerText()).toMatch(
      /Allow it for this page/,
    );
    await set.bench.close();
    await browser.close();
  });
});
