import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { laySound, loudestAt, mixSounds } from './lay';
import { limit } from './limit';
import { soundNames, wholeSound, type SoundPoint } from './sound';
import { soundRate, synthesise } from './synthesis';

/** Power of a tone in a sound, by the discrete Fourier transform at that one frequency. */
function toneOf(samples: Float32Array, hertz: number): number {
  let [re, im] = [0, 0];
  samples.forEach((value, at) => {
    re += value * Math.cos((2 * Math.PI * hertz * at) / soundRate);
    im += value * Math.sin((2 * Math.PI * hertz * at) / soundRate);
  });
  return re * re + im * im;
}
const bandPower = (samples: Float32Array, from: number, to: number): number =>
  Array.from({ length: 60 }, (_, step) => toneOf(samples, from + ((to - from) * step) / 60)).reduce(
    (a, b) => a + b,
  ) *
  (to - from);
const powerOf = (samples: Float32Array) => samples.reduce((sum, value) => sum + value * value, 0);

describe('the sounds that come with the bench', () => {
  it.each(soundNames)('%s is the same each time, within full scale, silent at its ends', (name) => {
    const samples = synthesise(name);
    expect(samples).toEqual(synthesise(name));
    expect(Math.max(...samples.map(Math.abs))).toBeCloseTo(0.9, 5);
    expect(Math.abs(samples[0])).toBeLessThan(0.02);
    expect(Math.abs(samples[samples.length - 1])).toBeLessThan(0.02);
  });

  it('each has what its name says', () => {
    const thump = synthesise('thump');
    expect(bandPower(thump, 20, 200)).toBeGreaterThan(4 * bandPower(thump, 200, 6000));
    expect(loudestAt(thump) / soundRate).toBeLessThan(0.06);
    const cloth = synthesise('cloth');
    expect(bandPower(cloth, 1500, 9000)).toBeGreaterThan(4 * bandPower(cloth, 20, 1000));
    const whoosh = synthesise('whoosh');
    expect(loudestAt(whoosh) / whoosh.length).toBeGreaterThan(0.4);
    expect(loudestAt(whoosh) / whoosh.length).toBeLessThan(0.7);
    const riser = synthesise('riser');
    const half = riser.length / 2;
    expect(powerOf(riser.slice(half))).toBeGreaterThan(5 * powerOf(riser.slice(0, half)));
    expect(synthesise('click').length / soundRate).toBeLessThan(0.1);
  });
});

/** Silence with a burst in it: 20 ms about a sample. */
function burst(length: number, at: number): Float32Array {
  const out = new Float32Array(length);
  for (let near = -480; near <= 480; near++) out[at + near] = 0.5 * Math.cos((Math.PI * near) / 960) ** 2;
  return out;
}

describe('sounds on their frames', () => {
  it('the loudest point of a burst is its middle', () => {
    fc.assert(
      fc.property(fc.integer({ min: 600, max: 8000 }), (at) => {
        expect(Math.abs(loudestAt(burst(9000, at)) - at)).toBeLessThanOrEqual(1);
      }),
    );
  });

  it.each<[SoundPoint, boolean, number]>([
    ['start', false, 2],
    ['loudest', false, 2 - 3000 / soundRate],
    ['end', false, 2 - 9000 / soundRate],
    ['loudest', true, 2 - 5999 / soundRate],
  ])('its %s lies on the frame; turned round: %s', (by, backwards, from) => {
    const laid = laySound(burst(9000, 3000), wholeSound({ by, backwards }, null), 2);
    expect(laid.from).toBeCloseTo(from, 4);
    expect(laySound(burst(9000, 3000), wholeSound({ by, backwards, lead: 40 }, null), 2).from).toBeCloseTo(
      from - 0.04,
      4,
    );
  });

  it('is mixed in at its sample and at its level, also where it begins before the stretch', () => {
    const sound = laySound(burst(9000, 3000), wholeSound({ level: -20 }, null), 10.25);
    for (const start of [10, 10.2]) {
      const channels = [new Float32Array(24_000), new Float32Array(24_000).fill(0.25)];
      mixSounds(channels, start, [sound]);
      const hit = Math.round((10.25 - start) * soundRate);
      expect(loudestAt(channels[0])).toBeCloseTo(hit, -0.5);
      expect(channels[0][hit]).toBeCloseTo(0.05, 4);
      expect(channels[1][hit]).toBeCloseTo(0.3, 4);
      expect(channels[1][hit + 8000]).toBe(0.25);
    }
  });

  it('swells and fades in as many milliseconds as said', () => {
    const flat = new Float32Array(4800).fill(1);
    const { samples } = laySound(flat, wholeSound({ swell: 20, fade: 50, level: 0 }, null), 1);
    expect(samples[480]).toBeCloseTo(0.5, 2);
    expect(samples[960]).toBeCloseTo(1, 5);
    expect(samples[4799 - 1200]).toBeCloseTo(0.5, 2);
    expect(samples[4799]).toBe(0);
  });
});

describe('full scale', () => {
  it('nothing goes beyond it, and what is far from a peak stays what it was', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 9999 }),
        fc.double({ min: 1.1, max: 4, noNaN: true }),
        (at, size) => {
          const [left, right] = [0, 1].map((phase) =>
            Float32Array.from({ length: 10_000 }, (_, i) => 0.9 * Math.sin(i * 0.05 + phase)),
          );
          const before = left.slice();
          left[at] = size;
          limit([left, right], soundRate);
          expect(Math.max(...left.map(Math.abs), ...right.map(Math.abs))).toBeLessThanOrEqual(1.0001);
          // twice the 5 ms over which gain is turned down and up
          left.forEach((value, i) => Math.abs(i - at) > 480 && expect(value).toBe(before[i]));
        },
      ),
      { numRuns: 20 },
    );
  });

  it('leaves a song alone that uses all of it', () => {
    const song = Float32Array.from({ length: 2000 }, (_, i) => (i % 2 ? 1 : -32_768 / 32_767));
    const before = song.slice();
    limit([song], soundRate);
    expect(song).toEqual(before);
  });
});
