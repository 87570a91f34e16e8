import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { regularGrid } from '@/core/time/grid';
import { barsFor, foldSong, lineOf, piecesOf, positionAt, threadsOf, xOf } from './layout';

const grid = regularGrid(104, 0.36, 60);

describe('the folded ribbon', () => {
  it('has 2 bars a line on a phone and 8 on a desktop', () => {
    expect([370, 640, 1000].map(barsFor)).toEqual([2, 4, 8]);
  });

  it('holds every beat on a line, and finds it again under the pointer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 300, max: 1600 }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (width, position) => {
          const layout = foldSong(grid, 60, width, barsFor(width), 60, 38);
          const line = lineOf(layout, position);
          const x = xOf(layout, line, position);
          expect(x).toBeGreaterThanOrEqual(layout.left - 1e-6);
          expect(x).toBeLessThanOrEqual(layout.right + 1e-6);
          expect(positionAt(layout, x, line.top + 30)).toBeCloseTo(position, 6);
        },
      ),
    );
  });

  it('cuts a moment that runs over a fold into pieces', () => {
    const layout = foldSong(grid, 60, 1000, 8, 60, 38);
    const pieces = piecesOf(layout, 30, 36);
    expect(pieces).toHaveLength(2);
    expect([pieces[0].first, pieces[0].last, pieces[1].first, pieces[1].last]).toEqual([
      true,
      false,
      false,
      true,
    ]);
    expect(pieces[1].x0).toBe(layout.left);
  });

  it('draws a thread for every three pixels that sound', () => {
    const layout = foldSong(grid, 60, 1000, 8, 60, 38);
    const path = threadsOf(layout, layout.lines[1], grid, new Float32Array(60 * 80).fill(0.5), 80, 1);
    expect(path.split('M').length - 1).toBeCloseTo((layout.right - layout.left) / 3, -1);
  });
});
