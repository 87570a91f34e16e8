import { refuse } from '../error';
import type { Bounds, Size } from '../geometry/size';
import { checkSameSize, type GrayImage } from '../picture/image';

/**
 * Two pictures at which one can go over from a take to another unseen: one is shown up to the one, the other from the
 * other on, or from both on the one dissolves into the other.
 */
export type Join = {
  /** picture of the first take, counted from 0 */
  a: number;
  /** picture of the second take that takes its place, or that begins to show through it */
  b: number;
  /** codes by which they and their neighbours differ, root of the mean square */
  cost: number;
  /** codes by which both takes change there from one picture to the next, likewise; 0 where they have but one */
  step: number;
};

export type JoinOptions = {
  /** the part of the picture that has to match, in pixels; all of it where nothing is said */
  region?: { x: number; y: number; width: number; height: number };
  /** how many are wanted at most; 10 where nothing is said */
  limit?: number;
  /** pictures over which the one take dissolves into the other; 1 for a cut, which is meant where nothing is said */
  over?: number;
  /** pictures of the second take to one of the first, so that what is held against each other goes on for as long; 1 where nothing is said */
  pace?: number;
  /** leaves out where either take moves less than it does in the mean, so that the movement carries over the cut */
  moving?: boolean;
  /** whether a picture of the first take, and one of the second, may be joined at all; every one where nothing is said */
  only?: readonly [first: (a: number) => boolean, second: (b: number) => boolean];
};

/** cells across in which pictures are held against each other: all pairs roughly, the best ones finely */
const [roughCells, fineCells] = [16, 64];
/** how much the pictures beside those that are joined count, one before and one after: movement has to go on as it went */
const beside = 0.5;
/** pairs that are looked at finely for each one that is wanted, at least so many */
const [finelyFor, finelyLeast] = [12, 200];
/** pictures by which two joins differ at least to count as two, and by which a take is joined to itself further on */
const [apart, onward] = [4, 8];

/** Means of the cells of a part of each picture, one picture after the other. */
function cellsOf(
  pictures: readonly GrayImage[],
  { left, top, right, bottom }: Bounds,
  cells: Size,
): Float32Array {
  const { width, height } = cells;
  const out = new Float32Array(pictures.length * width * height);
  const edge = (from: number, until: number, at: number, count: number) =>
    Math.floor(from + ((until - from) * at) / count);
  for (const [index, picture] of pictures.entries())
    for (let row = 0, to = index * width * height; row < height; row++)
      for (let column = 0; column < width; column++, to++) {
        const [x0, y0] = [edge(left, right, column, width), edge(top, bottom, row, height)];
        const x1 = Math.max(x0 + 1, edge(left, right, column + 1, width));
        const y1 = Math.max(y0 + 1, edge(top, bottom, row + 1, height));
        let sum = 0;
        for (let y = y0; y < y1; y++)
          for (let x = x0; x < x1; x++) sum += picture.data[y * picture.width + x];
        out[to] = sum / ((x1 - x0) * (y1 - y0));
      }
  return out;
}

/** Mean squares by which each picture of one take differs from each of the other. */
function squaresOf(a: Float32Array, b: Float32Array, cells: number): (i: number, j: number) => number {
  return (i, j) => {
    let sum = 0;
    for (let cell = 0, p = i * cells, q = j * cells; cell < cells; cell++)
      sum += (a[p + cell] - b[q + cell]) ** 2;
    return sum / cells;
  };
}

/** Mean squares by which two takes differ from two pictures on, for so many, with one more before and one after. */
function alongJoin(
  square: (i: number, j: number) => number,
  rows: number,
  columns: number,
  over: number,
  pace: number,
): (i: number, j: number) => number {
  return (i, j) => {
    let [sum, weight] = [0, 0];
    for (let step = -1; step <= over; step++) {
      const [p, q] = [i + step, j + Math.round(step * pace)];
      if (p < 0 || q < 0 || p >= rows || q >= columns) continue;
      const counts = step < 0 || step === over ? beside : 1;
      sum += counts * square(p, q);
      weight += counts;
    }
    return sum / weight;
  };
}

/** Mean squares by which a take changes from each picture to the next, at its end from the one before; 0 where it has but one. */
const changesOf = (square: (i: number, j: number) => number, count: number): Float32Array =>
  Float32Array.from({ length: count }, (_, i) =>
    count > 1 ? square(Math.min(i, count - 2), Math.min(i, count - 2) + 1) : 0,
  );

