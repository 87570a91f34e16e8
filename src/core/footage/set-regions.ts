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

/** The cells that touch some, as often as asked. */
function grown(cells: readonly number[], { width, height }: Size, times: number): Set<number> {
  const all = new Set(cells);
  let rim = cells;
  for (let time = 0; time < times; time++) {
    const next: number[] = [];
    for (const cell of rim) {
      const [x, y] = [cell % width, Math.floor(cell / width)];
      for (const [dx, dy] of [
        [-1, 0],
        [1, 0],
        [0, -1],
        [0, 1],
      ]) {
        const at = cell + dx + dy * width;
        if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height || all.has(at)) continue;
        all.add(at);
        next.push(at);
      }
    }
    rim = next;
  }
  return all;
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
  const count = width * height;
  const lights = pictures.map((picture) => lumaOf(picture).data);
  const values = new Uint8Array(pictures.length);
  const settled = new Uint8Array(count);
  const open = new Uint8Array(count);
  for (let cell = 0; cell < count; cell++) {
    for (let index = 0; index < values.length; index++) values[index] = lights[index][cell];
    values.sort();
    const { from, count: most } = mostShown(values);
    settled[cell] = values[from + (most >> 1)];
    open[cell] = most <= (1 - disputed) * values.length ? 1 : 0;
  }
  const labels = new Uint16Array(count);
  const shown: number[][] = [];
  const unclear: boolean[] = [];
  const seen = new Uint8Array(count);
  for (let start = 0; start < count; start++) {
    if (!open[start] || seen[start]) continue;
    const cells = flood(size, open, seen, start);
    if (cells.length < leastCells) continue;
    const inside = new Set(cells);
    // Each settled cell just outside with the nearest cells inside: the set would go on from one to the other.
    const pairs: [number, number][] = [];
    for (const cell of grown(cells, size, apart)) {
      if (inside.has(cell) || open[cell]) continue;
      const [x, y] = [cell % width, Math.floor(cell / width)];
      for (const [dx, dy] of [
        [-1, 0],
        [1, 0],
        [0, -1],
        [0, 1],
      ]) {
        const [px, py] = [x + dx * (apart + 1), y + dy * (apart + 1)];
        if (px < 0 || px >= width || py < 0 || py >= height) continue;
        if (inside.has(py * width + px)) pairs.push([cell, py * width + px]);
      }
    }
    if (pairs.length === 0) continue;
    const breaks = lights.map(
      (light) => pairs.reduce((sum, [out, at]) => sum + Math.abs(light[at] - settled[out]), 0) / pairs.length,
    );
    const most = Math.min(...breaks) * asWell + codes;
    const best = breaks.flatMap((value, index) => (value <= most ? [index] : []));
    shown.push(best);
    unclear.push(best.length === pictures.length);
    for (const cell of grown(cells, size, reach))
      if (labels[cell] === 0 || inside.has(cell)) labels[cell] = shown.length;
  }
  return { ...size, labels, shown, unclear };
}
