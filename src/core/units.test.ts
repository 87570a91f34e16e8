import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { readLength, sayLength } from './units';

describe('lengths', () => {
  it('are shown as a tape shows them', () => {
    expect(sayLength(2.48, 'metric')).toBe('248 cm');
    expect(sayLength(12.44, 'metric')).toBe('12.4 m');
    expect(sayLength(-0.7, 'metric')).toBe('−70 cm');
    expect(sayLength(2.48, 'imperial')).toBe('8′ 1½″');
    expect(sayLength(0.3048, 'imperial')).toBe('1′ 0″');
    expect(sayLength(Infinity, 'metric')).toBe('the horizon');
  });

  it('are read in either unit, bare numbers in the one in use', () => {
    expect(readLength('250', 'metric')).toBe(2.5);
    expect(readLength('2,5 m', 'imperial')).toBe(2.5);
    expect(readLength('100', 'imperial')).toBeCloseTo(2.54, 10);
    expect(readLength('8 ft 2 in', 'metric')).toBeCloseTo(2.4892, 10);
    expect(readLength("8'2", 'metric')).toBeCloseTo(2.4892, 10);
    for (const nonsense of ['', 'far', '2 yards', 'm']) expect(readLength(nonsense, 'metric')).toBeNull();
  });

  it('come back from what was shown to the half inch or centimetre', () => {
    fc.assert(
      fc.property(fc.double({ min: -9, max: 9, noNaN: true }), (metres) => {
        expect(Math.abs((readLength(sayLength(metres, 'metric'), 'metric') ?? NaN) - metres)).toBeLessThan(
          0.0051,
        );
        const read = readLength(sayLength(metres, 'imperial'), 'imperial') ?? NaN;
        expect(Math.abs(read - metres)).toBeLessThan(0.0064);
      }),
    );
  });
});
