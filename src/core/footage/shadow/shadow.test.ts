import { describe, expect, it } from 'vitest';
import { painted, texture } from '../../__tests__/scene';
import { seeded } from '../../random';
import type { RgbaImage } from '../../picture/image';
import { hardEdge } from './edge';
import { shadowOf } from './shadow';

const size = { width: 480, height: 270 };
const grid = { width: 96, height: 54 };
type Rgb = [number, number, number];

/** The share of a shadow that lies on a point. @param edge pixels over which it fades out */
type Cast = { left: number; top: number; right: number; bottom: number; edge: number; leaves: number };
const within = ({ left, top, right, bottom, edge }: Cast, x: number, y: number): number => {
  const inside = Math.min(x - left, right - x, y - top, bottom - y);
  const t = Math.min(1, Math.max(0, 0.5 + inside / Math.max(1e-6, edge)));
  return t * t * (3 - 2 * t);
};

/** Sets: with a pattern on all of it, with a plain wall over a patterned floor, and plain. */
const sets: Record<string, (x: number, y: number) => Rgb> = (() => {
  const at = texture(5, size);
  const patterned = (x: number, y: number): Rgb => {
    const value = 60 + 0.5 * at(x, y);
    return [value, 0.9 * value, 0.75 * value];
  };
  const plain = (x: number): Rgb => [150 - x / 12, 146 - x / 12, 138 - x / 12];
  return { patterned, wall: (x, y) => (y < 190 ? plain(x) : patterned(x, y)), plain };
})();

/** A picture of a set with noise; with a shadow on it, and somebody in cloth of one colour. */
function filmed(
  set: (x: number, y: number) => Rgb,
  seed: number,
  { cast, cloth, noise = 2 }: { cast?: Cast; cloth?: { box: Cast; colour: Rgb }; noise?: number } = {},
): RgbaImage {
  const next = seeded(seed);
  return painted(size, (x, y) => {
    const left = cast ? 1 - (1 - cast.leaves) * within(cast, x, y) : 1;
    const colour = cloth && within(cloth.box, x, y) > 0.5 ? cloth.colour : set(x, y).map((one) => one * left);
    return colour.map((one) => one + noise * 2 * (next() + next() + next() - 1.5)) as Rgb;
  });
}

const soft: Cast = { left: 250, top: 70, right: 380, bottom: 240, edge: 60, leaves: 0.7 };
const hard: Cast = { ...soft, edge: 1 };

/** Share of cells found and of cells there that both are, by where at least half of the shadow falls on a cell. */
function agreement(found: Float32Array, cast: Cast): number {
  let [both, either] = [0, 0];
  found.forEach((depth, cell) => {
    const [x, y] = [((cell % grid.width) + 0.5) * 5, (Math.floor(cell / grid.width) + 0.5) * 5];
    const truth = within(cast, x, y) * (1 - cast.leaves) > 0.05;
    if (depth > 0 && truth) both++;
    if (depth > 0 || truth) either++;
  });
  return both / either;
}

const cellsIn = ({ depth }: { depth: Float32Array }) => depth.filter((codes) => codes > 0).length;

