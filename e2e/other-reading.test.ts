import { describe, expect } from 'vitest';
import type { Moment } from '@/core/model/records';
import { timeOfBeat } from '@/core/time/grid';
import type { MeasureValue } from '@/store/db';
import { songFilm } from './support/films';
import { reseeded } from './support/seeds';
import { test } from './support/test';

describe('beats that are not sure', () => {
  test('offers the other reading of beats that are not sure, one tap away, and moves no moment', async ({
    open,
  }) => {
    const seed = await reseeded(songFilm(), {
      records: (row) => (row.kind === 'song' ? { ...row, confidence: 0.4 } : row),
      measures: (row) => {
        const value = row.value as MeasureValue;
        if (value.method !== 'beats') return row;
        const { beats, downbeats, beatsPerBar, bpm } = value.beats;
        const later = (times: number[]) => times.map((time) => time + 30 / bpm);
        const other = { beats: later(beats), downbeats: later(downbeats), beatsPerBar, bpm };
        return { ...row, value: { ...value, beats: { ...value.beats, other } } };
      },
    });
    const bench = await open({ seed, at: 'station=song' });
    const { page } = bench;
    await page.locator('[data-ribbon]').focus();
    for (let beat = 0; beat < 9; beat++) await page.keyboard.press('ArrowRight');
    await bench.press('Moment here');
    await bench.settled();
    const second = async () => {
      const [moment] = (await bench.records()).filter((one) => one.kind === 'moment') as Moment[];
      return timeOfBeat(await bench.grid(), moment.start);
    };
    const [before, start] = [await bench.grid(), await second()];
    await bench.found('song.unsure');
    expect(await bench.finding('song.unsure').textContent()).toMatch(/It may also be half a beat later/);
    await bench.press('Read it so');
    await bench.settled();
    const after = await bench.grid();
    expect(after.beats[20] - before.beats[20]).toBeCloseTo((before.beats[21] - before.beats[20]) / 2, 1);
    // Beats breathe: half a beat later is not half-way between two, by less than a millisecond.
    expect(await second()).toBeCloseTo(start, 2);
    expect(await bench.finding('song.unsure').count()).toBe(0);
    await page.reload();
    await bench.arrived();
    expect(await bench.grid()).toEqual(after);
    await bench.undo();
    expect(await bench.grid()).toEqual(before);
    await bench.found('song.unsure');
  });
});
