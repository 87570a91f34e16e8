import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flood } from './flood';

/** A union of neighbours until nothing changes: another way to the same answer, common practice. */
function labels(width: number, height: number, passable: readonly number[]): number[] {
  const label = passable.map((_, cell) => cell);
  const near = (a: number, b: number) => {
    const at = (cell: number) => [
      cell % width,
      Math.floor(cell / width) % height,
      Math.floor(cell / (width * height)),
    ];
    return at(a).reduce((sum, value, axis) => sum + Math.abs(value - at(b)[axis]), 0) === 1;
  };
  for (let changed = true; changed;) {
    changed = false;
    for (let a = 0; a < label.length; a++)
      for (let b = 0; b < label.length; b++)
        if (passable[a] && passable[b] && near(a, b) && label[b] > label[a]) {
          label[b] = label[a];
          changed = true;
        }
  }
  return label;
}

describe('flooding cells', () => {
  it('reaches what touches, through rows and layers, and nothing round a corner or an edge', () => {
    const sizes = fc.tuple(
      fc.integer({ min: 1, max: 4 }),
      fc.integer({ min: 1, max: 4 }),
      fc.integer({ min: 1, max: 3 }),
    );
    const cases = sizes.chain(([width, height, layers]) => {
      const count = width * height * layers;
      return fc.tuple(
        fc.constant({ width, height, layers }),
        fc.array(fc.constantFrom(0, 1), { minLength: count, maxLength: count }),
        fc.nat(count - 1),
      );
    });
    fc.assert(
      fc.property(cases, ([size, passable, start]) => {
        const reached = flood(size, passable, new Uint8Array(passable.length), start);
        const label = labels(size.width, size.height, passable);
        const wanted = passable[start]
          ? label.flatMap((one, cell) => (passable[cell] && one === label[start] ? [cell] : []))
          : [];
        expect([...reached].sort((a, b) => a - b)).toEqual(wanted);
      }),
    );
  });

  it('does not go again where it was', () => {
    const seen = new Uint8Array(3);
    expect(flood({ width: 3, height: 1 }, [1, 1, 1], seen, 1)).toHaveLength(3);
    expect(flood({ width: 3, height: 1 }, [1, 1, 1], seen, 0)).toEqual([]);
  });
});
