import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readAfterSlash, readBeatPlace, readClock, readNumber } from './read-number';
import { barAndBeat, beatLabel, regularGrid } from './time/grid';
import { formatClock } from './time/timecode';

describe('numbers as people write them', () => {
  // Common practice of European and American writing, no published source.
  it.each([
    ['12', 12],
    ['1.5', 1.5],
    ['1,5', 1.5],
    [',5 s', 0.5],
    ['.25', 0.25],
    ['0,125', 0.125],
    ['1,920', 1920],
    ['1,920 px', 1920],
    ['1.920', 1.92],
    ['1,920.5', 1920.5],
    ['1.920,5', 1920.5],
    ['1 920', 1920],
    ['1’234’567', 1_234_567],
    ['1,234,567', 1_234_567],
    ['1.234.567', 1_234_567],
    ['−3 px', -3],
    ['- 3', -3],
    ['60 ms.', 60],
    ['at 55 %', 55],
  ])('%s is %d', (text, value) => expect(readNumber(text)).toBe(value));

  it.each(['', 'beat', '–', '%', 'e'])('"%s" is none', (text) => expect(readNumber(text)).toBeNull());

  it('reads what stands behind a stroke', () => {
    expect(['f/2.8', 'f/2,8', '1/50 s', '50', '1/'].map(readAfterSlash)).toEqual([2.8, 2.8, 50, 50, null]);
  });

  it('reads back what the browser writes in English, German, French and Swiss', () => {
    for (const language of ['en', 'de', 'fr', 'de-CH']) {
      const format = new Intl.NumberFormat(language, { maximumFractionDigits: 2 });
      fc.assert(
        fc.property(fc.integer({ min: -9_999_999, max: 9_999_999 }), (hundredths) => {
          const value = hundredths / 100;
          // One dot before three digits is a decimal sign here: German thousands without a fraction are read so.
          fc.pre(!/^-?\d{1,3}\.\d{3}$/.test(format.format(value)));
          expect(readNumber(format.format(value))).toBeCloseTo(value, 9);
        }),
      );
    }
  });
});

describe('places among beats', () => {
  const grid = regularGrid(120, 0, 60);
  it.each([
    ['10', 'bar 10, beat 1'],
    ['10.4', 'bar 10, beat 4'],
    ['10 4', 'bar 10, beat 4'],
    ['10:4', 'bar 10, beat 4'],
    ['10.4.5', 'bar 10, beat 4.5'],
    ['10.4,5', 'bar 10, beat 4.5'],
    ['bar 10', 'bar 10, beat 1'],
    ['bar 10, beat 2.5', 'bar 10, beat 2.5'],
  ])('%s is %s', (text, label) => expect(beatLabel(grid, readBeatPlace(grid, text) as number)).toBe(label));

  it.each(['', 'soon', 'beat 3'])('"%s" names no bar', (text) =>
    expect(readBeatPlace(grid, text)).toBeNull(),
  );

  it('are read back from their own labels', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400 }), (quarters) => {
        const place = quarters / 4;
        expect(readBeatPlace(grid, beatLabel(grid, place))).toBeCloseTo(place, 9);
        const { bar, beat } = barAndBeat(grid, place);
        expect(readBeatPlace(grid, `${bar}.${Math.floor(beat)}`)).toBeCloseTo(Math.floor(place), 9);
      }),
    );
  });
});

describe('seconds of a clock', () => {
  // Common practice, no published source.
  it.each([
    ['75', 75],
    ['1:02.5', 62.5],
    ['0:40', 40],
    ['1:00:02', 3602],
    ['soon', null],
    ['1:soon', null],
    ['1:-2', null],
    ['1:2:3:4', null],
  ])('"%s" is %s', (text, wanted) => expect(readClock(text)).toBe(wanted));

  it('are read back as they are written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 600_000 }), (hundredths) => {
        expect(readClock(formatClock(hundredths / 100))).toBeCloseTo(hundredths / 100, 6);
      }),
    );
  });
});
