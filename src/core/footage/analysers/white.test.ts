import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../../random';
import { white } from './white';

const analysis = { width: 160, height: 90 };
type Lit = { from: number; until: number; code?: number; left?: number; width?: number; bottom?: number };

/** Pictures of a room in which somebody moves; a screen in it is lit for some time, and a shutter is open for half of each picture. */
function seenIn(rate: number, seconds: number, lit: readonly Lit[], noise = 3): number | null {
  const next = seeded(7);
  const pass = white.begin({ analysis, fullRange: false });
  for (let index = 0; index < seconds * rate; index++) {
    const time = index / rate;
    const person = 30 + 20 * Math.sin(time);
    const luma = Uint8Array.from({ length: analysis.width * analysis.height }, (_, at) => {
      const [x, y] = [at % analysis.width, Math.floor(at / analysis.width)];
      let code = 60 + 0.4 * x;
      if (Math.abs(x - person) < 12 && y > 30) code = 170;
      for (const { from, until, code: bright = 220, left = 90, width = 25, bottom = 60 } of lit) {
        if (x < left || x >= left + width || y < 20 || y >= bottom) continue;
        const open = 0.5 / rate;
        const share = Math.max(0, Math.min(until, time + open) - Math.max(from, time)) / open;
        code += (bright - code) * Math.min(1, share);
      }
      return Math.round(code + noise * 2 * (next() - 0.5));
    });
    pass.push(luma, time);
  }
  return pass.finish().small.time;
}
/** One picture of a screen. */
const once = (from: number): Lit => ({ from, until: from + 1 / 60 });

describe('the white picture of a slate', () => {
  it('is found in the picture that saw it, at any rate', () => {
    for (const rate of [24, 25, 30, 60, 120]) {
      const shown = 1 + 0.2 / rate;
      const seen = seenIn(rate, 2.5, [once(shown)]);
      expect(Math.abs((seen ?? NaN) - shown), `${rate}`).toBeLessThan(Math.max(0.5 / rate, 1 / 60));
    }
  });

  it('is not seen where the shutter was closed, nor where there is none', () => {
    expect(seenIn(24, 2.5, [once(1 + 0.55 / 24)])).toBeNull();
    expect(seenIn(24, 2.5, [])).toBeNull();
    // At the very beginning nobody can say that it was dark before.
    expect(seenIn(24, 2.5, [once(0)])).toBeNull();
  });

  it('is neither a lamp that goes on, nor one that stays lit, nor one that flashes on and on', () => {
    expect(seenIn(24, 2.5, [{ from: 1, until: 9 }])).toBeNull();
    expect(seenIn(24, 2.5, [{ from: 1, until: 1.3 }])).toBeNull();
    const strobe = Array.from({ length: 6 }, (_, index) => once(0.6 + index * 0.5));
    expect(seenIn(24, 4, strobe)).toBeNull();
    // Something small that glints.
    expect(seenIn(24, 2.5, [{ ...once(1), width: 10, bottom: 27 }])).toBeNull();
  });

  it('is the last one where the slate was begun again, and not a weaker light after it', () => {
    const seen = seenIn(25, 5, [once(1), once(2.4), { ...once(4), code: 120 }]);
    expect(Math.abs((seen ?? NaN) - 2.4)).toBeLessThan(0.03);
  });

  it('is found wherever it comes, to within a picture', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 40 }),
        fc.double({ min: 0, max: 0.18, noNaN: true }),
        (picture, part) => {
          const shown = (picture + part) / 24;
          expect(Math.abs((seenIn(24, 2.2, [once(shown)]) ?? NaN) - shown)).toBeLessThan(1 / 24);
        },
      ),
      { numRuns: 8 },
    );
  });
});
