import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heardFrom, inRoom, noisy, rate, song } from './__tests__/heard';
import { alignSound } from './align-sound';

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
