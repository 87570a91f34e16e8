import type { Size } from '../geometry/size';
import { flood } from '../picture/flood';
import { mostShown } from './most-shown';
import { lumaOf, type RgbaImage } from '../picture/image';

/** Parts of a set over which pictures disagree, and which pictures show the set there. */
export type SetRegions = Size & {
  /** the region of each cell; 0 where most pictures agree */
  labels: Uint16Array;
  /** by region less one: the pictures that show the set there */
  shown: readonly (readonly number[])[];
  /** by region less one: true where that cannot be told, since all of them join what is round it alike */
  unclear: readonly boolean[];
};

/** a cell is disputed where at least so large a share of the pictures shows something else than most. By trial */
const disputed = 0.2;
/** cells of a region at least: less is noise */
const leastCells = 6;
/** cells to each side of a region's border that are compared: what lies between is mixed of both */
const apart = 2;
/** a picture joins what is round a region as well as the best one does up to this factor, and so many codes more. By trial */
const [asWell, codes] = [1.3, 1.5];
/** cells by which a region reaches further than where it is disputed: edges are soft */
const reach = 2;

const sides = [
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
] as const;

/** The cells so far to each side of one, as far as they are in the picture. */
const beside = (cell: number, { width, height }: Size, by: number): number[] =>
  sides.flatMap(([dx, dy]) => {
    const [x, y] = [(cell % width) + by * dx, Math.floor(cell / width) + by * dy];
    return x < 0 || x >= width || y < 0 || y >= height ? [] : [y * width + x];
  });

/** Some cells and those that touch them, as often as asked. */
function grown(cells: readonly number[], size: Size, times: number): Set<number> {
  const all = new Set(cells);
  let rim = cells;
  for (let time = 0; time < times; time++) {
    rim = [...new Set(rim.flatMap((cell) => beside(cell, size, 1)))].filter((cell) => !all.has(cell));
    rim.forEach((cell) => all.add(cell));
  }
  return all;
}

/** What most pictures show at each cell, and where too many of them show something else for that to be the set. */
function settledIn(lights: readonly ArrayLike<number>[]): { settled: Uint8Array; open: Uint8Array } {
  const count = lights[0].length;
  const [settled, open] = [new Uint8Array(count), new Uint8Array(count)];
  const values = new Uint8Array(lights.length);
  for (let cell = 0; cell < count; cell++) {
    for (let index = 0; index < values.length; index++) values[index] = lights[index][cell];
    values.sort();
    const { from, count: most } = mostShown(values);
    settled[cell] = values[from + (most >> 1)];
    open[cell] = most <= (1 - disputed) * values.length ? 1 : 0;
  }
  return { settled, open };
}

/** Each settled cell just outside a region with one inside: the set would go on from the one to the other. */
function acrossBorder(
  cells: readonly number[],
  size: Size,
  open: Uint8Array,
): [out: number, inside: number][] {
  const inside = new Set(cells);
  return [...grown(cells, size, apart)]
    .filter((cell) => !inside.has(cell) && !open[cell])
    .flatMap((cell) =>
      beside(cell, size, apart + 1)
        .filter((at) => inside.has(at))
        .map((at): [number, number] => [cell, at]),
    );
}

/** The pictures that show the set at a cell's region; null where all do, or nobody can tell. */
export const shownAt = ({ labels, shown, unclear }: SetRegions, cell: number): readonly number[] | null =>
  labels[cell] === 0 || unclear[labels[cell] - 1] ? null : shown[labels[cell] - 1];

/**
 * The parts of a set over which pictures disagree, each with the pictures that show the set there: whoever stands before
 * it ends at an edge, and the set goes on into what all pictures show round it. So somebody who stands in one place
 * through half of the pictures, or most of them, is still told from what is behind.
 * @param pictures small ones from one place in one light, of one size
 */
export function setRegions(pictures: readonly RgbaImage[]): SetRegions {
  const { width, height } = pictures[0];
  const size = { width, height };
  const lights = pictures.map((picture) => lumaOf(picture).data);
  const { settled, open } = settledIn(lights);
  const labels = new Uint16Array(width * height);
  const shown: number[][] = [];
  const unclear: boolean[] = [];
  const seen = new Uint8Array(labels.length);
  for (let start = 0; start < labels.length; start++) {
    if (!open[start] || seen[start]) continue;
    const cells = flood(size, open, seen, start);
    const border = cells.length < leastCells ? [] : acrossBorder(cells, size, open);
    if (border.length === 0) continue;
    const breaks = lights.map(
      (light) =>
        border.reduce((sum, [out, at]) => sum + Math.abs(light[at] - settled[out]), 0) / border.length,
    );
    const most = Math.min(...breaks) * asWell + codes;
    const best = breaks.flatMap((value, index) => (value <= most ? [index] : []));
    shown.push(best);
    unclear.push(best.length === pictures.length);
    const inside = new Set(cells);
    for (const cell of grown(cells, size, reach))
      if (labels[cell] === 0 || inside.has(cell)) labels[cell] = shown.length;
  }
  return { ...size, labels, shown, unclear };
}
