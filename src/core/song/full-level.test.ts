import { describe, expect, it } from 'vitest';
import { seeded } from '../random';
import { fullLevel } from './full-level';

const rate = 22050;
const sound = (seconds: number, at: (sample: number) => number) => ({
  data: Float32Array.from({ length: seconds * rate }, (_, sample) => at(sample)),
  rate,
});

describe('what counts as full level', () => {
  const next = seeded(4);
  const noise = sound(30, () => 0.2 * (2 * next() - 1));

  it('is the peaks of the music, and one click far above it changes nothing', () => {
    const full = fullLevel(noise);
    expect(full).toBeGreaterThan(0.19);
    expect(full).toBeLessThanOrEqual(0.2);
    const clicked = { ...noise, data: noise.data.slice() };
    clicked.data[9 * rate] = 1;
    expect(fullLevel(clicked)).toBeCloseTo(full, 4);
  });

  it('is no further than 18 dB below the loudest sample, so that a few strokes in silence are heard', () => {
    const strokes = sound(60, (sample) => (sample % (20 * rate) === 5 ? 0.8 : 0));
    expect(fullLevel(strokes)).toBeCloseTo(0.1, 6);
  });

  it('is nothing in silence, and no number where the sound has none', () => {
    expect(fullLevel(sound(5, () => 0))).toBe(0);
    expect(fullLevel(sound(0, () => 0))).toBe(0);
    expect(fullLevel(sound(5, (sample) => (sample === 700 ? NaN : 0.1)))).toBeNaN();
  });
});