describe('a shadow on the set', () => {
  for (const name of ['patterned', 'wall'])
    for (const [how, cast, least] of [
      ['soft', soft, 0.93],
      ['hard', hard, 0.93],
      ['faint and soft', { ...soft, leaves: 0.9 }, 0.8],
      ['deep and hard', { ...hard, leaves: 0.45 }, 0.85],
    ] as const)
      it(`is found before a ${name} set where it is ${how}, and whether its edge is hard`, () => {
        // In much noise the pattern of a floor tells nothing of what is deep and hard on a wall: that is somebody then.
        for (const noise of name === 'wall' && how === 'deep and hard' ? [1] : [1, 3]) {
          const plate = filmed(sets[name], 1, { noise });
          const shadow = shadowOf(plate, filmed(sets[name], 2, { cast, noise }), grid);
          expect(agreement(shadow.depth, cast)).toBeGreaterThan(least);
          if (cast.edge > 1) expect(shadow.edge).toBeGreaterThan(hardEdge);
          else expect(shadow.edge).toBeLessThan(hardEdge);
        }
      });

  it('is found where it falls on a plain set, if its edge is soft', () => {
    const [plate, seen] = [filmed(sets.plain, 1), filmed(sets.plain, 2, { cast: soft })];
    expect(agreement(shadowOf(plate, seen, grid).depth, soft)).toBeGreaterThan(0.9);
    // With a hard one it cannot be told from plain cloth, and is left to be somebody.
    expect(cellsIn(shadowOf(plate, filmed(sets.plain, 2, { cast: hard }), grid))).toBe(0);
  });

  it('is darker by as many codes as it is', () => {
    const plate = filmed(sets.wall, 1);
    const { depth } = shadowOf(plate, filmed(sets.wall, 2, { cast: hard }), grid);
    // The wall has 123 codes in the middle of the shadow: 30 % of them.
    expect(depth[30 * grid.width + 62]).toBeCloseTo(0.3 * (144.7 - 310 / 12), 0);
  });

  it('may be a little bluer than the light', () => {
    const blue = filmed((x, y) => sets.wall(x, y), 1);
    const next = seeded(3);
    const seen = painted(size, (x, y) => {
      const share = within(soft, x, y);
      return sets
        .wall(x, y)
        .map(
          (one, channel) => one * (1 - [0.4, 0.38, 0.34][channel] * share) + 4 * (next() + next() - 1),
        ) as Rgb;
    });
    expect(agreement(shadowOf(blue, seen, grid).depth, soft)).toBeGreaterThan(0.9);
  });

  it('is not plain cloth, on any set, nor nobody at all, nor light that changed a little', () => {
    for (const [name, set] of Object.entries(sets)) {
      for (const colour of [
        [90, 88, 82],
        [60, 60, 60],
        [110, 100, 84],
        [30, 32, 40],
      ] as Rgb[]) {
        const shadow = shadowOf(filmed(set, 1), filmed(set, 2, { cloth: { box: hard, colour } }), grid);
        expect(cellsIn(shadow), `${name} ${colour.join()}`).toBe(0);
        expect(shadow.edge).toBeNull();
      }
      expect(cellsIn(shadowOf(filmed(set, 1), filmed(set, 2), grid))).toBe(0);
      for (const light of [0.98, 0.85, 1.15]) {
        const other = filmed((x, y) => set(x, y).map((one) => light * one) as Rgb, 2);
        expect(cellsIn(shadowOf(filmed(set, 1), other, grid)), `${name} ${light}`).toBe(0);
      }
    }
  });

  it('leaves whoever throws it their own place', () => {
    const box = { left: 190, top: 60, right: 250, bottom: 240, edge: 1, leaves: 1 };
    for (const name of ['patterned', 'wall'])
      for (const colour of [
        [40, 60, 120],
        [160, 40, 40],
        [200, 195, 190],
        [84, 80, 76],
      ] as Rgb[]) {
        const picture = filmed(sets[name], 2, { cast: soft, cloth: { box, colour } });
        const { depth } = shadowOf(filmed(sets[name], 1), picture, grid);
        expect(agreement(depth, soft), `${name} ${colour.join()}`).toBeGreaterThan(0.85);
        const theirs = depth.filter((codes, cell) => {
          const [x, y] = [((cell % grid.width) + 0.5) * 5, (Math.floor(cell / grid.width) + 0.5) * 5];
          return codes > 0 && within(box, x, y) > 0.5;
        });
        expect(theirs.length).toBeLessThan(4);
      }
  });

  it('wants both pictures of one size', () => {
    const small = painted({ width: 48, height: 27 }, () => [9, 9, 9]);
    expect(() => shadowOf(filmed(sets.plain, 1), small, grid)).toThrow(/size/);
    // Black tells nothing, and there is nothing to be divided by.
    expect(cellsIn(shadowOf(small, small, grid))).toBe(0);
  });
});
