import { cornerMove, inPlace } from '../geometry/placement';
import type { Size } from '../geometry/size';
import { solveLinear } from '../linear-system';
import { robustSpread, tukeyLimit, tukeyWeight } from '../robust';

/** places that are looked at */
const most = 1_200;
/** what a step may do: move across, move down, turn, grow, and get lighter */
const parts = 5;

/**
 * How far the picture's corner moved from one picture to the next, roughly: one step from the slopes at some places,
 * with what moves by itself and changed light left out. Far too small for large moves, but never nothing.
 * @param places indices of pixels with strong slopes, at least two pixels from the edge; every so manyeth is looked at
 * @returns pixels
 * @see Lucas & Kanade 1981; robust weights after Tukey
 */
export function nudgeBetween(before: Uint8Array, after: Uint8Array, size: Size, places: Int32Array): number {
  const { width } = size;
  const step = Math.max(1, Math.ceil(places.length / most));
  const count = Math.floor((places.length + step - 1) / step);
  if (count < 60) return 0;
  const rows = new Float64Array(count * parts);
  const change = new Float64Array(count);
  for (let index = 0; index < count; index++) {
    const at = places[index * step];
    const x = (at % width) + 0.5 - width / 2;
    const y = Math.floor(at / width) + 0.5 - size.height / 2;
    // The slope of both pictures' mean lies in the middle of the step.
    const gx = (before[at + 1] - before[at - 1] + after[at + 1] - after[at - 1]) / 4;
    const gy = (before[at + width] - before[at - width] + after[at + width] - after[at - width]) / 4;
    const from = index * parts;
    rows[from] = gx;
    rows[from + 1] = gy;
    rows[from + 2] = gy * x - gx * y;
    rows[from + 3] = gx * x + gy * y;
    rows[from + 4] = 1;
    change[index] = before[at] - after[at];
  }
  let found = new Array<number>(parts).fill(0);
  const [residual, sizes] = [new Float64Array(count), new Float64Array(count)];
  for (let round = 0; round < 3; round++) {
    for (let index = 0, from = 0; index < count; index++, from += parts) {
      let sum = change[index];
      for (let part = 0; part < parts; part++) sum -= found[part] * rows[from + part];
      residual[index] = sum;
      sizes[index] = Math.abs(sum);
    }
    const limit = tukeyLimit * Math.max(1, robustSpread(sizes));
    const matrix = Array.from({ length: parts }, () => new Array<number>(parts).fill(0));
    const right = new Array<number>(parts).fill(0);
    for (let index = 0, from = 0; index < count; index++, from += parts) {
      const weight = tukeyWeight(residual[index] / limit);
      if (weight === 0) continue;
      for (let i = 0; i < parts; i++) {
        const scaled = weight * rows[from + i];
        for (let j = 0; j < parts; j++) matrix[i][j] += scaled * rows[from + j];
        right[i] += scaled * change[index];
      }
    }
    const solved = solveLinear(matrix, right);
    if (!solved || !solved.every(Number.isFinite)) return 0;
    found = solved;
  }
  const [dx, dy, turn, grow] = found;
  return cornerMove({ ...inPlace, dx, dy, rotation: (turn * 180) / Math.PI, scale: 1 + grow }, size);
}
