import { describe, expect, it } from 'vitest';
import { regularGrid } from '../time/grid';
import { sayReading } from './certainty';

const reading = (bpm: number, from = 0.5) => ({ ...regularGrid(bpm, from, 60), downbeats: [from], bpm });

describe('another reading in words', () => {
  it.each([
    [reading(120, 0.75), 'half a beat later'],
    [reading(240), 'twice as fast, 240 beats a minute'],
    [reading(60), 'half as fast, 60 beats a minute'],
    [reading(180), '180 beats a minute'],
    [reading(120, 0.6), '100 ms later'],
  ])('says what %o is', (other, said) => {
    expect(sayReading(reading(120), other)).toBe(said);
  });
});
