import { describe, expect, it } from 'vitest';
import { layBeep } from '../song/click';
import { inRoom, noisy, rate, song } from './__tests__/heard';
import { findBeep } from './beep';

const silent = (seconds: number) => new Float32Array(Math.round(seconds * rate));
function beepsAt(...times: number[]): Float32Array {
  const sound = silent(10);
  for (const time of times) layBeep(sound, time, rate);
  return sound;
}

describe('the beep of a slate', () => {
  it('is found to three milliseconds in rooms, with noise', () => {
    const offs: number[] = [];
    for (let seed = 1; seed <= 12; seed++)
      for (const decibels of [0, 10]) {
        const at = 3 + 0.137 * seed;
        const found = findBeep(noisy(inRoom(beepsAt(at), seed), decibels, seed), rate);
        if (found !== null) offs.push(Math.abs(found - at));
      }
    console.info(
      `Found in ${offs.length} of 24, off by at most ${(1000 * Math.max(...offs)).toFixed(1)} ms.`,
    );
    expect(offs.length).toBeGreaterThanOrEqual(21);
    expect(Math.max(...offs)).toBeLessThan(0.003);
  });

  it('is found to half a millisecond with nothing round it', () => {
    expect(Math.abs((findBeep(beepsAt(2.345), rate) as number) - 2.345)).toBeLessThan(0.0005);
  });

  it('is the last one where the slate was begun again', () => {
    expect(findBeep(beepsAt(2, 6), rate)).toBeCloseTo(6, 2);
  });

  it('is not there in silence, in noise, in music, in longer and other tones', () => {
    const tone = (hertz: number, seconds: number) => {
      const sound = silent(8);
      for (let at = 0; at < seconds * rate; at++)
        sound[2 * rate + at] = 0.5 * Math.sin((2 * Math.PI * hertz * at) / rate);
      return sound;
    };
    const none = [
      silent(0.1),
      silent(8),
      noisy(song(20, 3), 30, 2),
      song(20, 8),
      tone(1000, 1),
      tone(1200, 1 / 24),
    ];
    none.push(noisy(silent(8).fill(1e-6), -100, 2));
    for (const sound of none) expect(findBeep(sound, rate)).toBeNull();
  });
});
