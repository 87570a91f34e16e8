import { describe, expect } from 'vitest';
import { fillOf } from '@/core/model/slots';
import { demo, ffmpeg } from './support/ffmpeg';
import { songFilm } from './support/films';
import { test } from './support/test';

/** Seconds of the song at which each take begins. */
const begins = { 'left 1.mp4': 18.1, 'right 1.mp4': 20.25 };
/** A phone in a room: a band, an echo, hiss. */
const room =
  '[1:a]highpass=200,lowpass=5000,aecho=0.8:0.7:37|83:0.4|0.25,volume=0.5[song];[2:a]volume=0.01[hiss];[song][hiss]amix=inputs=2:normalize=0[out]';

describe('a take that was filmed to the song', () => {
  test('is laid on it by what is heard, and says how far it was off', async ({ open, file }) => {
    for (const [name, from] of Object.entries(begins))
      ffmpeg(
        ...['-i', demo(`bench-${name.replace(' ', '-')}`), '-ss', String(from), '-t', '7.9'],
        ...['-i', demo('left-hand-thread.opus'), '-f', 'lavfi', '-i', 'anoisesrc=d=7.9:c=pink:seed=3'],
        ...['-filter_complex', room, '-map', '0:v', '-map', '[out]', '-c:v', 'copy', '-c:a', 'aac'],
        ...['-b:a', '96k', '-shortest', file(name)],
      );
    // A third to the song at two and a half times its speed, as it is played where slow motion is filmed.
    ffmpeg(
      ...['-i', demo('bench-left-2.mp4'), '-ss', '12', '-t', '19.7', '-i', demo('left-hand-thread.opus')],
      ...['-f', 'lavfi', '-i', 'anoisesrc=d=7.9:c=pink:seed=4', '-filter_complex'],
      room.replace('[1:a]', '[1:a]aresample=48000,asetrate=120000,aresample=48000,'),
      ...['-map', '0:v', '-map', '[out]', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '96k', '-shortest'],
      file('left 2.mp4'),
    );
    // A fourth to twice its speed by a player that keeps the pitch.
    ffmpeg(
      ...['-i', demo('bench-right-2.mp4'), '-ss', '12', '-t', '15.8', '-i', demo('left-hand-thread.opus')],
      ...['-f', 'lavfi', '-i', 'anoisesrc=d=7.9:c=pink:seed=5', '-filter_complex'],
      room.replace('[1:a]', '[1:a]atempo=2,'),
      ...['-map', '0:v', '-map', '[out]', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '96k', '-shortest'],
      file('right 2.mp4'),
    );
    const bench = await open({ seed: songFilm(), keep: ['proxies'], at: 'station=match' });
    await bench.bringIn(
      demo('bench-plate-start.mp4'),
      ...[...Object.keys(begins), 'left 2.mp4', 'right 2.mp4'].map(file),
    );
    await bench.page.locator('[data-take="Right 1"] img').waitFor();
    await bench.settled();
    await bench.page.locator('[data-pair="Left 1 with Right 1"]').click();
    await bench.page.getByRole('button', { name: /^Use this pair/ }).click();
    await bench.arrived();
    await bench.found('playback.off');
    const offs = bench.finding('playback.off');
    expect(await offs.count()).toBe(2);
    for (let left = 2; left > 0; left--) {
      await offs.first().getByRole('button', { name: 'Lay it on the song' }).click();
      await expect.poll(() => offs.count()).toBe(left - 1);
    }
    await bench.found('playback.on');
    const moment = (await bench.records()).find((one) => one.kind === 'moment');
    if (moment?.kind !== 'moment') throw new Error('There is no moment.');
    const grid = await bench.grid();
    const shown = { left: grid.beats[moment.start], right: grid.beats[moment.lands] };
    for (const [slot, from] of [
      ['left', begins['left 1.mp4']],
      ['right', begins['right 1.mp4']],
    ] as const) {
      const { at } = fillOf(moment, slot);
      // An encoder's own delay included: half a picture is 21 ms.
      expect(Math.abs(from + at - shown[slot]), slot).toBeLessThan(0.004);
    }
    await bench.choose('Take for the left', 'Left 2');
    await bench.finding('playback.faster').filter({ hasText: 'at 250 % of its speed' }).waitFor();
    await bench.choose('Take for the right', 'Right 2');
    await bench.finding('playback.faster').filter({ hasText: 'at 200 % of its speed' }).waitFor();
  });
});
