import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { describe, expect } from 'vitest';
import { loudestAt } from '@/core/sounds/lay';
import type { Moment } from '@/core/model/records';
import { timeOfFrame } from '@/core/time/rate';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import type { StoredRecord } from '@/store/db';
import type { BenchPage } from './support/bench-page';
import { ffmpeg } from './support/ffmpeg';
import { storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

const size = { width: 320, height: 180 };

/** Two whips on a ruler of seconds: one over seconds 5 to 13 that cuts on 7, and one over 15 to 19 that cuts on 17. */
const film = () =>
  seeded(async (store, project) => {
    await setProject(store, project, { ...size, megabits: 4 });
    await laySeconds(store, project);
    for (const [name, start, lands, end] of [
      ['First', 5, 7, 13],
      ['Second', 15, 17, 19],
    ] as const) {
      const id = await addMoment(store, project, 'built-whip', start, end);
      await setMoment(store, project, id, 'Place', { name, lands });
    }
  });

/** One channel of a file's sound at 48 kHz. */
function soundIn(path: string): Float32Array {
  const raw = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', path, '-ac', '1', '-ar', '48000', '-f', 'f32le', '-'],
    { maxBuffer: 2 ** 28 },
  );
  return new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + (raw.length & ~3)));
}
const frame = 1 / 25;
/** The greatest sample. */
const loudness = (sound: Float32Array) => sound.reduce((most, value) => Math.max(most, Math.abs(value)), 0);

async function shot(bench: BenchPage, path: string): Promise<Float32Array> {
  await bench.go('Hand over');
  await bench.render(path);
  return soundIn(path);
}

const clip = (path: string, source = 'testsrc') =>
  ffmpeg(
    ...['-f', 'lavfi', '-i', `${source}=s=${size.width}x${size.height}:r=25:d=9`],
    ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', path],
  );

