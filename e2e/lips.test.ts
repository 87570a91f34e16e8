import { describe, expect } from 'vitest';
import { noisy, inRoom, rate, song } from '@/core/footage/__tests__/heard';
import { singer, voiceRate } from '@/core/footage/__tests__/singer';
import { fillOf } from '@/core/model/slots';
import { slowDown } from '@/core/song/spectrum';
import { timeOfBeat } from '@/core/time/grid';
import { seeded } from './support/seeds';
import { filmSinger, writeSound } from './support/sung';
import { test } from './support/test';

/** seconds of the song and of a take, and of the song at which each take begins */
const [whole, length, begins] = [44, 14, 9];
/** seconds by which the camera keeps pictures behind sound */
const late = 0.25;

describe('lips in takes that were filmed to the song', () => {
  test('are seen to come late, though its sound is in place, and the take is laid by them', async ({
    open,
    file,
  }) => {
    const [voice, other] = [singer(whole, 3), singer(whole, 8)];
    const band = slowDown({ data: song(whole, 5), rate }, voiceRate).data;
    const sung = band.map((value, at) => 0.5 * value + 0.5 * voice.sound[at]);
    writeSound(file('song.wav'), sung, voiceRate);
    const passage = sung.subarray(begins * voiceRate, (begins + length) * voiceRate);
    const heard = noisy(inRoom(passage, 2), 20, 4);
    writeSound(
      file('heard.wav'),
      heard.map((value) => 0.4 * value),
      voiceRate,
    );
    filmSinger(file('plate.mp4'), 3, null);
    const sound = file('heard.wav');
    filmSinger(file('left 1.mp4'), length, (time) => voice.open(begins + time - late), { sound });
    filmSinger(file('left 2.mp4'), length, (time) => other.open(begins + time), { sound });
    filmSinger(file('right 1.mp4'), 4, (time) => other.open(time), { right: true });
    const bench = await open({ seed: await seeded(), at: 'station=match' });
    await bench.bringIn(file('song.wav'));
    await bench.settled();
    await bench.bringIn(...['plate.mp4', 'left 1.mp4', 'left 2.mp4', 'right 1.mp4'].map(file));
    await bench.page.locator('[data-take="Right 1"] img').waitFor();
    await bench.settled();
    await bench.page.locator('[data-pair="Left 1 with Right 1"]').click();
    await bench.page.getByRole('button', { name: /^Use this pair/ }).click();
    await bench.arrived();
    await bench.settled();
    const found = bench.finding('playback.lips-off');
    const said = await found.innerText();
    expect(said).toMatch(/Lips in Left 1 come 0\.\d+ s after what is sung/);
    const told = Number(/come (0\.\d+) s/.exec(said)?.[1]);
    expect(Math.abs(told - late)).toBeLessThan(0.07);
    await found.getByRole('button', { name: 'Lay it on the song' }).click();
    await found.waitFor({ state: 'detached' });
    await bench.found('playback.lips-on');
    const moment = (await bench.records()).find((one) => one.kind === 'moment');
    if (moment?.kind !== 'moment') throw new Error('There is no moment.');
    const shown = timeOfBeat(await bench.grid(), moment.start);
    expect(Math.abs(begins + fillOf(moment, 'left').at - late - shown)).toBeLessThan(0.07);
    // Somebody whose mouth says something else has no lips that could be laid.
    await bench.choose('Take for the left', 'Left 2');
    await bench.settled();
    expect(await bench.page.locator('[data-finding^="playback.lips"]').count()).toBe(0);
  });
});
