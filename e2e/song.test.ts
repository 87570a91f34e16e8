import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { parseMidi } from 'midi-file';
import type { Browser } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { songBeats } from '../demo/song/score';
import { BenchPage } from './support/bench-page';
import { openBrowser } from './support/browser';
import { demo, ffmpeg } from './support/ffmpeg';
import { startServer } from './support/server';

const folder = mkdtempSync(join(tmpdir(), 'ribbon-song-'));
const file = (name: string) => join(folder, name);
const truth = songBeats();

/** The share of the score's beats that a grid meets within 30 ms. */
const met = ({ beats }: BeatGrid) =>
  truth.filter((time) => beats.some((beat) => Math.abs(beat - time) < 0.03)).length / truth.length;

describe('the song as a ruler', () => {
  let browser: Browser;
  let server: Awaited<ReturnType<typeof startServer>>;
  let bench: BenchPage;

  beforeAll(async () => {
    server = await startServer(4394);
    browser = await openBrowser();
    bench = await BenchPage.open(browser, server.url);
    await bench.ownProject();
    await bench.bringIn(demo('left-hand-thread.opus'));
    await bench.page.getByText(/beats, sure/).waitFor({ timeout: 180_000 });
  });
  afterAll(async () => {
    await bench?.close();
    await browser?.close();
    await server?.stop();
  });

  const press = (name: string) => bench.page.getByRole('button', { name, exact: true }).click();
  const moments = () => bench.page.locator('[data-moment]');
  const labelOf = (index: number) => moments().nth(index).getAttribute('aria-label');

  it('tints the ribbon with the sections that the score has', async () => {
    await bench.page.locator('[data-section]').first().waitFor({ timeout: 30_000 });
    const begins = await bench.page.getByRole('spinbutton', { name: /begins in bar/ }).allInnerTexts();
    expect(begins).toEqual(['bar 1', 'bar 5', 'bar 13', 'bar 19', 'bar 23']);
  });

  it('makes, moves, stretches, copies and removes moments with the keyboard alone', async () => {
    const { page } = bench;
    await page.locator('[data-ribbon]').focus();
    for (let beat = 0; beat < 9; beat++) await page.keyboard.press('ArrowRight');
    await page.getByRole('button', { name: 'Moment here' }).focus();
    await page.keyboard.press('Enter');
    await moments().first().focus();
    const first = await labelOf(0);
    expect(first).toMatch(/bar 3, beat 1 to bar 6, beat 1/);
    await page.keyboard.press('ArrowRight');
    await expect.poll(() => labelOf(0)).toMatch(/bar 3, beat 2 to bar 6, beat 2/);
    await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => labelOf(0)).toMatch(/bar 3, beat 2 to bar 6, beat 3/);
    await page.keyboard.press('c');
    await expect.poll(() => moments().count()).toBe(2);
    expect(await labelOf(1)).toMatch(/bar 6, beat 3 to/);
    await moments().nth(1).focus();
    await page.keyboard.press('Delete');
    await page.getByRole('button', { name: 'Remove', exact: true }).waitFor();
    await page.keyboard.press('Enter');
    await expect.poll(() => moments().count()).toBe(1);
  });

  it('sets a grid right that was found twice too fast and half a beat off, with three actions', async () => {
    const { page } = bench;
    const before = await bench.grid();
    // The wrong grid comes as a file would bring it.
    const period = (index: number) =>
      (before.beats[index + 1] ?? before.beats[index] + 0.575) - before.beats[index];
    const wrong = before.beats.flatMap((beat, index) => [
      beat + period(index) / 4,
      beat + (period(index) * 3) / 4,
    ]);
    writeFileSync(file('wrong.csv'), wrong.map((time) => time.toFixed(6)).join('\n'));
    await page.getByTestId('beats-file').setInputFiles(file('wrong.csv'));
    await expect.poll(async () => (await bench.grid()).beats.length).toBe(wrong.length);
    expect(met(await bench.grid())).toBeLessThan(0.1);
    // A moment made on the wrong beats: a quarter of a true beat late, like the beats it is pinned to.
    await page.locator('[data-ribbon]').focus();
    await press('Moment here');
    await expect.poll(() => moments().count()).toBe(2);
    // A person hears where a bar begins, and puts the needle there.
    const needle = () => page.locator('[data-needle]').getAttribute('data-needle').then(Number);
    await press('Half a beat on');
    await expect.poll(async () => (await bench.grid()).beats[0]).not.toBe(wrong[0]);
    await page.locator('[data-ribbon]').focus();
    const bar = truth[4];
    for (let step = 0, at = await needle(); step < 60 && Math.abs(at - bar) > 0.05; step++) {
      await page.keyboard.press(at > bar ? 'ArrowLeft' : 'ArrowRight');
      // A needle that is read before it has moved would be sent on once too often.
      await expect.poll(needle).not.toBe(at);
      at = await needle();
    }
    await press('First of bar at needle');
    await press('Half');
    await expect.poll(async () => met(await bench.grid())).toBeGreaterThan(0.95);
    const right = await bench.grid();
    const bars = right.beats.filter((_, index) => index % right.beatsPerBar === right.firstDownbeat);
    expect(Math.min(...bars.map((time) => Math.abs(time - bar)))).toBeLessThan(0.03);
    const labels = await Promise.all([labelOf(0), labelOf(1)]);
    expect(
      labels.filter((label) => /bar \d+, beat [1-4](\.5)? to bar \d+, beat [1-4](\.5)?,/.test(label ?? '')),
    ).toHaveLength(1);
    for (let step = 0; step < 5; step++) await page.keyboard.press('Control+z');
    await expect.poll(() => bench.grid()).toEqual(before);
    await expect.poll(() => moments().count()).toBe(1);
    expect(await labelOf(0)).toMatch(/bar 3, beat 2 to bar 6, beat 3/);
  });

  it('writes beats that foreign readers read alike, and reads them back', async () => {
    const { page } = bench;
    const grid = await bench.grid();
    const saved = {
      'beats.mid': 'MIDI tempo map',
      'beats.csv': 'Beats (CSV)',
      'beats.vtt': 'Beats (WebVTT)',
      'chapters.vtt': 'Chapters (WebVTT)',
      'cues.wav': 'WAV with cues',
    };
    for (const [name, button] of Object.entries(saved)) await (await bench.save(button)).saveAs(file(name));
    const midi = parseMidi(readFileSync(file('beats.mid')));
    const tempos = midi.tracks[0].filter((event) => event.type === 'setTempo');
    expect(tempos.length).toBeGreaterThanOrEqual(grid.beats.length - 1);
    const probed = execFileSync('ffprobe', [
      '-v',
      'error',
      '-show_entries',
      'format=duration',
      '-of',
      'csv=p=0',
      file('cues.wav'),
    ]);
    expect(Number(probed)).toBeGreaterThan(grid.beats[grid.beats.length - 1] - 1);
    const cues = await trackCues(readFileSync(file('beats.vtt'), 'utf8'));
    expect(cues).toHaveLength(grid.beats.length);
    cues.forEach((start, index) => expect(Math.abs(start - grid.beats[index])).toBeLessThan(0.00051));
    expect(await trackCues(readFileSync(file('chapters.vtt'), 'utf8'))).toHaveLength(5);
    for (const name of ['beats.mid', 'beats.csv', 'beats.vtt', 'cues.wav']) {
      await press('Double');
      await expect.poll(async () => (await bench.grid()).beats.length).toBeGreaterThan(grid.beats.length);
      await page.getByTestId('beats-file').setInputFiles(file(name));
      await expect.poll(async () => (await bench.grid()).beats.length).toBe(grid.beats.length);
      const back = await bench.grid();
      back.beats.forEach((beat, index) => expect(Math.abs(beat - grid.beats[index])).toBeLessThan(0.00051));
      expect([back.beatsPerBar, back.firstDownbeat]).toEqual([grid.beatsPerBar, grid.firstDownbeat]);
    }
  });

  it('refuses files that are none, says why, and keeps the beats', async () => {
    const { page } = bench;
    const before = await bench.grid();
    writeFileSync(file('words.csv'), 'seconds\n0.5\nsoon\n');
    writeFileSync(file('broken.mid'), readFileSync(file('beats.mid')).subarray(0, 60));
    writeFileSync(file('late.csv'), '900\n901\n902\n');
    writeFileSync(file('plain.vtt'), 'no captions');
    for (const [name, words] of [
      ['words.csv', /Line 3 says “soon”/],
      ['broken.mid', /no Standard MIDI File/],
      ['late.csv', /after the end of this song/],
      ['plain.vtt', /“no captions”|no WebVTT|says/],
    ] as const) {
      await page.getByTestId('beats-file').setInputFiles(file(name));
      await page.getByText(words).first().waitFor({ timeout: 10_000 });
    }
    writeFileSync(file('mended.csv'), '-1\n3\n1\n1.001\n2\n4\n');
    await page.getByTestId('beats-file').setInputFiles(file('mended.csv'));
    await page.getByText(/1 out of order were sorted, 1 doubled were left out, 1 before the song/).waitFor();
    await page.keyboard.press('Control+z');
    await expect.poll(() => bench.grid()).toEqual(before);
  });

  it('lays words over the ribbon, and a click track for the set', async () => {
    const { page } = bench;
    writeFileSync(file('words.lrc'), '[00:02.50]Turn it left\n[00:05.00]Hold the wheel\n');
    await bench.bringIn(file('words.lrc'));
    await expect
      .poll(() => page.locator('[data-cue]').allTextContents())
      .toEqual(['Turn it left', 'Hold the wheel']);
    await page.getByRole('combobox', { name: 'Speed on the set' }).click();
    await page.getByRole('option', { name: /250/ }).click();
    await (await bench.save('Click track (WAV)')).saveAs(file('click.wav'));
    const length = Number(
      execFileSync('ffprobe', [
        '-v',
        'error',
        '-show_entries',
        'format=duration',
        '-of',
        'csv=p=0',
        file('click.wav'),
      ]),
    );
    const beat = 60 / 104.3 / 2.5;
    // Four counts of two beats, since a beat at this speed is too short to be spoken; then 62 s at 250 %.
    expect(length).toBeGreaterThan(8 * beat + 24);
    expect(length).toBeLessThan(8 * beat + 25.5);
    await press('Click');
    await page.getByRole('button', { name: 'Click', pressed: true }).waitFor();
    await press('Click');
  });

  it('locks a passage and finds the rest again', async () => {
    const { page } = bench;
    const before = await bench.grid();
    await page.getByRole('button', { name: /^Lock bars/ }).click();
    await press('Find the rest again');
    await bench.settled();
    await expect.poll(async () => met(await bench.grid()), { timeout: 60_000 }).toBeGreaterThan(0.9);
    const after = await bench.grid();
    const inside = before.beats.slice(10, 18);
    for (const beat of inside)
      expect(Math.min(...after.beats.map((one) => Math.abs(one - beat)))).toBeLessThan(1e-6);
    await press('Unlock all');
  });

  it('plays slower, over and over, and looks closely', async () => {
    const { page } = bench;
    await page.getByRole('combobox', { name: 'Speed', exact: true }).click();
    await page.getByRole('option', { name: '50 %' }).click();
    await press('Over and over');
    await press('Play');
    await page.getByRole('button', { name: 'Pause' }).waitFor();
    await press('Pause');
    await press('Look closely');
    expect(await page.locator('[data-moment]').count()).toBe(1);
    await press('Look closely');
    await press('Beats and frames');
    await page.getByRole('cell', { name: '59.940' }).waitFor();
    expect(await page.getByTestId('frames').getByRole('row').count()).toBeGreaterThan(100);
    await press('Beats and frames');
  });

  it('works by touch on a phone, by day and by night, and axe finds nothing', async () => {
    const phone = await BenchPage.open(browser, server.url, { width: 390, height: 844 }, true);
    const { page } = phone;
    await phone.ownProject();
    await phone.bringIn(demo('left-hand-thread.opus'));
    await page.getByText(/beats, sure/).waitFor({ timeout: 180_000 });
    const touch = await phone.context.newCDPSession(page);
    const finger = (type: string, x: number, y: number) =>
      touch.send('Input.dispatchTouchEvent', {
        type: type as 'touchStart',
        touchPoints: type === 'touchEnd' ? [] : [{ x, y }],
      });
    const ribbon = await page.locator('[data-ribbon]').boundingBox();
    if (!ribbon) throw new Error('There is no ribbon.');
    const [x, y] = [ribbon.x + 60, ribbon.y + 55];
    // Held for a moment, then dragged over a bar.
    await finger('touchStart', x, y);
    await page.waitForTimeout(600);
    for (let step = 1; step <= 10; step++) await finger('touchMove', x + step * 20, y);
    await finger('touchEnd', 0, 0);
    await expect.poll(() => page.locator('[data-moment]').count(), { timeout: 20_000 }).toBe(1);
    for (const size of [
      { width: 390, height: 844 },
      { width: 1280, height: 800 },
    ]) {
      await page.setViewportSize(size);
      for (const view of ['ribbon', 'frames']) {
        for (let theme = 0; theme < 2; theme++) {
          await page.evaluate('document.activeElement?.blur()');
          await page.keyboard.press('n');
          await page.waitForTimeout(300);
          const { violations } = await new AxeBuilder({ page }).analyze();
          expect(
            violations.map(({ id, nodes }) => [id, nodes[0].html]),
            `${size.width} ${view}`,
          ).toEqual([]);
        }
        await page.getByRole('button', { name: 'Beats and frames' }).click();
      }
    }
    await phone.close();
  });

  it('works without a song, and keeps every moment where it is when one is laid under', async () => {
    const { page } = bench;
    await bench.ownProject();
    await press('Work without a song');
    await page.getByText('No song: a ruler of seconds').waitFor();
    await press('Moment here');
    await expect.poll(() => moments().count()).toBe(1);
    expect(await labelOf(0)).toMatch(/lands on bar 2/);
    // The moment begins with the ruler: at 0 s before the song and after it.
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=320x180:r=25:d=4',
      '-f',
      'lavfi',
      '-i',
      'aevalsrc=if(lt(mod(t\\,1)\\,0.03)\\,0.8*random(0)\\,0):d=4',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'pcm_s16le',
      file('snaps left.mov'),
    );
    await bench.bringIn(file('snaps left.mov'));
    await bench.settled();
    await press('Listen for them');
    await page.getByRole('button', { name: /^Count these \d+$/ }).click();
    await expect.poll(async () => (await bench.grid()).beats.length).toBeLessThan(20);
    await page.keyboard.press('Control+z');
    await expect.poll(async () => (await bench.grid()).beats.length).toBeGreaterThan(100);
    await bench.bringIn(demo('left-hand-thread.opus'));
    await page
      .getByText(/left-hand-thread\.opus/)
      .first()
      .waitFor();
    await page.getByText(/107 beats|10\d beats/).waitFor({ timeout: 180_000 });
    await expect.poll(() => moments().count()).toBe(1);
    const start = Number(
      await page.evaluate(`(async () => {
      const open = indexedDB.open('fickle-ribbon');
      await new Promise((done) => (open.onsuccess = done));
      const get = open.result.transaction('records').objectStore('records').getAll();
      await new Promise((done) => (get.onsuccess = done));
      open.result.close();
      return get.result.find((one) => one.kind === 'moment' && one.alive && location.search.includes(one.project)).start;
    })()`),
    );
    expect(timeOfBeat(await bench.grid(), start)).toBeCloseTo(0, 6);
    await press('Snap moments to beats');
    await expect.poll(() => labelOf(0)).toMatch(/beat \d to bar \d+, beat \d,/);
  });

  it('says what it makes of noise, a click, two seconds, and other rates', async () => {
    const { page } = bench;
    const make = (name: string, source: string, ...more: string[]) =>
      ffmpeg('-f', 'lavfi', '-i', source, ...more, file(name));
    make('noise.wav', 'anoisesrc=d=12:c=white:a=0.3:r=44100');
    make('short.wav', 'sine=440:d=2');
    make('eight.wav', 'sine=220:d=6:r=8000', '-ac', '1');
    make('wide.flac', 'sine=330:d=6:r=96000', '-ac', '2');
    for (const name of ['noise.wav', 'short.wav', 'eight.wav', 'wide.flac']) {
      await bench.bringIn(file(name));
      await page
        .getByText(new RegExp(name.replace('.', '\\.')))
        .first()
        .waitFor();
      await bench.settled();
      await bench.page.locator('[data-finding^="song."]').first().waitFor({ timeout: 60_000 });
    }
  });

  /** The starts of cues as the browser's own track element reads them. */
  function trackCues(text: string): Promise<number[]> {
    return bench.page.evaluate(`(async () => {
      const video = document.createElement('video');
      const track = document.createElement('track');
      track.src = URL.createObjectURL(new Blob([${JSON.stringify(text)}], { type: 'text/vtt' }));
      video.append(track);
      document.body.append(video);
      track.track.mode = 'hidden';
      await new Promise((done, fail) => { track.onload = done; track.onerror = fail; });
      const starts = [...track.track.cues].map((cue) => cue.startTime);
      video.remove();
      return starts;
    })()`) as Promise<number[]>;
  }
});
