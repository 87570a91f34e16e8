import { describe, expect, it } from 'vitest';
import { readAperture, readShutter } from './read-shutter';

describe('a shutter as people type it', () => {
  it.each([
    ['1/50', 50],
    ['1/50 s', 50],
    ['50', 50],
    ['1,200', 1200],
    ['1/1,200', 1200],
    ['0.02 s', 50],
    ['0,02', 50],
    ['.004', 250],
    ['2 s', 0.5],
    ['180°', 2 * 24],
    ['90 deg', 4 * 24],
    ['2/100', 50],
  ])('%s is one %d-th of a second', (text, part) => expect(readShutter(text, 24)).toBeCloseTo(part, 9));

  it.each(['', '0', '1/0', '0 s', '0/50', '0°', '400°', 'fast'])('"%s" is none', (text) =>
    expect(readShutter(text, 24)).toBeNull(),
  );

  it('is an aperture that is never nothing', () => {
    expect(['f/2.8', '2,8', 'f 4', 'f/0', '0', ''].map(readAperture)).toEqual([
      2.8,
      2.8,
      4,
      null,
      null,
      null,
    ]);
  });
});
