import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { joinParts, partWanted } from '../footage/found-joins';
import { leastRegion, pixelsOf, regionBetween } from './region';

const share = fc.double({ min: -0.5, max: 1.5, noNaN: true });

describe('a part of a picture', () => {
  it('lies within it, holds something, and is the same from whichever corner it is drawn', () => {
    fc.assert(
      fc.property(share, share, share, share, (x0, y0, x1, y1) => {
        const part = regionBetween([x0, y0], [x1, y1]);
        expect(part).toEqual(regionBetween([x1, y1], [x0, y0]));
        expect(Math.min(part.x, part.y)).toBeGreaterThanOrEqual(0);
        expect(Math.max(part.x + part.width, part.y + part.height)).toBeLessThanOrEqual(1 + 1e-9);
        expect(Math.min(part.width, part.height)).toBeGreaterThanOrEqual(leastRegion);
        const { left, top, right, bottom } = pixelsOf(part, { width: 64, height: 36 });
        expect(Math.min(left, top, 64 - right, 36 - bottom)).toBeGreaterThanOrEqual(0);
        expect(Math.min(right - left, bottom - top)).toBeGreaterThanOrEqual(1);
      }),
    );
    expect(regionBetween([0.5, 0.25], [0.25, 0.75])).toEqual({ x: 0.25, y: 0.25, width: 0.25, height: 0.5 });
  });

  it('that has to match is the one that was drawn, where one was', () => {
    const drawn = regionBetween([0.1, 0.1], [0.3, 0.4]);
    const wanted = { over: 1, at: 'any' } as const;
    expect(partWanted({ ...wanted, part: 'drawn', region: drawn })).toBe(drawn);
    expect(partWanted({ ...wanted, part: 'drawn' })).toBe(joinParts.whole);
    expect(partWanted({ ...wanted, part: 'left', region: drawn })).toBe(joinParts.left);
  });
});
