import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deliveryRates, frameOfTime, nearestRate, perSecond, rateLabel, timeOfFrame } from './rate';
import { formatClock, formatTimecode, parseTimecode } from './timecode';

const film = { num: 24000, den: 1001 };
const ntsc = { num: 30000, den: 1001 };

describe('timecode', () => {
  // SMPTE ST 12-1, drop-frame counting.
  it('drops two numbers a minute but not each tenth minute', () => {
    const last = parseTimecode('00:00:59;29', ntsc);
    expect(formatTimecode(last + 1, ntsc)).toBe('00:01:00;02');
    expect(formatTimecode(17_982, ntsc)).toBe('00:10:00;00');
    expect(formatTimecode(107_892, ntsc)).toBe('01:00:00;00');
  });

  it('never drops at 24000/1001', () => {
    expect(formatTimecode(24 * 60, film)).toBe('00:01:00:00');
    expect(formatTimecode(-25, film)).toBe('-00:00:01:01');
  });

  it('reads back what it writes, at every rate', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...deliveryRates),
        fc.integer({ min: 0, max: 2_500_000 }),
        (rate, frame) => {
          expect(parseTimecode(formatTimecode(frame, rate), rate)).toBe(frame);
        },
      ),
    );
  });

  it('refuses text and numbers that do not exist', () => {
    for (const text of ['', 'now', '00:01:00;00', '00:00:00:30', '00:61:00:00']) {
      expect(() => parseTimecode(text, ntsc)).toThrow(expect.objectContaining({ code: 'timecode' }));
    }
  });

  it('writes a clock that people read', () => {
    expect(formatClock(65.204)).toBe('1:05.20');
    expect(formatClock(59.999)).toBe('1:00.00');
  });
});

describe('rates', () => {
  it('rounds from absolute time, so that nothing adds up', () => {
    // 128 beats a minute at 24000/1001 is 11.23876 frames a beat (arithmetic).
    expect((perSecond(film) * 60) / 128).toBeCloseTo(11.23876, 4);
    fc.assert(
      fc.property(
        fc.constantFrom(...deliveryRates),
        fc.double({ min: 0, max: 20_000, noNaN: true }),
        (rate, time) => {
          const off = Math.abs(timeOfFrame(rate, frameOfTime(rate, time)) - time);
          expect(off).toBeLessThanOrEqual(0.5 / perSecond(rate) + 1e-9);
        },
      ),
    );
  });

  it('names the nearest delivery rate', () => {
    expect(nearestRate(23.98)).toEqual(film);
    expect(rateLabel(film)).toBe('23.976');
    expect(rateLabel({ num: 25, den: 1 })).toBe('25');
  });
});
