import type { Size } from '../geometry/size';
import { cubicAt } from './cubic';
import { blankYuv, chromaSide, resizePlane, type YuvImage } from './planes';

/** pixels across at which movement is looked for, and the side of a block there */
const across = 320;
const block = 8;
/** pixels beside a block that are compared with it */
const round = 3;
/** pixels each way that the coarsest level looks at, and the finer ones round what the one before found */
const [far, near] = [5, 2];
/** mean codes by which what moves has to fit better than what stands, for each pixel that it moves */
const stiffness = 0.04;
/** mean codes from which on the two sides of a block do not show the same thing */
const tornFrom = 14;

type Plane = Size & { data: Uint8Array };

/** Movement from one picture to the next, block by block, in pixels of `size`; where each block lies half-way. */
export type Flow = {
  size: Size;
  columns: number;
  rows: number;
  dx: Float32Array;
  dy: Float32Array;
  /** share of the blocks of which the two pictures do not show the same thing, 0..1 */
  torn: number;
};

function shrunk({ width, height, data }: Plane, to: Size): Plane {
  return { ...to, data: resizePlane(data, { width, height }, to) };
}

/** A picture's luma at the size that is looked at, and at a half and a quarter of it. */
function levelsOf({ width, height, y }: YuvImage): Plane[] {
  const scale = Math.min(1, across / width);
  const size = {
    width: Math.max(16, Math.round(width * scale)),
    height: Math.max(16, Math.round(height * scale)),
  };
  const first = shrunk({ width, height, data: y }, size);
  const halves = [2, 4].map((by) => ({
    width: Math.max(8, Math.round(size.width / by)),
    height: Math.max(8, Math.round(size.height / by)),
  }));
  return [first, ...halves.map((half) => shrunk(first, half))];
}

const held = (value: number, length: number) => (value < 0 ? 0 : value >= length ? length - 1 : value);

/**
 * How much two pictures differ round a point, where one is looked at a share of the movement before it and the other
 * the rest of it after: mean codes.
 */
function unlike(one: Plane, two: Plane, x: number, y: number, dx: number, dy: number, share: number): number {
  const [ax, ay] = [Math.round(x - share * dx), Math.round(y - share * dy)];
  const [bx, by] = [ax + Math.round(dx), ay + Math.round(dy)];
  const { width, height } = one;
  let sum = 0;
  const reach = block / 2 + round;
  for (let row = -reach; row < reach; row += 2) {
    const lineA = held(ay + row, height) * width;
    const lineB = held(by + row, height) * width;
    for (let column = -reach; column < reach; column += 2)
      sum += Math.abs(
        one.data[lineA + held(ax + column, width)] - two.data[lineB + held(bx + column, width)],
      );
  }
  return sum / reach ** 2;
}

/** The middle one of each value and its eight neighbours. */
function calmed(values: Float32Array, columns: number, rows: number): Float32Array {
  return Float32Array.from(values, (_, at) => {
    const [x, y] = [at % columns, Math.floor(at / columns)];
    const beside: number[] = [];
    for (let row = Math.max(0, y - 1); row <= Math.min(rows - 1, y + 1); row++)
      for (let column = Math.max(0, x - 1); column <= Math.min(columns - 1, x + 1); column++)
        beside.push(values[row * columns + column]);
    return beside.sort((a, b) => a - b)[beside.length >> 1];
  });
}

/**
 * How a picture moves to the next one, as seen a share of the way between: blocks of the picture that is to be made
 * are looked for on both sides at once, so that none of it is left without a movement.
 * @param share 0..1 of the time from one to two
 * @see Ha et al. 2004 (bilateral motion estimation), with a pyramid and a median over neighbours
 */
