import { describe, expect, it } from 'vitest';
import { readPcm } from '@/core/formats/wav';
import { wholeSound } from '@/core/sounds/sound';
import { soundRate, synthesise } from '@/core/sounds/synthesis';
import { soundBetween, soundsAlone, songWithSounds, wavOf, type SoundTask } from './sounds';

/** A song in which each sample tells its second. */
const song = (seconds: number, channels = 2) =>
  wavOf(
    Array.from({ length: channels }, () =>
      Float32Array.from({ length: seconds * soundRate }, (_, at) => at / soundRate / 20),
    ),
  );
const clickAt = (seconds: number, more = {}): SoundTask => ({
  source: 'click',
  settings: wholeSound({ sound: 'click', by: 'start', level: -20, ...more }, null),
  seconds,
});
const read = async (blob: Blob) => readPcm(await blob.arrayBuffer()).channels;
const rounding = 1 / 32_000;

describe('the song with sounds in it', () => {
  it('is as long as the song, with every sound on its second and the song as it was elsewhere', async () => {
    // Two that lie over each other, one across the end, one before the beginning, in no order.
    const tasks = [clickAt(3.02), clickAt(0.5), clickAt(3), clickAt(5.98), clickAt(-0.02)];
    const [left, right] = await read(await songWithSounds(song(6), tasks, 99));
    const [plain] = await read(song(6));
    const click = synthesise('click');
    expect(left).toHaveLength(6 * soundRate);
    expect(right).toEqual(left);
    const expected = plain.slice();
    for (const { seconds } of tasks)
      click.forEach((value, at) => {
        const to = Math.round(seconds * soundRate) + at;
        if (to >= 0 && to < expected.length) expected[to] += value / 10;
      });
    const off = left.reduce((most, value, at) => Math.max(most, Math.abs(value - expected[at])), 0);
    expect(off).toBeLessThan(2 * rounding);
  });

  it('without a song it is silence as long as asked, with the sounds in it', async () => {
    const [only, other] = await read(await songWithSounds(null, [clickAt(1)], 3));
    expect(other).toBeUndefined();
    expect(only).toHaveLength(3 * soundRate);
    expect(Math.abs(only[soundRate + 40] - synthesise('click')[40] / 10)).toBeLessThan(rounding);
    expect(only.subarray(0, soundRate).every((value) => value === 0)).toBe(true);
  });

  it('a stretch before the song, across its end and beyond it is silent where the song is not', async () => {
    const [before] = await soundBetween(song(2, 1), [], -0.5, 1);
    expect(before[0]).toBe(0);
    expect(before[Math.round(0.75 * soundRate)]).toBeCloseTo(0.25 / 20, 4);
    const [end] = await soundBetween(song(2, 1), [], 1.5, 1);
    expect(end[Math.round(0.25 * soundRate)]).toBeCloseTo(1.75 / 20, 4);
    expect(end[Math.round(0.75 * soundRate)]).toBe(0);
    const [beyond] = await soundBetween(song(2, 1), [], 5, 1);
    expect(beyond.every((value) => value === 0)).toBe(true);
    const [earlier] = await soundBetween(song(2, 1), [], -5, 1);
    expect(earlier.every((value) => value === 0)).toBe(true);
  });

  it("sounds alone begin with the shot; a file of one's own is mixed to one channel", async () => {
    const own = wavOf([new Float32Array(4800).fill(0.5), new Float32Array(4800).fill(-0.25)]);
    const [alone] = await read(await soundsAlone([{ ...clickAt(7.25), source: own }], 7, 1));
    expect(alone).toHaveLength(soundRate);
    expect(alone[soundRate / 4 - 1]).toBe(0);
    expect(alone[soundRate / 4 + 100]).toBeCloseTo(0.0125, 4);
  });
});
