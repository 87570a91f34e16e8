import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { parseMidi } from 'midi-file';
import type { Page } from 'playwright-core';
import { describe, expect } from 'vitest';
import type { Moment } from '@/core/model/records';
import { timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { createMoment } from '@/store/commands/moments';
import { songBeats } from '../demo/song/score';
import { desktop, phone, type BenchPage, type Opening } from './support/bench-page';
import { demo, ffmpeg } from './support/ffmpeg';
import { songFilm } from './support/films';
import { ruled } from './support/film-set';
import { seeded } from './support/seeds';
import { test } from './support/test';

const truth = songBeats();

/** The share of the score's beats that a grid meets within 30 ms. */
const met = ({ beats }: BeatGrid) =>
  truth.filter((time) => beats.some((beat) => Math.abs(beat - time) < 0.03)).length / truth.length;

type Open = (how?: Opening) => Promise<BenchPage>;
/** The Song station with the demo's song. @param keep its sound as well, to play it */
const withSong = async (open: Open, sound = false): Promise<BenchPage> =>
  open({ seed: songFilm(), keep: sound ? ['proxies'] : [], at: 'station=song' });
const moments = (page: Page) => page.locator('[data-moment]');
const labelOf = (page: Page, index: number) => moments(page).nth(index).getAttribute('aria-label');
/** Puts the needle on a beat by keys, counted from the song's first bar. */
const needleTo = async (page: Page, beats: number) => {
  await page.locator('[data-ribbon]').focus();
  for (let beat = 0; beat < beats; beat++) await page.keyboard.press('ArrowRight');
};

describe('the song as a ruler', () => {
  test('tints the ribbon with the sections that the score has', async ({ open }) => {
    const { page } = await withSong(open);
    const begins = page.getByRole('spinbutton', { name: /begins in bar/ });
    await expect.poll(() => begins.allInnerTexts()).toEqual(['bar 1', 'bar 5', 'bar 13', 'bar 19', 'bar 23']);
  });

  test('makes, moves, stretches, copies and removes moments with the keyboard alone', async ({ open }) => {
    const bench = await withSong(open);
    const { page } = bench;
    await needleTo(page, 9);
    await page.getByRole('button', { name: 'Moment here' }).focus();
    await page.keyboard.press('Enter');
    await moments(page).first().focus();
    expect(await labelOf(page, 0)).toMatch(/bar 3, beat 1 to bar 6, beat 1/);
    await page.keyboard.press('ArrowRight');
    await expect.poll(() => labelOf(page, 0)).toMatch(/bar 3, beat 2 to bar 6, beat 2/);
    await page.keyboard.press('Shift+ArrowRight');
    await expect.poll(() => labelOf(page, 0)).toMatch(/bar 3, beat 2 to bar 6, beat 3/);
    await page.keyboard.press('c');
    await expect.poll(() => moments(page).count()).toBe(2);
    expect(await labelOf(page, 1)).toMatch(/bar 6, beat 3 to/);
    await moments(page).nth(1).focus();
    await page.keyboard.press('Delete');
    await page.getByRole('alertdialog').waitFor();
    await page.keyboard.press('Enter');
    await expect.poll(() => moments(page).count()).toBe(1);
  });

  test('counts every press, however quick, and takes a held key back in one step', async ({ open }) => {
    const bench = await withSong(open);
    const { page } = bench;
    const before = await bench.grid();
    await bench.unfold('Finer');
    // Three presses before the page has drawn the first.
    await page.getByRole('button', { name: '1 ms later', exact: true }).evaluate((knob) => {
      for (let press = 0; press < 3; press++) (knob as HTMLButtonElement).click();
    });
    await bench.settled();
    expect((await bench.grid()).beats[0]).toBeCloseTo(before.beats[0] + 0.003, 6);
    await bench.undo(3);
    await bench.press('Moment here');
    await bench.settled();
    const where = await labelOf(page, 0);
    await moments(page).first().focus();
    for (let repeat = 0; repeat < 6; repeat++) await page.keyboard.down('ArrowRight');
    await page.keyboard.up('ArrowRight');
    await bench.settled();
    expect(await labelOf(page, 0)).not.toBe(where);
    await bench.undo();
    expect(await labelOf(page, 0)).toBe(where);
    // A quantity in a sentence: ten quick steps of a held key are ten steps, and one to undo.
    const hits = bench.number('Hits from');
    await hits.focus();
    for (let repeat = 0; repeat < 5; repeat++) await page.keyboard.down('ArrowUp');
    await page.keyboard.up('ArrowUp');
    await bench.settled();
    expect(await hits.innerText()).toBe('80 %');
    await bench.undo();
    expect(await hits.innerText()).toBe('55 %');
  });

  test('sets a grid right that was found twice too fast and half a beat off, with three actions', async ({
    open,
    file,
  }) => {
    const bench = await withSong(open);
    const { page } = bench;
    await needleTo(page, 9);
    await bench.press('Moment here');
    await bench.settled();
    const [before, label] = [await bench.grid(), await labelOf(page, 0)];
    // The wrong grid comes as a file would bring it.
    const period = (index: number) =>
      (before.beats[index + 1] ?? before.beats[index] + 0.575) - before.beats[index];
    const wrong = before.beats.flatMap((beat, index) => [
      beat + period(index) / 4,
      beat + (period(index) * 3) / 4,
    ]);
    writeFileSync(file('wrong.csv'), wrong.map((time) => time.toFixed(6)).join('\n'));
    await page.getByTestId('beats-file').setInputFiles(file('wrong.csv'));
    await bench.settled();
    expect(met(await bench.grid())).toBeLessThan(0.1);
    // A moment made on the wrong beats: a quarter of a true beat late, like the beats it is pinned to.
    await bench.press('Moment here');
    await expect.poll(() => moments(page).count()).toBe(2);
    await bench.press('Half a beat later');
    await bench.settled();
    // A person hears where a bar begins, and puts the needle there.
    const needle = () => page.locator('[data-needle]').getAttribute('data-needle').then(Number);
    await page.locator('[data-ribbon]').focus();
    const bar = truth[4];
    for (let step = 0, at = await needle(); step < 60 && Math.abs(at - bar) > 0.05; step++) {
      await page.keyboard.press(at > bar ? 'ArrowLeft' : 'ArrowRight');
      await expect.poll(needle).not.toBe(at);
      at = await needle();
    }
    // The second is pressed before the first is drawn.
    await page.evaluate(`for (const name of ['First of bar at needle', 'Half'])
      [...document.querySelectorAll('button')].find((one) => one.textContent === name).click()`);
    await bench.settled();
    expect(met(await bench.grid())).toBeGreaterThan(0.95);
    const right = await bench.grid();
    const bars = right.beats.filter((_, index) => index % right.beatsPerBar === right.firstDownbeat);
    expect(Math.min(...bars.map((time) => Math.abs(time - bar)))).toBeLessThan(0.03);
    const labels = await Promise.all([labelOf(page, 0), labelOf(page, 1)]);
    expect(
      labels.filter((one) => /bar \d+, beat [1-4](\.5)? to bar \d+, beat [1-4](\.5)?,/.test(one ?? '')),
    ).toHaveLength(1);
    await bench.undo(5);
    expect(await bench.grid()).toEqual(before);
    expect(await moments(page).count()).toBe(1);
    expect(await labelOf(page, 0)).toBe(label);
  });

  test('writes beats that foreign readers read alike, and reads them back', async ({ open, file }) => {
    const bench = await withSong(open, true);
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
    expect(lengthOf(file('cues.wav'))).toBeGreaterThan(grid.beats[grid.beats.length - 1] - 1);
    const cues = await trackCues(page, readFileSync(file('beats.vtt'), 'utf8'));
    expect(cues).toHaveLength(grid.beats.length);
    cues.forEach((start, index) => expect(Math.abs(start - grid.beats[index])).toBeLessThan(0.00051));
    expect(await trackCues(page, readFileSync(file('chapters.vtt'), 'utf8'))).toHaveLength(5);
    for (const name of ['beats.mid', 'beats.csv', 'beats.vtt', 'cues.wav']) {
      await bench.press('Double');
      await bench.settled();
      expect((await bench.grid()).beats.length).toBeGreaterThan(grid.beats.length);
      await page.getByTestId('beats-file').setInputFiles(file(name));
      await bench.settled();
      const back = await bench.grid();
      expect(back.beats).toHaveLength(grid.beats.length);
      back.beats.forEach((beat, index) => expect(Math.abs(beat - grid.beats[index])).toBeLessThan(0.00051));
      expect([back.beatsPerBar, back.firstDownbeat]).toEqual([grid.beatsPerBar, grid.firstDownbeat]);
    }
  });

  test('refuses files that are none, says why, and keeps the beats', async ({ open, file }) => {
    const bench = await withSong(open);
    const { page } = bench;
    const before = await bench.grid();
    await (await bench.save('MIDI tempo map')).saveAs(file('beats.mid'));
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
      await page.getByText(words).first().waitFor();
    }
    expect(await bench.grid()).toEqual(before);
    writeFileSync(file('mended.csv'), '-1\n3\n1\n1.001\n2\n4\n');
    await page.getByTestId('beats-file').setInputFiles(file('mended.csv'));
    await page.getByText(/1 out of order were sorted, 1 doubled were left out, 1 before the song/).waitFor();
    await bench.undo();
    expect(await bench.grid()).toEqual(before);
  });

  test('lays words over the ribbon, and a click track for the set', async ({ open, file }) => {
    const bench = await withSong(open, true);
    const { page } = bench;
    writeFileSync(file('words.lrc'), '[00:02.50]Turn it left\n[00:05.00]Hold the wheel\n');
    await bench.bringIn(file('words.lrc'));
    await expect
      .poll(() => page.locator('[data-cue]').allTextContents())
      .toEqual(['Turn it left', 'Hold the wheel']);
    await page.getByRole('combobox', { name: 'Speed on the set' }).click();
    await page.getByRole('option', { name: /250/ }).click();
    await (await bench.save('Click track (WAV)')).saveAs(file('click.wav'));
    const beat = 60 / 104.3 / 2.5;
    // Four counts of two beats, since a beat at this speed is too short to be spoken; then 62 s at 250 %.
    expect(lengthOf(file('click.wav'))).toBeGreaterThan(8 * beat + 24);
    expect(lengthOf(file('click.wav'))).toBeLessThan(8 * beat + 25.5);
    await bench.press('Click');
    await page.getByRole('button', { name: 'Click', pressed: true }).waitFor();
  });

  test('locks a passage and finds the rest again', async ({ open }) => {
    const bench = await withSong(open, true);
    const { page } = bench;
    await needleTo(page, 9);
    await bench.press('Moment here');
    await bench.settled();
    const before = await bench.grid();
    await bench.unfold('Finer');
    await page.getByRole('button', { name: 'Lock bars 3 to 5' }).click();
    await bench.press('Find the rest again');
    await bench.settled();
    const after = await bench.grid();
    expect(after).not.toEqual(before);
    expect(met(after)).toBeGreaterThan(0.9);
    for (const beat of before.beats.slice(before.firstDownbeat + 8, before.firstDownbeat + 20))
      expect(Math.min(...after.beats.map((one) => Math.abs(one - beat)))).toBeLessThan(1e-6);
    await bench.press('Unlock all');
    await expect.poll(() => page.getByText(/^Locked:/).count()).toBe(0);
  });

  test('plays slower, over and over, and looks closely', async ({ open }) => {
    const bench = await withSong(open, true);
    const { page } = bench;
    await bench.press('Moment here');
    await page.getByRole('combobox', { name: 'Speed', exact: true }).click();
    await page.getByRole('option', { name: '50 %' }).click();
    await bench.press('Loop');
    await bench.press('Play');
    await page.getByRole('button', { name: 'Pause' }).waitFor();
    const needle = () => page.locator('[data-needle]').getAttribute('data-needle').then(Number);
    const begun = await needle();
    await expect.poll(needle).not.toBe(begun);
    await bench.press('Pause');
    await page.getByRole('button', { name: 'Play', exact: true }).waitFor();
    await bench.press('Closer');
    expect(await moments(page).count()).toBe(1);
    await bench.press('Closer');
    await bench.press('Beats and frames');
    await page.getByRole('cell', { name: '59.940' }).waitFor();
    const beats = page.getByRole('region', { name: 'Beats' });
    expect(Number(await beats.getByRole('table').getAttribute('aria-rowcount'))).toBeGreaterThan(100);
    // Only those in sight are drawn; the last one comes when it is scrolled to.
    expect(await beats.getByRole('row').count()).toBeLessThan(60);
    await beats.evaluate((box) => box.scrollTo(0, box.scrollHeight));
    await beats
      .getByRole('cell', { name: /^27 · / })
      .first()
      .waitFor();
  });

  test('works by touch on a phone: dragged over a bar', async ({ open }) => {
    const bench = await open({ size: phone, seed: songFilm(), at: 'station=song' });
    const { page } = bench;
    const touch = await bench.context.newCDPSession(page);
    const finger = (type: string, x: number, y: number) =>
      touch.send('Input.dispatchTouchEvent', {
        type: type as 'touchStart',
        touchPoints: type === 'touchEnd' ? [] : [{ x, y }],
      });
    await page.locator('[data-ribbon]').scrollIntoViewIfNeeded();
    const ribbon = await page.locator('[data-ribbon]').boundingBox();
    if (!ribbon) throw new Error('There is no ribbon.');
    const [x, y] = [ribbon.x + 60, ribbon.y + 55];
    await finger('touchStart', x, y);
    for (let step = 1; step <= 10; step++) await finger('touchMove', x + step * 20, y);
    await page.locator('[data-held=new]').waitFor();
    await finger('touchEnd', 0, 0);
    await expect.poll(() => moments(page).count()).toBe(1);
  });

  test.for(['phone', 'desktop'] as const)(
    'is free of what axe-core finds on a %s, day and night',
    async (name, { open }) => {
      const size = name === 'phone' ? phone : desktop;
      const bench = await open({ size, seed: songFilm(), at: 'station=song' });
      for (const view of ['ribbon', 'frames']) {
        for (const theme of ['one theme', 'the other']) {
          expect(await bench.audit(), `${view} ${theme}`).toEqual([]);
          await bench.page.keyboard.press('n');
        }
        await bench.press('Beats and frames');
        await bench.page.evaluate('document.activeElement?.blur()');
      }
    },
  );

  test('works without a song, and keeps every moment where it is when one is laid under', async ({
    open,
    file,
  }) => {
    const bench = await open({ seed: await seeded(), at: 'station=song' });
    const { page } = bench;
    await bench.press('Work without a song');
    await page.getByText('No song: a ruler of seconds').waitFor();
    await bench.press('Moment here');
    await expect.poll(() => moments(page).count()).toBe(1);
    expect(await labelOf(page, 0)).toMatch(/lands on bar 2/);
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=4'],
      ...['-f', 'lavfi', '-i', 'aevalsrc=if(lt(mod(t\\,1)\\,0.03)\\,0.8*random(0)\\,0):d=4'],
      ...['-pix_fmt', 'yuv420p', '-c:a', 'pcm_s16le', file('snaps left.mov')],
    );
    await bench.bringIn(file('snaps left.mov'));
    await bench.settled();
    await bench.press('Listen for them');
    await page.getByRole('button', { name: /^Count these \d+$/ }).click();
    await bench.settled();
    expect((await bench.grid()).beats.length).toBeLessThan(20);
    await bench.undo();
    expect((await bench.grid()).beats.length).toBeGreaterThan(100);
    await bench.bringIn(demo('left-hand-thread.opus'));
    await page.getByText(/10\d beats, sure/).waitFor();
    await bench.settled();
    const records = await bench.records();
    const [moment] = records.filter((one): one is Moment & typeof one => one.kind === 'moment' && one.alive);
    // The moment begins with the ruler: at 0 s before the song and after it.
    expect(timeOfBeat(await bench.grid(), moment.start)).toBeCloseTo(0, 6);
    await bench.unfold('Finer');
    await bench.press('Snap moments to beats');
    await expect.poll(() => labelOf(page, 0)).toMatch(/beat \d to bar \d+, beat \d,/);
  });

  test('says what it makes of noise, a click, two seconds, and other rates', async ({ open, file }) => {
    const bench = await open({ seed: await seeded(), at: 'station=song' });
    const make = (name: string, source: string, ...more: string[]) =>
      ffmpeg('-f', 'lavfi', '-i', source, ...more, file(name));
    make('noise.wav', 'anoisesrc=d=12:c=white:a=0.3:r=44100');
    make('short.wav', 'sine=440:d=2');
    make('eight.wav', 'sine=220:d=6:r=8000', '-ac', '1');
    make('wide.flac', 'sine=330:d=6:r=96000', '-ac', '2');
    for (const name of ['noise.wav', 'short.wav', 'eight.wav', 'wide.flac']) {
      await bench.bringIn(file(name));
      // A second sound asks before it takes the place of the song.
      if (name !== 'noise.wav') await bench.press('Lay it under');
      await bench.page
        .getByText(new RegExp(name.replace('.', '\\.')))
        .first()
        .waitFor();
      await bench.settled();
      await bench.page.locator('[data-finding^="song."]').first().waitFor();
    }
  });

  test('keeps two projects apart: what is undone in one is not undone in the other', async ({ open }) => {
    const bench = await open({
      seed: await seeded(async (store, project) => {
        await ruled(store, project);
        await createMoment(store, project, 20, 30);
      }),
      at: 'station=song',
    });
    const { page } = bench;
    const first = page.url();
    expect(await moments(page).count()).toBe(2);
    const tab = await bench.another();
    await tab.page.keyboard.press('Control+z');
    await expect.poll(() => moments(tab.page).count()).toBe(1);
    await expect.poll(() => moments(page).count()).toBe(1);
    await page.getByRole('button', { name: 'My film' }).click();
    await page.getByRole('menuitem', { name: 'Start a project of your own' }).click();
    await page.getByText('Lay a song on the bench').waitFor();
    expect(page.url()).not.toBe(first);
    await expect.poll(() => moments(tab.page).count()).toBe(1);
  });
});

/** Seconds of a file, as ffprobe tells them. */
const lengthOf = (path: string): number =>
  Number(
    execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', path]),
  );

/** The starts of cues as the browser's own track element reads them. */
const trackCues = (page: Page, text: string): Promise<number[]> =>
  page.evaluate(`(async () => {
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
  })()`);
