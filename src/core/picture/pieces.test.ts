import fc from 'fast-check';
import { expect, it } from 'vitest';
import { flood } from './flood';
import { piecesOf } from './pieces';

it('finds the pieces that a flood from each pixel finds, with their sizes and whether they reach the edge', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 1, max: 9 }),
      fc.infiniteStream(fc.boolean()),
      (width, height, marks) => {
        const size = { width, height };
        const mask = Uint8Array.from({ length: width * height }, () => Number(marks.next().value));
        for (const value of [0, 1] as const) {
          const { runs, sizes, open } = piecesOf(size, mask, value);
          const of = new Int32Array(mask.length).fill(-1);
          for (const { from, until, piece } of runs) of.fill(piece, from, until);
          const passable = mask.map((one) => Number(one === value));
          const seen = new Uint8Array(mask.length);
          for (let start = 0; start < mask.length; start++) {
            expect(of[start] >= 0).toBe(passable[start] === 1);
            const cells = flood(size, passable, seen, start);
            if (cells.length === 0) continue;
            expect(new Set(cells.map((cell) => of[cell]))).toEqual(new Set([of[start]]));
            expect(sizes[of[start]]).toBe(cells.length);
            const atEdge = (cell: number) => {
              const [x, y] = [cell % width, Math.floor(cell / width)];
              return x === 0 || y === 0 || x === width - 1 || y === height - 1;
            };
            expect(open[of[start]]).toBe(cells.some(atEdge));
          }
        }
      },
    ),
  );
});
