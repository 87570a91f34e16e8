import { describe, expect, it } from 'vitest';
import { readCoordinate, sayCoordinate } from './read-place';

describe('a coordinate as people type it', () => {
  it.each([
    ['41.15', 41.15],
    ['41,15', 41.15],
    ['-33.87', -33.87],
    ['−33,87', -33.87],
    ['33.87 S', -33.87],
    ['S 33.87', -33.87],
    ['33°52′12″ s', -(33 + 52 / 60 + 12 / 3600)],
    ["33° 52.2' south", -33.87],
    ['41 9 N', 41.15],
    ['0', 0],
  ])('%s is %d degrees of latitude', (text, value) =>
    expect(readCoordinate(text, 'latitude')).toBeCloseTo(value, 9),
  );

  it.each([
    ['8.61 W', -8.61],
    ['8°36′36″W', -8.61],
    ['west 8,61', -8.61],
    ['151.2 E', 151.2],
    ['-8.61 W', -8.61],
  ])('%s is %d degrees of longitude', (text, value) =>
    expect(readCoordinate(text, 'longitude')).toBeCloseTo(value, 9),
  );

  it.each(['', 'here', '95', '41.15 W', '41 70 N', '-41 N', '41.5 30', '4 1 1 1', '41 N 8 W', '1e3'])(
    '"%s" is no latitude',
    (text) => expect(readCoordinate(text, 'latitude')).toBeNull(),
  );

  it('is said with its side, and read again as the same', () => {
    for (const value of [41.15, -33.87, 0, -0.5]) {
      const said = sayCoordinate(value, 'latitude');
      expect(readCoordinate(said, 'latitude')).toBeCloseTo(value, 2);
    }
    expect(sayCoordinate(-8.61, 'longitude')).toBe('8.61° west');
  });
});
