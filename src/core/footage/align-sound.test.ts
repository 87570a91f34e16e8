import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../random';
import { alignSound } from './align-sound';

const rate = 48_000;

/** A song of hits and tones, so many seconds long. */
function song(seconds: number, seed: number): Float32Array {
  const out = new Float32Array(Math.round(seconds * rate));
  const next = seeded(seed);
  for (let beat = 0; beat < seconds / 0.25; beat++) {
    const from = Math.round(beat * 0.25 * rate);
    const [pitch, tone, hit] = [110 * 2 ** (Math.floor(next() * 24) / 12), next(), next() < 0.5 ? 0.6 : 0.1];
    for (let at = 0; at < 0.4 * rate && from + at < out.length; at++) {
      const fades = Math.exp(-at / (0.12 * rate));
      const t = at / rate;
      out[from + at] +=
        0.3 * tone * fades * (Math.sin(2 * Math.PI * pitch * t) + 0.5 * Math.sin(4 * Math.PI * pitch * t)) +
        hit * Math.exp(-at / (0.02 * rate)) * (next() - 0.5);
    }
  }
  return out;
}

/** A sound at a place between samples, and at another clock, by a windowed sinc over 32 samples. */
function heardFrom(sound: Float32Array, start: number, seconds: number, drift: number): Float32Array {
  return Float32Array.from({ length: Math.round(seconds * rate) }, (_, index) => {
    const place = (start + (index / rate) * (1 + drift / 1e6)) * rate;
    const middle = Math.floor(place);
    let sum = 0;
    for (let tap = middle - 15; tap <= middle + 16; tap++) {
      const x = Math.PI * (place - tap);
      const window = 0.5 + 0.5 * Math.cos(x / 16.5);
      sum += (sound[tap] ?? 0) * window * (Math.abs(x) < 1e-9 ? 1 : Math.sin(x) / x);
    }
    return sum;
  });
}

/** As a room sounds: twelve reflections from its walls within a twelfth of a second, each weaker, and a tail. */
function inRoom(sound: Float32Array, seed: number): Float32Array {
  const next = seeded(seed);
  const echoes = Array.from({ length: 60 }, (_, index) => {
    const seconds = 0.004 + (0.25 * index) / 60 + 0.003 * next();
    return {
      late: Math.round(seconds * rate),
      share: (next() < 0.5 ? -0.6 : 0.6) * Math.exp(-seconds / 0.08),
    };
  });
  return sound.map((value, at) =>
    echoes.reduce((sum, { late, share }) => sum + share * (sound[at - late] ?? 0), value),
  );
}

/** With noise that is so many decibels weaker. */
function noisy(sound: Float32Array, decibels: number, seed: number): Float32Array {
  const next = seeded(seed);
  const power = sound.reduce((sum, value) => sum + value * value, 0) / sound.length;
  const spread = Math.sqrt(power / 10 ** (decibels / 10));
  return sound.map((value) => value + spread * (next() + next() + next() + next() - 2) * Math.sqrt(3));
}

describe('a sound on another one', () => {
  const played = song(40, 5);

  it('is found to a millisecond at 10 dB in a room, at another clock', () => {
    const errors: number[] = [];
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 24, noNaN: true }),
        fc.double({ min: -80, max: 80, noNaN: true }),
        fc.integer({ min: 1, max: 1000 }),
        (start, drift, seed) => {
          const heard = noisy(inRoom(heardFrom(played, start, 12, drift), seed), 10, seed + 1);
          const found = alignSound(played, heard, rate);
          errors.push(Math.abs(found.offset - start));
          expect(Math.abs(found.offset - start)).toBeLessThan(0.001);
          // At the end, where the clocks are furthest apart.
          expect(Math.abs(found.offset + (found.drift * 12) / 1e6 - start - (drift * 12) / 1e6)).toBeLessThan(
            0.001,
          );
          expect(found.confidence).toBeGreaterThan(0.6);
        },
      ),
      { numRuns: 6 },
    );
    console.info(`Off by at most ${(1000 * Math.max(...errors)).toFixed(3)} ms.`);
  });

  it('is found to a sample without a room or noise, and its clock to ten parts in a million', () => {
    const found = alignSound(played, heardFrom(played, 7.123_456, 25, 50), rate);
    expect(Math.abs(found.offset - 7.123_456)).toBeLessThan(1 / rate);
    expect(Math.abs(found.drift - 50)).toBeLessThan(10);
    expect(found.confidence).toBeGreaterThan(0.95);
  });

  it('may begin before the other, or end after it', () => {
    const early = new Float32Array(20 * rate);
    early.set(noisy(played.subarray(0, 15 * rate), 15, 3), 5 * rate);
    expect(alignSound(played, early, rate).offset).toBeCloseTo(-5, 3);
    const late = new Float32Array(20 * rate);
    late.set(played.subarray(30 * rate), 0);
    expect(alignSound(played, noisy(late, 15, 4), rate).offset).toBeCloseTo(30, 3);
  });

  it('is found in a song that was played 2.5 times as fast, once that is', () => {
    const fast = Float32Array.from({ length: Math.floor(played.length / 2.5) }, (_, at) => {
      const place = 2.5 * at;
      const [low, share] = [Math.floor(place), place - Math.floor(place)];
      return played[low] + ((played[low + 1] ?? 0) - played[low]) * share;
    });
    const heard = noisy(inRoom(fast.slice(4.2 * rate, 12.2 * rate), 9), 10, 10);
    expect(Math.abs(alignSound(fast, heard, rate).offset - 4.2)).toBeLessThan(0.002);
  });

  it('is doubted in another song of the same tempo, tones and hits', () => {
    for (const seed of [77, 78, 79, 80])
      expect(alignSound(played, song(12, seed), rate).confidence).toBeLessThan(0.3);
  });

  it('is found with noise that is louder than the song, and says that it is less sure where it is far louder', () => {
    const confidences = [0, -6, -12, -30].map((decibels) => {
      const heard = noisy(inRoom(heardFrom(played, 11.1, 12, 0), 4), decibels, 8);
      const { offset, confidence } = alignSound(played, heard, rate);
      if (confidence > 0.3) expect(Math.abs(offset - 11.1)).toBeLessThan(0.001);
      return confidence;
    });
    console.info(`Sure at 0, −6, −12, −30 dB: ${confidences.map((one) => one.toFixed(2)).join(', ')}.`);
    expect(confidences[0]).toBeGreaterThan(0.8);
    expect(confidences[3]).toBeLessThan(0.1);
  });

  it('is found nowhere in silence, in noise, and in what is no number', () => {
    const silence = new Float32Array(8 * rate);
    const noise = noisy(
      Float32Array.from({ length: 8 * rate }, () => 1e-9),
      -140,
      5,
    );
    for (const [one, two] of [
      [played, silence],
      [silence, played],
      [played, noise],
      [played, new Float32Array(0)],
      [played, Float32Array.from({ length: rate }, () => NaN)],
    ])
      expect(alignSound(one, two, rate)).toEqual({ offset: 0, drift: 0, confidence: 0 });
    expect(() => alignSound(played, noise, 0)).toThrow(expect.objectContaining({ code: 'sample-rate' }));
  });
});
