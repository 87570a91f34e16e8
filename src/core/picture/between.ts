import type { Size } from '../geometry/size';
import { cubicAt } from './cubic';
import { blankYuv, chromaSide, resizePlane, type YuvImage } from './planes';
import { spreadSquares, squaresOf } from './squares';

/** pixels across at which movement is looked for, and the side of a block there */
const across = 320;
const block = 8;
/** pixels beside a block that are compared with it */
const round = 3;
/** pixels each way that the coarsest level looks at, and steps of one pixel that finer ones go on from what it found */
const [far, steps] = [5, 2];
/** mean codes by which what moves has to fit better than what stands, for each pixel that it moves */
const stiffness = 0.04;
/** mean codes from which on the two sides of a block do not show the same thing */
const tornFrom = 14;

type Plane = Size & { data: Uint8Array };
type Luma = Pick<YuvImage, 'width' | 'height' | 'y'>;

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

const held = (value: number, length: number) => (value < 0 ? 0 : value >= length ? length - 1 : value);

function shrunk({ width, height, data }: Plane, to: Size): Plane {
  return { ...to, data: resizePlane(data, { width, height }, to) };
}

/** half the side of what is compared round the middle of a block */
const reach = block / 2 + round;
/** pixels that are compared: of that every second one each way */
const compared = reach ** 2;
/** pixels beside a plane in which its edge is held */
const beside = 2 * reach;

/** A plane with its edge held round about, so that comparing has nothing to hold: this is what takes the time. */
type Padded = Size & { stride: number; data: Uint8Array };

function padded({ width, height, data }: Plane): Padded {
  const stride = width + 2 * beside;
  const out = new Uint8Array(stride * (height + 2 * beside));
  for (let y = 0; y < height + 2 * beside; y++) {
    const [from, to] = [held(y - beside, height) * width, y * stride];
    out.fill(data[from], to, to + beside);
    out.set(data.subarray(from, from + width), to + beside);
    out.fill(data[from + width - 1], to + beside + width, to + stride);
  }
  return { width, height, stride, data: out };
}

/** Where in a padded plane lies what is compared round a point; of one far outside, what lies at its edge. */
function cornerOf({ width, height, stride }: Padded, x: number, y: number): number {
  const [column, row] = [held(x + reach, width + 2 * reach), held(y + reach, height + 2 * reach)];
  return row * stride + column;
}

/** A picture's luma at the size that is looked at, and at a half and a quarter of it. */
function levelsOf({ width, height, y }: Luma): Padded[] {
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
  return [first, ...halves.map((half) => shrunk(first, half))].map(padded);
}

/**
 * How much two pictures differ round a point, where one is looked at a share of the movement before it and the other
 * the rest of it after: mean codes.
 * @param most beyond which it does not matter by how much
 */
function unlike(
  one: Padded,
  two: Padded,
  x: number,
  y: number,
  dx: number,
  dy: number,
  share: number,
  most: number,
): number {
  const [ax, ay] = [Math.round(x - share * dx), Math.round(y - share * dy)];
  let a = cornerOf(one, ax, ay);
  let b = cornerOf(two, ax + Math.round(dx), ay + Math.round(dy));
  let sum = 0;
  const enough = most * compared;
  const [first, second, down] = [one.data, two.data, 2 * one.stride];
  for (let row = 0; row < reach && sum <= enough; row++, a += down, b += down)
    for (let column = 0; column < 2 * reach; column += 2)
      sum += Math.abs(first[a + column] - second[b + column]);
  return sum / compared;
}

/** The middle one of each value and its eight neighbours, of an even number the higher one. */
function calmed(values: Float32Array, columns: number, rows: number): Float32Array {
  const out = new Float32Array(values.length);
  const around = new Float32Array(9);
  for (let y = 0, at = 0; y < rows; y++)
    for (let x = 0; x < columns; x++, at++) {
      let count = 0;
      for (let row = Math.max(0, y - 1); row <= Math.min(rows - 1, y + 1); row++)
        for (let column = Math.max(0, x - 1); column <= Math.min(columns - 1, x + 1); column++) {
          const value = values[row * columns + column];
          let place = count++;
          for (; place > 0 && around[place - 1] > value; place--) around[place] = around[place - 1];
          around[place] = value;
        }
      out[at] = around[count >> 1];
    }
  return out;
}

/**
 * How a picture moves to the next one, as seen a share of the way between: blocks of the picture that is to be made
 * are looked for on both sides at once, so that none of it is left without a movement.
 * @param share 0..1 of the time from one to two
 * @see Ha et al. 2004 (bilateral motion estimation), with a pyramid and a median over neighbours;
 *   Liu & Feig 1996 (descent over the eight places round the best one)
 */
export function flowBetween(one: Luma, two: Luma, share: number): Flow {
  const [first, second] = [levelsOf(one), levelsOf(two)];
  const { width, height } = first[0];
  const { width: columns, height: rows } = squaresOf(first[0], block);
  let dx: Float32Array = new Float32Array(columns * rows);
  let dy: Float32Array = new Float32Array(columns * rows);
  let unlikes = new Float32Array(columns * rows);
  for (let level = first.length - 1; level >= 0; level--) {
    const [a, b] = [first[level], second[level]];
    const scale = a.width / width;
    const coarsest = level === first.length - 1;
    const [nextX, nextY] = [new Float32Array(dx.length), new Float32Array(dy.length)];
    unlikes = unlikes.map((_, at) => {
      const beside = coarsest ? at - ((at % columns) & 1) - (Math.floor(at / columns) & 1) * columns : at;
      if (beside < at) {
        // Blocks lie so near to one another here that what is compared is nearly the same.
        [nextX[at], nextY[at]] = [nextX[beside], nextY[beside]];
        return 0;
      }
      const x = ((at % columns) + 0.5) * block * scale;
      const y = (Math.floor(at / columns) + 0.5) * block * scale;
      let [bestX, bestY, best, bestCost] = [0, 0, Infinity, Infinity];
      const tryAt = (moveX: number, moveY: number) => {
        if (moveX === bestX && moveY === bestY && bestCost < Infinity) return;
        const stiff = (stiffness * Math.sqrt(moveX * moveX + moveY * moveY)) / scale;
        if (stiff >= bestCost) return;
        const found = unlike(a, b, x, y, moveX, moveY, share, bestCost - stiff);
        const cost = found + stiff;
        if (cost < bestCost) [bestX, bestY, best, bestCost] = [moveX, moveY, found, cost];
      };
      if (coarsest) {
        for (let down = -far; down <= far; down++)
          for (let side = -far; side <= far; side++) tryAt(side, down);
      } else {
        tryAt(0, 0);
        for (const next of [at, at - 1, at + 1, at - columns, at + columns])
          if (next >= 0 && next < dx.length)
            tryAt(Math.round(dx[next] * scale), Math.round(dy[next] * scale));
        for (let step = 0; step < steps; step++) {
          const [middleX, middleY] = [bestX, bestY];
          for (let down = -1; down <= 1; down++)
            for (let side = -1; side <= 1; side++) tryAt(middleX + side, middleY + down);
          if (bestX === middleX && bestY === middleY) break;
        }
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

/** By how much each pixel of a flow's size moves, between the middles of its blocks. */
export const everyPixel = ({ size, dx, dy }: Flow): { dx: Float32Array; dy: Float32Array } => ({
  dx: spreadSquares(dx, block, size),
  dy: spreadSquares(dy, block, size),
});

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