/** Whether each picture of a take changes at least as much as they all do in the mean. */
function movingIn(changes: Float32Array): (i: number) => boolean {
  const mean = changes.reduce((sum, change) => sum + change, 0) / changes.length;
  return (i) => changes[i] >= mean;
}

function boundsOf({ width, height }: Size, region: JoinOptions['region']): Bounds {
  if (!region) return { left: 0, top: 0, right: width, bottom: height };
  const [left, top] = [Math.max(0, Math.floor(region.x)), Math.max(0, Math.floor(region.y))];
  const right = Math.min(width, Math.ceil(region.x + region.width));
  const bottom = Math.min(height, Math.ceil(region.y + region.height));
  if (!(right > left && bottom > top))
    refuse('region', 'This part lies outside of the picture. Draw it on the picture.');
  return { left, top, right, bottom };
}

/** Those of some joins that lie some pictures apart from all before them. */
export function distinctJoins<One extends Pick<Join, 'a' | 'b'>>(joins: readonly One[]): One[] {
  const kept: One[] = [];
  for (const one of joins)
    if (kept.every((join) => Math.abs(join.a - one.a) >= apart || Math.abs(join.b - one.b) >= apart))
      kept.push(one);
  return kept;
}

/**
 * The pairs of pictures of two takes between which a cut is seen least, of one take with itself where both are the same.
 * @param a pictures of the first take, of one size
 * @param b pictures of the second, of the same size
 * @returns the least cost first; none where a take has no pictures
 * @throws CoreError `sizes-differ`, `region` where that lies outside
 * @see Schödl et al. 2000, "Video textures" (pairs with their neighbours, so that movement goes on)
 */
export function findJoins(
  a: readonly GrayImage[],
  b: readonly GrayImage[],
  options: JoinOptions = {},
): Join[] {
  if (a.length === 0 || b.length === 0) return [];
  for (const picture of [...a, ...b]) checkSameSize(a[0], picture);
  const { limit = 10, over = 1, pace = 1, moving = false, only } = options;
  const bounds = boundsOf(a[0], options.region);
  const shape = (bounds.bottom - bounds.top) / (bounds.right - bounds.left);
  const grid = (across: number): Size => ({
    width: Math.min(across, bounds.right - bounds.left),
    height: Math.max(1, Math.min(Math.round(across * shape), bounds.bottom - bounds.top)),
  });
  const squaresIn = (across: number) => {
    const cells = grid(across);
    const one = cellsOf(a, bounds, cells);
    const other = a === b ? one : cellsOf(b, bounds, cells);
    const squares = (from: Float32Array, to: Float32Array) => squaresOf(from, to, cells.width * cells.height);
    return { both: squares(one, other), first: squares(one, one), second: squares(other, other) };
  };
  const [rows, columns] = [a.length, b.length];
  const rough = squaresIn(roughCells).both;
  const squares = Float32Array.from({ length: rows * columns }, (_, at) =>
    rough(Math.floor(at / columns), at % columns),
  );
  const roughCost = alongJoin((i, j) => squares[i * columns + j], rows, columns, over, pace);
  const { both, first, second } = squaresIn(fineCells);
  const [changes, otherChanges] = [changesOf(first, rows), changesOf(second, columns)];
  const [moves, otherMoves] = [changes, otherChanges].map(movingIn);
  // A dissolve needs as many pictures of both. Of a take with itself, a pair turned round is the same one.
  const allowed = (i: number, j: number) =>
    i + over <= rows &&
    j + Math.round((over - 1) * pace) < columns &&
    (a !== b || j - i >= onward) &&
    (!moving || (moves(i) && otherMoves(j))) &&
    (!only || (only[0](i) && only[1](j)));
  const fine = alongJoin(both, rows, columns, over, pace);
  const candidates = Array.from({ length: rows * columns }, (_, at) => at)
    .filter((at) => allowed(Math.floor(at / columns), at % columns))
    .map((at) => ({ at, cost: roughCost(Math.floor(at / columns), at % columns) }))
    .sort((one, other) => one.cost - other.cost)
    .slice(0, Math.max(finelyLeast, finelyFor * limit))
    .map(({ at }): Join => {
      const [i, j] = [Math.floor(at / columns), at % columns];
      const step = Math.sqrt((changes[i] + otherChanges[j]) / 2);
      return { a: i, b: j, cost: Math.sqrt(fine(i, j)), step };
    })
    .sort((one, other) => one.cost - other.cost);
  return distinctJoins(candidates).slice(0, limit);
}
