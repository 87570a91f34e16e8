import { describe, expect, it } from 'vitest';
import { bandCount, type Bands } from '../bands';
import check from './check.json';
import { channelCount, hear } from './input';
import { listen, tempoLikely } from './network';
import weights from './weights.json';

describe('the model of beats', () => {
  it('makes of its layers what numpy makes of them', () => {
    // Source: bench/learn/train.py, which reckons check.json from the same bytes in double precision.
    const { frames, beat, first, tempos } = check;
    const rows = new Float64Array(channelCount * frames);
    for (let channel = 0; channel < channelCount; channel++)
      for (let frame = 0; frame < frames; frame++)
        rows[frame * channelCount + channel] = Math.abs(
          Math.sin(0.7 * channel + 0.23 * frame) * Math.cos(0.05 * frame),
        );
    const told = listen({ rate: 50, start: 0, frames, rows });
    const near = (found: ArrayLike<number>, wanted: readonly number[], within: number) =>
      wanted.forEach((value, at) => expect(Math.abs(found[at] - value)).toBeLessThan(within));
    near(told.beat, beat, 2e-4);
    near(told.first, first, 2e-4);
    near(told.tempos, tempos, 2e-3);
    const most = told.tempos.indexOf(Math.max(...told.tempos));
    const bpm = weights.slowest * 2 ** ((weights.octaves * most) / told.tempos.length);
    expect(tempoLikely(told, bpm)).toBeCloseTo(told.tempos[most], 5);
  });

  it('is worth what it weighs: under 500 kB', () => {
    expect(JSON.stringify(weights).length).toBeLessThan(500_000);
  });

  it('hears levels and rises of two hops as one frame, and no change where there are no notes', () => {
    const hops = 41;
    const levels = Float32Array.from({ length: hops * bandCount }, (_, at) => (at * 37) % 11);
    const bands: Bands = {
      rate: 100,
      start: 0.02,
      hops,
      levels,
      hertz: new Array<number>(bandCount).fill(100),
    };
    const tonal = { rate: 10, start: 0.2, frames: 0, sums: new Float64Array(24) };
    const { frames, rows, rate, start } = hear(bands, tonal);
    expect([frames, rate, start]).toEqual([20, 50, 0.025]);
    const level = (hop: number, band: number) => levels[hop * bandCount + band] ?? -Infinity;
    const rise = (hop: number, band: number) =>
      hop < 2
        ? 0
        : Math.max(
            0,
            level(hop, band) -
              Math.max(
                ...[band - 1, band, band + 1]
                  .filter((one) => one >= 0 && one < bandCount)
                  .map((one) => level(hop - 2, one)),
              ),
          );
    for (let frame = 0; frame < frames; frame++)
      for (let band = 0; band < bandCount; band++) {
        expect(rows[frame * channelCount + band]).toBeCloseTo(
          (level(2 * frame, band) + level(2 * frame + 1, band)) / 2,
          5,
        );
        expect(rows[frame * channelCount + bandCount + band]).toBeCloseTo(
          rise(2 * frame, band) + rise(2 * frame + 1, band),
          5,
        );
      }
    expect([...rows].every((value, at) => at % channelCount < 2 * bandCount || value === 0)).toBe(true);
  });
});