describe('sounds at the instants of a moment', () => {
  test('usual and own sounds are on the frame in the rendered file, and leave as a file of their own', async ({
    open,
    file,
  }) => {
    clip(file('one.mp4'));
    clip(file('two.mp4'), 'testsrc2');
    // A knock of one's own that is loudest 0.3 s in, at another rate and in another codec.
    ffmpeg(
      ...['-f', 'lavfi', '-i', "aevalsrc='0.6*sin(2*PI*440*t)*exp(-pow((t-0.3)/0.03,2))':s=44100:d=0.8"],
      ...['-c:a', 'libmp3lame', '-b:a', '192k', file('my_knock.mp3')],
    );
    const bench = await open({ seed: await film(), at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('one.mp4'), file('two.mp4'));
    await bench.settled();
    await bench.choose('Take for the first place', 'One');
    await bench.choose('Take for the second place', 'Two');
    await bench.press('Lay the usual sounds');
    await bench.settled();
    expect(await page.getByRole('button', { name: 'Lay the usual sounds' }).count()).toBe(0);
    await page.getByLabel('Sounds to bring in').setInputFiles(file('my_knock.mp3'));
    await bench.settled();
    await bench.choose('Sound at “Begins on”', 'my knock');
    // Its beginning lies before the shot, which is said; by its start it is whole.
    await bench.found('sound.cut');
    await bench.choose('What of the sound is at “Begins on”', 'its start');
    expect(await bench.finding('sound.cut').count()).toBe(0);
    // Both survive another visit.
    await page.reload();
    await bench.settled();
    expect(await page.getByRole('combobox', { name: 'Sound at “Cuts on”', exact: true }).innerText()).toBe(
      'whoosh',
    );
    const heard = await shot(bench, file('shot.mov'));
    const [knock, whoosh] = [heard.subarray(0, 48_000), heard.subarray(48_000)];
    expect(Math.abs(loudestAt(knock) / 48_000 - 0.3)).toBeLessThan(frame / 2);
    expect(Math.abs(loudestAt(whoosh) / 48_000 + 1 - 2)).toBeLessThan(frame / 2);
    // Nothing of the other moment, whose sounds were not asked for; silence from a second after the cut.
    expect(loudness(heard.subarray(3 * 48_000))).toBeLessThan(1e-3);
    await (await bench.save('Sounds (WAV)')).saveAs(file('sounds.wav'));
    const alone = soundIn(file('sounds.wav'));
    expect(alone.length).toBe(8 * 48_000);
    for (let at = 0; at < heard.length; at += 97) expect(Math.abs(alone[at] - heard[at])).toBeLessThan(2e-3);
    await page.getByRole('button', { name: 'Keyframes to print' }).click();
    await page
      .getByText(/Whoosh: its loudest point on frame/)
      .first()
      .waitFor();
  });

  test('are mixed under the song without going beyond full scale, and heard at the bench too', async ({
    open,
    file,
  }) => {
    const loud = "aevalsrc='sin(2*PI*220*t)*(0.4+0.6*lt(mod(t,0.5),0.06))':s=48000:d=20";
    ffmpeg('-f', 'lavfi', '-i', loud, '-c:a', 'pcm_s16le', file('loud.wav'));
    clip(file('one.mp4'));
    clip(file('two.mp4'), 'testsrc2');
    const bench = await open({ seed: await film(), at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('one.mp4'), file('two.mp4'), file('loud.wav'));
    await bench.settled();
    await bench.choose('Take for the first place', 'One');
    await bench.choose('Take for the second place', 'Two');
    // What is given to the player is kept, so that it can be looked into.
    await page.addInitScript(() => {
      const give = URL.createObjectURL.bind(URL);
      URL.createObjectURL = (blob: Blob) => {
        if (blob.type === 'audio/wav') Object.assign(window, { heard: blob });
        return give(blob);
      };
    });
    await page.reload();
    await bench.settled();
    await bench.choose('Sound at “Cuts on”', 'thump');
    await bench.type('Level of the sound at “Cuts on”', '0');
    await bench.settled();
    const played = async () => {
      const text = await page.evaluate(async () => {
        const bytes = new Uint8Array(await (window as unknown as { heard: Blob }).heard.arrayBuffer());
        let out = '';
        for (let at = 0; at < bytes.length; at += 4096)
          out += String.fromCharCode(...bytes.subarray(at, at + 4096));
        return btoa(out);
      });
      writeFileSync(file('played.wav'), Buffer.from(text, 'base64'));
      return soundIn(file('played.wav'));
    };
    const song = soundIn(file('loud.wav'));
    const differs = (sound: Float32Array, from: number) =>
      sound.map((value, at) => value - (song[at + Math.round(from * 48_000)] ?? 0));
    const { start, lands, end, rate } = await storedShot(bench);
    const [from, on, length] = [start, lands, end - start].map((count) => timeOfFrame(rate, count));
    const atBench = await played();
    expect(atBench.length).toBe(20 * 48_000);
    expect(Math.abs(loudestAt(differs(atBench, 0)) / 48_000 - on)).toBeLessThan(frame);
    const heard = await shot(bench, file('shot.mov'));
    expect(loudness(heard)).toBeLessThanOrEqual(1.0001);
    const difference = differs(heard, from);
    expect(Math.abs(loudestAt(difference) / 48_000 - (on - from))).toBeLessThan(frame);
    // Far from the thump the song is itself.
    const after = Math.round((on - from + 0.8) * 48_000);
    expect(after).toBeLessThan(length * 48_000);
    expect(loudness(difference.subarray(after))).toBeLessThan(2e-4);
  });

  test('a film or a text is no sound, and says so; undo takes a sound away', async ({ open, file }) => {
    clip(file('one.mp4'));
    ffmpeg('-f', 'lavfi', '-i', 'sine=440:d=0.4', file('beep.wav'));
    const bench = await open({ seed: await film(), at: 'station=build' });
    const { page } = bench;
    const picker = page.getByLabel('Sounds to bring in');
    await picker.setInputFiles(file('one.mp4'));
    await page.getByText(/This is a film/).waitFor();
    await picker.setInputFiles({ name: 'notes.wav', mimeType: 'audio/wav', buffer: Buffer.from('no sound') });
    await page.getByText(/^notes\.wav: /).waitFor();
    await picker.setInputFiles(file('beep.wav'));
    await bench.settled();
    await bench.choose('Sound at “Cuts on”', 'beep');
    // The song stays what it was: none.
    const records = await bench.records();
    expect(records.filter(({ kind, alive }) => kind === 'song' && alive)).toHaveLength(1);
    const moments = records.filter((one): one is StoredRecord & Moment => one.kind === 'moment');
    expect(moments.filter(({ sounds }) => sounds?.lands.sound)).toHaveLength(1);
    // Taken out of the project it is missed where it is laid; undo brings it back.
    await page.getByRole('button', { name: /^Take beep out/i }).click();
    await bench.found('sound.gone');
    await bench.undo(1);
    expect(await bench.finding('sound.gone').count()).toBe(0);
    await bench.undo(1);
    await bench.settled();
    expect(await page.getByRole('combobox', { name: 'Sound at “Cuts on”', exact: true }).innerText()).toBe(
      'no sound',
    );
  });
});
