import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { readAside, readLength, sayAside, sayLength } from './units';

describe('distances to the side', () => {
  it('are said without a sign, and read with a side, a sign, or neither', () => {
    expect([-0.7, 0, 0.7].map((metres) => sayAside(metres, 'metric'))).toEqual([
      '70 cm left',
      'straight ahead',
      '70 cm right',
    ]);
    for (const metres of [-1.23, 0, 0.4])
      for (const units of ['metric', 'imperial'] as const)
        expect(readAside(sayAside(metres, units), units)).toBeCloseTo(metres, 1);
    expect(readAside('70 left', 'metric')).toBeCloseTo(-0.7, 9);
    expect(readAside('-70', 'metric')).toBeCloseTo(-0.7, 9);
    expect(readAside('left', 'metric')).toBeNull();
  });
});

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
    expect(readLength('2m50', 'metric')).toBeCloseTo(2.5, 10);
    expect(readLength('2 m 5 cm', 'imperial')).toBeCloseTo(2.05, 10);
    expect(readLength('1,200 mm', 'metric')).toBeCloseTo(1.2, 10);
    expect(readLength('1,200', 'metric')).toBeCloseTo(12, 10);
    expect(readLength('2,500 m', 'metric')).toBeCloseTo(2.5, 10);
    expect(readLength('1,5', 'metric')).toBeCloseTo(0.015, 10);
    for (const nonsense of ['', 'far', '2 yards', 'm', '2m5x'])
      expect(readLength(nonsense, 'metric')).toBeNull();
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
