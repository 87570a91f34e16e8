import { describe, expect, it } from 'vitest';
import { cutStill } from '@/core/footage/seam/cut';
import type { Shadow } from '@/core/footage/shadow/shadow';
import { cellOf, cells, followedIn, type Both } from './seam-presence';
import { keptWithShadows, shadowIn, shadowPrior, withoutShadow, type Fallen } from './seam-shadows';

const size = { width: 480, height: 270 };
const frames = [10, 12, 14];

/** Columns of the grid from the tenth row to the fortieth. */
const band = (from: number, until: number) => (cell: number) => {
  const [x, y] = [cell % cells.width, Math.floor(cell / cells.width)];
  return x >= from && x < until && y >= 10 && y < 40;
};
const grid = <Of>(of: (cell: number) => Of) =>
  Array.from({ length: cells.width * cells.height }, (_, cell) => of(cell));
const shadow = (from: number, until: number, codes: number): Shadow => ({
  ...cells,
  depth: Float32Array.from(grid((cell) => (band(from, until)(cell) ? codes : 0))),
  edge: 0.03,
});
const all = <Of>(of: Of) => new Map(frames.map((frame) => [frame, of]));
/** The left one in columns 10 to 20 with a shadow to column 60, the right one in 70 to 80. */
const fallen: Fallen = [all(shadow(20, 60, 20)), new Map()];
const standing = (from: number, until: number) =>
  followedIn(all(Uint8Array.from(grid((cell) => (band(from, until)(cell) ? 1 : 0)))), {
    node: null as never,
    corrected: null as never,
    taps: [],
  });
const both: Both<ReturnType<typeof standing>> = [standing(10, 20), standing(70, 80)];

/** The division where all joins cost alike and each has to show in their own place. */
function divided(wanted: 'kept' | 'hidden'): Uint8Array {
  const forced = new Int8Array(size.width * size.height).map((_, pixel) => {
    const cell = cellOf(pixel, size);
    const x = pixel % size.width;
    if (x === 0 || band(10, 20)(cell)) return 0;
    return x === size.width - 1 || band(70, 80)(cell) ? 1 : -1;
  });
  const cost = new Float64Array(size.width * size.height).fill(1);
  return cutStill(size, cost, forced, shadowPrior(fallen, 0, wanted, size));
}

describe('shadows at a join', () => {
  it('go with whoever throws them where they are kept, and to the other side where they are hidden', () => {
    const middle = 25 * 5 * size.width;
    const labels = (wanted: 'kept' | 'hidden') =>
      [75, 150, 250, 299, 375].map((x) => divided(wanted)[middle + x]);
    expect(labels('kept')).toEqual([0, 0, 0, 0, 1]);
    expect(labels('hidden')).toEqual([0, 1, 1, 1, 1]);
  });

  it('are measured by how much of them shows, how far they reach and to which side', () => {
    const at = (wanted: 'kept' | 'hidden') => shadowIn(0, fallen[0], both, () => divided(wanted), size, 0);
    expect(at('kept')).toMatchObject({ edge: 0.03, falls: 'right' });
    expect(at('kept')?.covers).toBeCloseTo((40 * 30) / (96 * 54), 6);
    expect(at('kept')?.lost.map(({ frame }) => frame)).toEqual(frames);
    for (const { share } of at('kept')?.lost ?? []) expect(share).toBeLessThan(0.02);
    for (const { share } of at('hidden')?.lost ?? []) expect(share).toBeGreaterThan(0.97);
    // Only frames count in which both show.
    expect(shadowIn(0, fallen[0], both, () => divided('kept'), size, 13)?.lost).toHaveLength(1);
    expect(shadowIn(1, fallen[1], both, () => divided('kept'), size, 0)).toBeNull();
    // A crease is none.
    expect(shadowIn(0, all(shadow(20, 20, 9)), both, () => divided('kept'), size, 0)).toBeNull();
  });

  it('are not missed where somebody stands before them', () => {
    const labels = new Uint8Array(size.width * size.height).map((_, pixel) =>
      pixel % size.width >= 65 * 5 ? 1 : 0,
    );
    const long: Fallen = [all(shadow(20, 80, 20)), new Map()];
    const before = [standing(10, 20), standing(65, 80)] as typeof both;
    const lost = (those: typeof both) => shadowIn(0, long[0], those, () => labels, size, 0)?.lost[0].share;
    expect(lost(before)).toBeCloseTo(0, 6);
    expect(lost(both)).toBeCloseTo(5 / 50, 6);
  });

  it('are nobody, nor is their rim, or what gleams within them; who throws them stays whole', () => {
    const fell = shadow(20, 60, 20);
    const there = Uint8Array.from(
      grid((cell) => {
        // Whoever stands there, the whole shadow, a column of its rim, and a gleam.
        return band(10, 60)(cell) || band(60, 61)(cell) || fell.depth[cell] > 0 ? 1 : 0;
      }),
    );
    const gleam = 25 * cells.width + 40;
    for (const by of [0, 1, cells.width, cells.width + 1]) fell.depth[gleam + by] = 0;
    const left = withoutShadow(there, fell);
    expect(grid((cell) => left[cell] === (band(10, 20)(cell) ? 1 : 0)).every(Boolean)).toBe(true);
  });

  it('count for a join that moves where nobody stands', () => {
    const there = (wanted: 'kept' | 'hidden') => keptWithShadows(both, fallen, 12, wanted);
    const row = 25 * cells.width;
    const columns = [5, 15, 30, 65, 75];
    expect(columns.map((x) => there('kept')[row + x])).toEqual([-1, 0, 0, -1, 1]);
    expect(columns.map((x) => there('hidden')[row + x])).toEqual([-1, 0, 1, -1, 1]);
  });
});
