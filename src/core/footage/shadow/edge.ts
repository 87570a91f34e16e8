import type { Size } from '../../geometry/size';
import { meansOf } from '../../picture/means';
import { median } from '../../statistics';
import { leastLight } from './cells';
import { cellsRound, round } from './pattern';

/** pixels to each side over which light is averaged, and over which it is seen to change */
const [boxReach, slopeReach] = [1, 2];

/** widest edge of a hard shadow, in shares of the picture's width. Set by trial, no published source */
export const hardEdge = 0.0125;

/** How steeply what is left of the light changes in a cell, across or down, as a share of the set's light a pixel. */
export function slopesIn(
  picture: Size,
  lights: readonly Float32Array[],
  grid: Size,
): (cell: number) => number {
  const [set, seen] = lights.map((luma) => meansOf(picture, luma, boxReach));
  const left = seen.map((value, pixel) => (set[pixel] < leastLight ? 1 : value / set[pixel]));
  const known = new Float32Array(grid.width * grid.height).fill(-1);
  const bounds = (index: number, cells: number, pixels: number) => [
    Math.max(slopeReach, Math.ceil((index * pixels) / cells)),
    Math.min(pixels - slopeReach, Math.ceil(((index + 1) * pixels) / cells)),
  ];
  return (cell) => {
    if (known[cell] >= 0) return known[cell];
    const [x0, x1] = bounds(cell % grid.width, grid.width, picture.width);
    const [y0, y1] = bounds(Math.floor(cell / grid.width), grid.height, picture.height);
    const change = (pixel: number, by: number) =>
      left[pixel + slopeReach * by] - left[pixel - slopeReach * by];
    let steepest = 0;
    for (let x = x0; x < x1; x++) {
      let across = 0;
      for (let y = y0; y < y1; y++) across += change(y * picture.width + x, 1);
      steepest = Math.max(steepest, Math.abs(across) / (y1 - y0));
    }
    for (let y = y0; y < y1; y++) {
      let down = 0;
      for (let x = x0; x < x1; x++) down += change(y * picture.width + x, picture.width);
      steepest = Math.max(steepest, Math.abs(down) / (x1 - x0));
    }
    return (known[cell] = steepest / (2 * slopeReach));
  };
}

/** Over how much of the picture's width shaded cells fade out towards such as lie in the light; null where none do. */
export function edgeOf(
  cells: readonly number[],
  shares: Float32Array,
  isClear: (cell: number) => boolean,
  slopeOf: (cell: number) => number,
  grid: Size,
  picture: Size,
): number | null {
  const within = new Set(cells);
  const round1 = (cell: number) => cellsRound(grid, cell, 1);
  // Beside somebody, what changes is them.
  const own = new Set(cells.filter((cell) => round1(cell).every((one) => within.has(one) || isClear(one))));
  const widths = [...own].flatMap((cell) => {
    if (round1(cell).every((one) => within.has(one))) return [];
    const near = cellsRound(grid, cell, round).filter((one) => own.has(one));
    const left = Math.min(...near.map((one) => shares[one]));
    return [(1 - left) / Math.max(1e-6, ...near.map(slopeOf))];
  });
  return widths.length > 0 ? Math.min(1, median(widths) / picture.width) : null;
}