export function flowBetween(one: YuvImage, two: YuvImage, share: number): Flow {
  const [first, second] = [levelsOf(one), levelsOf(two)];
  const { width, height } = first[0];
  const [columns, rows] = [Math.ceil(width / block), Math.ceil(height / block)];
  let dx: Float32Array = new Float32Array(columns * rows);
  let dy: Float32Array = new Float32Array(columns * rows);
  let unlikes = new Float32Array(columns * rows);
  for (let level = first.length - 1; level >= 0; level--) {
    const [a, b] = [first[level], second[level]];
    const scale = a.width / width;
    const reach = level === first.length - 1 ? far : near;
    const [nextX, nextY] = [new Float32Array(dx.length), new Float32Array(dy.length)];
    unlikes = unlikes.map((_, at) => {
      const x = ((at % columns) + 0.5) * block * scale;
      const y = (Math.floor(at / columns) + 0.5) * block * scale;
      const starts: [number, number][] = [
        [0, 0],
        ...[at, at - 1, at + 1, at - columns, at + columns]
          .filter((beside) => beside >= 0 && beside < dx.length)
          .map((beside): [number, number] => [dx[beside] * scale, dy[beside] * scale]),
      ];
      let [bestX, bestY, best, bestCost] = [0, 0, Infinity, Infinity];
      const seen = new Set<number>();
      for (const [startX, startY] of level === first.length - 1 ? starts.slice(0, 1) : starts)
        for (let down = -reach; down <= reach; down++)
          for (let side = -reach; side <= reach; side++) {
            const [moveX, moveY] = [Math.round(startX) + side, Math.round(startY) + down];
            const key = moveX * 4096 + moveY;
            if (seen.has(key)) continue;
            seen.add(key);
            const found = unlike(a, b, x, y, moveX, moveY, share);
            const cost = found + (stiffness * Math.hypot(moveX, moveY)) / scale;
            if (cost < bestCost) [bestX, bestY, best, bestCost] = [moveX, moveY, found, cost];
          }
      nextX[at] = bestX / scale;
      nextY[at] = bestY / scale;
      return best;
    });
    dx = calmed(nextX, columns, rows);
    dy = calmed(nextY, columns, rows);
  }
  const torn = unlikes.reduce((sum, found) => sum + Number(found > tornFrom), 0) / unlikes.length;
  return { size: { width, height }, columns, rows, dx, dy, torn };
}

/** One plane of the picture between, each of its places taken from both sides along the movement there. */
function planeBetween(
  one: Plane,
  two: Plane,
  { size, columns, rows, dx, dy }: Flow,
  share: number,
  out: Uint8Array,
): void {
  const [scaleX, scaleY] = [one.width / size.width, one.height / size.height];
  const moves = [dx, dy].map((data) => ({ width: columns, height: rows, data }));
  for (let y = 0; y < one.height; y++)
    for (let x = 0; x < one.width; x++) {
      const [px, py] = [x + 0.5, y + 0.5];
      const at: [number, number] = [px / (scaleX * block), py / (scaleY * block)];
      const moveX = mixedAt(moves[0], ...at) * scaleX;
      const moveY = mixedAt(moves[1], ...at) * scaleY;
      const before = cubicAt(one, px - share * moveX, py - share * moveY);
      const after = cubicAt(two, px + (1 - share) * moveX, py + (1 - share) * moveY);
      out[y * one.width + x] = Math.min(255, Math.max(0, before + (after - before) * share + 0.5));
    }
}

/** The value between four neighbours, the edge held. */
function mixedAt({ width, height, data }: Size & { data: Float32Array }, x: number, y: number): number {
  const [fx, fy] = [x - 0.5, y - 0.5];
  const [ix, iy] = [Math.floor(fx), Math.floor(fy)];
  const value = (column: number, row: number) => data[held(row, height) * width + held(column, width)];
  const top = value(ix, iy) + (value(ix + 1, iy) - value(ix, iy)) * (fx - ix);
  const bottom = value(ix, iy + 1) + (value(ix + 1, iy + 1) - value(ix, iy + 1)) * (fx - ix);
  return top + (bottom - top) * (fy - iy);
}

/**
 * The picture between two that follow one another, moved along what moves.
 * @param share 0..1 of the time from one to two
 * @param two of the same size and kind as `one`
 */
export function pictureBetween(one: YuvImage, two: YuvImage, share: number): YuvImage {
  const flow = flowBetween(one, two, share);
  const out = blankYuv(one, one);
  const small = { width: chromaSide(one.width), height: chromaSide(one.height) };
  for (const [name, size] of [
    ['y', one],
    ['u', small],
    ['v', small],
  ] as const) {
    const plane = (image: YuvImage): Plane => ({ width: size.width, height: size.height, data: image[name] });
    planeBetween(plane(one), plane(two), flow, share, out[name]);
  }
  return out;
}
