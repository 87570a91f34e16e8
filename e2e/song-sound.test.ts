import { execFileSync } from 'node:child_process';
import { describe, expect } from 'vitest';
import { ffmpeg } from './support/ffmpeg';
import { unpack } from './support/packed';
import { seeded, taken } from './support/seeds';
import { test } from './support/test';

/** Samples at 48 kHz that lie furthest out round some seconds. */
const clicksIn = (pcm: Int16Array, seconds: readonly number[]) =>
  seconds.map((time) => {
    const from = Math.round((time - 0.1) * 48_000);
    const part = pcm.subarray(from, from + 9600).map((value) => Math.abs(value));
    return from + part.indexOf(Math.max(...part));
  });

describe('the sound of a song', () => {
  // Encoders put up to 46 ms of silence before the music, which players take out again.
  test('begins where ffmpeg and players have it, in each kind of file', async ({ open, file }) => {
    const times = [0.5, 1.25, 2.6];
    const source = times.map((time) => `between(t,${time},${time + 0.004})`).join('+');
    ffmpeg('-f', 'lavfi', '-i', `aevalsrc='0.8*(${source})*sin(2*PI*2500*t)':s=48000:d=4`, file('click.wav'));
    const kinds = {
      'aac.m4a': ['-c:a', 'aac'],
      'mp3.mp3': ['-c:a', 'libmp3lame'],
      'slow.mp3': ['-ar', '44100', '-c:a', 'libmp3lame'],
      'opus.ogg': ['-c:a', 'libopus'],
      // Its last block is silent, and so small that it was left out.
      'whole.flac': ['-c:a', 'flac'],
    };
    for (const [name, codec] of Object.entries(kinds)) {
      ffmpeg('-i', file('click.wav'), ...codec, '-b:a', '192k', file(name));
      const bench = await open({ seed: await seeded(), at: 'station=song' });
      await bench.bringIn(file(name));
      await bench.page.locator('[data-ribbon]').waitFor();
      await bench.settled();
      const { rowsOf } = await taken(bench.page);
      const [{ blob }] = unpack(rowsOf('proxies')) as { blob: Blob }[];
      const wav = await blob.arrayBuffer();
      const frames = (wav.byteLength - 44) / 2;
      if (name === 'whole.flac') expect(frames).toBe(4 * 48_000);
      expect(frames, name).toBeGreaterThanOrEqual(4 * 48_000);
      const raw = execFileSync('ffmpeg', [
        ...['-v', 'error', '-i', file(name), '-ac', '1', '-ar', '48000', '-f', 's16le', '-'],
      ]);
      const ours = clicksIn(new Int16Array(wav.slice(44, wav.byteLength & ~1)), times);
      const theirs = clicksIn(
        new Int16Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length)),
        times,
      );
      ours.forEach((sample, index) =>
        expect(Math.abs(sample - theirs[index]), `${name}, click ${index + 1}`).toBeLessThanOrEqual(1),
      );
      await bench.close();
    }
  });
});
