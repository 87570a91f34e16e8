import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cutPart } from './cut-part';
import { recordedAt } from './recorded-at';

const rate = 25;
let place = '';
beforeAll(() => void (place = mkdtempSync(join(tmpdir(), 'cut-part-'))));
afterAll(() => rmSync(place, { recursive: true }));

const ffmpeg = (...words: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...words]);
/** Ten seconds in which every picture is another, with sound; a key picture every two seconds. */
function film(name: string, ...codec: string[]): Blob {
  const path = join(place, name);
  ffmpeg(
    ...['-f', 'lavfi', '-i', `testsrc2=size=160x90:rate=${rate}:duration=10`],
    ...['-f', 'lavfi', '-i', 'aevalsrc=0.2*sin(2*PI*(200+40*t)*t):duration=10:sample_rate=48000'],
    ...['-g', '50', '-pix_fmt', 'yuv420p', ...codec, path],
  );
  const type = name.endsWith('webm') ? 'video/webm' : name.endsWith('mov') ? 'video/quicktime' : 'video/mp4';
  return new Blob([readFileSync(path)], { type });
}
/** A checksum of each picture, as ffmpeg decodes them, and of each second that they begin at. */
async function pictures(blob: Blob): Promise<string[]> {
  const path = join(place, `read.${blob.type === 'video/webm' ? 'webm' : 'mp4'}`);
  writeFileSync(path, Buffer.from(await blob.arrayBuffer()));
  const told = ffmpeg('-i', path, '-map', '0:v', '-f', 'framemd5', '-').toString();
  return told
    .split('\n')
    .flatMap((line) => (line.startsWith('#') || line === '' ? [] : [line.split(',').at(-1)?.trim() ?? '']));
}
const secondsOf = async (blob: Blob, stream: string): Promise<number> => {
  const path = join(place, 'seconds');
  writeFileSync(path, Buffer.from(await blob.arrayBuffer()));
  const what = ['-select_streams', stream, '-show_entries', 'packet=pts_time', '-of', 'csv=p=0'];
  const times = execFileSync('ffprobe', ['-v', 'error', ...what, path])
    .toString()
    .trim()
    .split('\n')
    .map(Number.parseFloat);
  return Math.max(...times) - Math.min(...times);
};

// What ffmpeg decodes of the part is held against what it decodes of the whole.
describe('a part of a film', () => {
  it.each([
    ['of a camera.mp4', ['-c:v', 'libx264', '-c:a', 'aac']],
    ['with open groups.mp4', ['-c:v', 'libx264', '-x264-params', 'open-gop=1:bframes=3', '-c:a', 'aac']],
    ['uncompressed sound.mov', ['-c:v', 'libx264', '-c:a', 'pcm_s16le']],
    ['recorded here.webm', ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-c:a', 'libopus']],
  ])('%s is the film’s own pictures, none left out, from the key picture before it', async (name, codec) => {
    const whole = film(name, ...codec);
    const all = await pictures(whole);
    for (const [from, until] of [
      [3.3, 6.5],
      [0, 2.2],
      [7.9, 10],
    ]) {
      const part = await cutPart(whole, { from, until }, Date.UTC(2026, 10, 28, 12));
      // Where a film begins a little after zero, so does its first part.
      expect(part.from).toBeLessThanOrEqual(from + 0.01);
      expect(part.from).toBeGreaterThan(from - 2.01);
      const first = Math.round(part.from * rate);
      const found = await pictures(part.blob);
      expect(found).toEqual(all.slice(first, first + found.length));
      // To its end, or a few pictures before where later ones are made from one beyond it.
      expect(Math.abs(first + found.length - until * rate)).toBeLessThanOrEqual(4);
      expect(Math.abs((await secondsOf(part.blob, 'a')) - found.length / rate)).toBeLessThan(0.1);
      expect(part.blob.type).toBe(whole.type);
      if (whole.type !== 'video/webm')
        expect(await recordedAt(part.blob)).toBe(Date.UTC(2026, 10, 28, 12) + 1000 * Math.round(part.from));
    }
  });

  it('is refused where nothing lies in it, and does without sound where there is none', async () => {
    const silent = film('silent.mp4', '-c:v', 'libx264', '-an');
    expect(await pictures((await cutPart(silent, { from: 4, until: 6 }, null)).blob)).toHaveLength(50);
    await expect(cutPart(silent, { from: 0, until: 0 }, null)).rejects.toMatchObject({
      code: 'media.part',
    });
  });
});
