import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import { MinimumCut } from './seam/max-flow';
import { largestThing, presenceOf } from './presence';

const size = { width: 16, height: 9 };
const large = { width: 160, height: 90 };

describe('who is in the picture', () => {
  const plate = painted(large, (x, y) => [100 + (x % 7), 90 + (y % 5), 80]);
  const standing = (left: number, right: number) =>
    painted(large, (x, y) =>
      x >= left && x < right && y >= 20 && y < 80 ? [180, 60, 50] : [100 + (x % 7), 90 + (y % 5), 80],
    );

  it('is found where the frame differs from the plate, and nowhere else', () => {
    const cells = presenceOf(plate, standing(40, 70), size);
    for (let y = 0; y < 9; y++)
      for (let x = 0; x < 16; x++)
        expect(cells[y * 16 + x], `${x}, ${y}`).toBe(x >= 4 && x < 7 && y >= 2 && y < 8 ? 1 : 0);
    expect(presenceOf(plate, plate, size).some(Boolean)).toBe(false);
  });

  it('has its middle in the largest thing; specks are nothing', () => {
    const presence = { ...size, frames: [presenceOf(plate, standing(40, 70), size)] };
    const [x, y] = largestThing(presence, 0) ?? [0, 0];
    expect(x).toBeCloseTo(5.5 / 16, 5);
    expect(y).toBeCloseTo(5 / 9, 5);
    expect(largestThing({ ...size, frames: [presenceOf(plate, plate, size)] }, 0)).toBeNull();
  });
});

describe('the minimum cut', () => {
  /** Tries every division of the nodes. */
  function cheapest(nodes: number, terminals: [number, number][], edges: [number, number, number, number][]) {
    let best = Infinity;
    for (let mask = 0; mask < 1 << nodes; mask++) {
      let cost = 0;
      terminals.forEach(([source, sink], node) => (cost += mask & (1 << node) ? source : sink));
      for (const [from, to, there, back] of edges) {
        const sides = [mask & (1 << from), mask & (1 << to)].map(Boolean);
        if (!sides[0] && sides[1]) cost += there;
        if (sides[0] && !sides[1]) cost += back;
      }
      best = Math.min(best, cost);
    }
    return best;
  }

  // Max-flow min-cut theorem: Ford & Fulkerson 1956.
  it('costs what the best of all divisions costs', () => {
    const weight = fc.integer({ min: 0, max: 20 });
    const nodes = 6;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(weight, weight), { minLength: nodes, maxLength: nodes }),
        fc.array(fc.tuple(fc.nat(nodes - 1), fc.nat(nodes - 1), weight, weight), { maxLength: 14 }),
        (terminals, all) => {
          const edges = all.filter(([from, to]) => from !== to);
          const cut = new MinimumCut(nodes, edges.length);
          terminals.forEach(([source, sink], node) => cut.addTerminal(node, source, sink));
          edges.forEach(([from, to, there, back]) => cut.addEdge(from, to, there, back));
          const sides = cut.solve();
          let cost = 0;
          terminals.forEach(([source, sink], node) => (cost += sides[node] ? source : sink));
          for (const [from, to, there, back] of edges) {
            if (!sides[from] && sides[to]) cost += there;
            if (sides[from] && !sides[to]) cost += back;
          }
          expect(cost).toBe(cheapest(nodes, terminals, edges));
        },
      ),
      { numRuns: 300 },
    );
  });
});
