import { readFile } from 'node:fs/promises';
import { BlobReader, Uint8ArrayWriter, ZipReader, type FileEntry } from '@zip.js/zip.js';
import { describe, expect } from 'vitest';
import { readPcm } from '@/core/formats/wav';
import { demo, ffmpeg } from './support/ffmpeg';
import { songFilm } from './support/films';
import { test } from './support/test';

/** Seconds of what was played on the set at which each take begins. */
const begins = { 'left 1.mp4': 18.1, 'right 1.mp4': 31.45 };
const song = demo('left-hand-thread.opus');

/** A take of which the camera heard the song from a second on, through the room. */
function filmed(path: string, picture: string, from: number): void {
  const room =
    '[1:a]highpass=200,lowpass=5000,aecho=0.8:0.7:37|83:0.4|0.25,volume=0.5[song];[2:a]volume=0.01[hiss];[song][hiss]amix=inputs=2:normalize=0[out]';
  ffmpeg(
    ...['-i', demo(picture), '-ss', `${from}`, '-t', '7.9', '-i', song],
    ...['-f', 'lavfi', '-i', 'anoisesrc=d=7.9:c=pink:seed=3', '-filter_complex', room],
    ...['-map', '0:v', '-map', '[out]', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '96k', '-shortest', path],
  );
}

describe('a recorder beside the camera', () => {
  test('gives each take its sound, stays known, and says what it has not heard', async ({ open, file }) => {
    for (const [name, from] of Object.entries(begins))
      filmed(file(name), `bench-${name.replace(' ', '-')}`, from);
    // It ran from second 12 of the song on; its clock is 52 parts in a million fast.
    ffmpeg(
      ...['-ss', '12', '-t', '30', '-i', song, '-af', 'aresample=96005,asetrate=96000,aresample=48000'],
      ...['-c:a', 'flac', file('beside.flac')],
    );
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'anoisesrc=d=20:c=pink:seed=9:a=0.2', '-b:a', '128k', file('elsewhere.mp3')],
    );
    const bench = await open({ seed: songFilm(), keep: ['proxies'], at: 'station=match' });
    await bench.bringIn(demo('bench-plate-start.mp4'), ...Object.keys(begins).map(file));
    await bench.page.locator('[data-take="Right 1"] img').waitFor();
    await bench.page.getByRole('tab', { name: 'Recorder' }).click();
    const files = bench.page.getByLabel('Files of a recorder');
    const recording = (name: string) => bench.page.getByRole('region', { name });
    await files.setInputFiles([file('elsewhere.mp3'), file('beside.flac')]);
    const found = recording('beside.flac');
    await found.getByRole('row', { name: /^Right 1/ }).waitFor();
    for (const [name, from] of [
      ['Left 1', begins['left 1.mp4']],
      ['Right 1', begins['right 1.mp4']],
    ] as const) {
      const row = found.getByRole('row', { name: new RegExp(`^${name}`) });
      const said = Number(((await row.getByRole('cell').nth(1).textContent()) ?? '').replace(' s', ''));
      // An encoder's own delay included.
      expect(Math.abs(said - (from - 12)), name).toBeLessThan(0.004);
      expect(await row.textContent()).toMatch(/(4|5|6)\d parts in a million fast/);
    }
    await recording('elsewhere.mp3').getByText('No take is heard in it').waitFor();
    const saved = await bench.save('Save its sound for these 2 takes');
    const zip = new ZipReader(new BlobReader(new Blob([await readFile(await saved.path())])), {
      useWebWorkers: false,
    });
    const entries = await zip.getEntries();
    expect(entries.map(({ filename }) => filename)).toEqual(['left-1.wav', 'right-1.wav', 'takes.csv']);
    const wav = await (entries[0] as FileEntry).getData(new Uint8ArrayWriter());
    const { channels, sampleRate } = readPcm(Uint8Array.from(wav).buffer);
    expect(channels[0].length / sampleRate).toBeCloseTo(7.9, 0);
    expect(channels[0].some((value) => Math.abs(value) > 0.1)).toBe(true);

    await bench.page.reload();
    await found.getByRole('button', { name: 'Choose beside.flac again to save its sound' }).waitFor();
    await files.setInputFiles(file('beside.flac'));
    await found.getByRole('button', { name: 'Save its sound for these 2 takes' }).waitFor();
    await recording('elsewhere.mp3').getByRole('button', { name: 'Take it off this list' }).click();
    await expect.poll(() => recording('elsewhere.mp3').count()).toBe(0);
    await files.setInputFiles({ name: 'notes.wav', mimeType: 'audio/wav', buffer: Buffer.from('no sound') });
    await bench.page.getByText('This file holds no sound that can be decoded.').first().waitFor();
    expect(await found.getByRole('row').count()).toBe(3);
  });
});
