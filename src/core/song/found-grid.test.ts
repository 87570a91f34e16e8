import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { barStart, beatGridSchema, metersOf, nextBar } from '../time/grid';
import { foundGrid } from './found-grid';

const beats = Array.from({ length: 40 }, (_, beat) => beat / 2);
const found = (firsts: readonly number[], beatsPerBar = 4) =>
  foundGrid({ beats, downbeats: firsts.map((index) => beats[index]), beatsPerBar });
/** Beat numbers at which the grid begins bars. */
function barsOf(grid: ReturnType<typeof foundGrid>): number[] {
  const bars: number[] = [];
  for (let at = barStart(grid, 0); at + grid.firstDownbeat < beats.length; at = nextBar(grid, at))
    bars.push(at + grid.firstDownbeat);
  return bars;
}

describe('the grid of found beats', () => {
  it('keeps a found bar of two beats between bars of four', () => {
    const grid = found([2, 6, 10, 12, 16, 20, 24]);
    expect(barsOf(grid).slice(0, 7)).toEqual([2, 6, 10, 12, 16, 20, 24]);
    expect(metersOf(grid).map((meter) => meter.beatsPerBar)).toEqual([4, 2, 4]);
  });

  it('keeps two of them in a row as the bar of four that they fill, and a bar of five', () => {
    expect(found([0, 4, 8, 10, 12, 16, 20]).changes).toBeUndefined();
    expect(barsOf(found([0, 4, 8, 13, 17, 21])).slice(0, 7)).toEqual([0, 4, 8, 12, 13, 17, 21]);
  });

  it('passes over a first beat that no bar follows, and begins with one that a bar follows', () => {
    expect(found([0, 4, 8, 11, 12, 16]).changes).toBeUndefined();
    expect(found([0, 6, 10, 14])).toMatchObject({ firstDownbeat: 2, beatsPerBar: 4 });
    expect(found([])).toMatchObject({ firstDownbeat: 0 });
  });

  it('is a grid whose bars begin at every settled first beat, whatever was found', () => {
    const lists = fc.uniqueArray(fc.integer({ min: 0, max: 39 }), { maxLength: 14 });
    fc.assert(
      fc.property(lists, fc.constantFrom(3, 4, 5, 7), (list, beatsPerBar) => {
        const firsts = list.sort((a, b) => a - b);
        const grid = found(firsts, beatsPerBar);
        beatGridSchema.parse(grid);
        const settled = firsts.filter((index) => firsts.includes(index + beatsPerBar));
        for (const index of settled) {
          const position = index - grid.firstDownbeat;
          expect(barStart(grid, position)).toBe(position);
        }
        const changes = grid.changes ?? [];
        changes.slice(1).forEach((change, index) => expect(change.at).toBeGreaterThan(changes[index].at));
      }),
    );
  });
});
