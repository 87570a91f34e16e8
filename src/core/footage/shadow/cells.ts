import type { Size } from '../../geometry/size';
import type { RgbaImage } from '../../picture/image';
import { median, quantile } from '../../statistics';

/** What a shadow leaves of the light in codes: less is as good as black, and tells nothing of what lies under it. */
const deepest = 0.35;
/** codes by which a shadow darkens a cell at least */
const leastDepth = 4;
/** codes that the empty set has at least where a shadow can be seen on it */
export const leastLight = 16;
/** codes, and share of the light, by which a shadow may shift one colour against the others */
const tint = { codes: 2.5, share: 0.05 };

/** What is known of each cell of both pictures: means of each colour, and how their patterns of luma go together. */
export type Cells = {
  set: Float64Array;
  seen: Float64Array;
  count: Float64Array;
  /** sums of squares about a cell's own mean, of the set, of the picture, and of both together */
  own: Float64Array;
  other: Float64Array;
  both: Float64Array;
};

/** What is known of the cells of a picture and of the empty set. @param lights luma of both */
export function cellsOf(
  plate: RgbaImage,
  picture: RgbaImage,
  lights: readonly Float32Array[],
  { width, height }: Size,
) {
  const all = width * height;
  const cells: Cells = {
    set: new Float64Array(3 * all),
    seen: new Float64Array(3 * all),
    count: new Float64Array(all),
    own: new Float64Array(all),
    other: new Float64Array(all),
    both: new Float64Array(all),
  };
  const sums = [new Float64Array(all), new Float64Array(all)];
  const columns = Int32Array.from({ length: plate.width }, (_, x) => Math.floor((x * width) / plate.width));
  const [ownData, otherData] = [plate.data, picture.data];
  for (let y = 0, pixel = 0, at = 0; y < plate.height; y++) {
    const row = Math.floor((y * height) / plate.height) * width;
    for (let x = 0; x < plate.width; x++, pixel++, at += 4) {
      const cell = row + columns[x];
      const to = 3 * cell;
      cells.set[to] += ownData[at];
      cells.set[to + 1] += ownData[at + 1];
      cells.set[to + 2] += ownData[at + 2];
      cells.seen[to] += otherData[at];
      cells.seen[to + 1] += otherData[at + 1];
      cells.seen[to + 2] += otherData[at + 2];
      const [one, other] = [lights[0][pixel], lights[1][pixel]];
      cells.count[cell]++;
      sums[0][cell] += one;
      sums[1][cell] += other;
      cells.own[cell] += one * one;
      cells.other[cell] += other * other;
      cells.both[cell] += one * other;
    }
  }
  for (let cell = 0; cell < all; cell++) {
    const count = Math.max(1, cells.count[cell]);
    cells.own[cell] -= sums[0][cell] ** 2 / count;
    cells.other[cell] -= sums[1][cell] ** 2 / count;
    cells.both[cell] -= (sums[0][cell] * sums[1][cell]) / count;
    for (let channel = 0; channel < 3; channel++) {
      cells.set[3 * cell + channel] /= count;
      cells.seen[3 * cell + channel] /= count;
    }
  }
  return cells;
}

/** Puts the set into the light that most of the picture is in, each colour by itself. */
export function relight({ set, seen }: Cells): void {
  for (let channel = 0; channel < 3; channel++) {
    const gains: number[] = [];
    for (let at = channel; at < set.length; at += 3)
      if (set[at] >= leastLight) gains.push(seen[at] / set[at]);
    if (gains.length === 0) continue;
    const gain = median(gains);
    for (let at = channel; at < set.length; at += 3) set[at] *= gain;
  }
}

/** The share of the set's light that a cell has left; null where it is not darkened as by a shadow, all colours alike. */
export function shareLeft({ set, seen }: Cells, cell: number): number | null {
  const at = 3 * cell;
  const dot = (one: Float64Array, other: Float64Array) =>
    one[at] * other[at] + one[at + 1] * other[at + 1] + one[at + 2] * other[at + 2];
  const light = (set[at] + set[at + 1] + set[at + 2]) / 3;
  const depth = light - (seen[at] + seen[at + 1] + seen[at + 2]) / 3;
  if (light < leastLight || depth < leastDepth) return null;
  const share = dot(set, seen) / dot(set, set);
  if (share < deepest) return null;
  for (let channel = 0; channel < 3; channel++)
    if (
      Math.abs(seen[at + channel] - share * set[at + channel]) >
      tint.codes + tint.share * set[at + channel]
    )
      return null;
  return share;
}

/** By how many codes a cell is darker than the set. */
export const depthOf = ({ set, seen }: Cells, cell: number): number =>
  (set[3 * cell] +
    set[3 * cell + 1] +
    set[3 * cell + 2] -
    seen[3 * cell] -
    seen[3 * cell + 1] -
    seen[3 * cell + 2]) /
  3;

/** Whether a cell lies in the light, with nobody before it. */
export const isClear = ({ set, seen }: Cells, cell: number): boolean =>
  [0, 1, 2].every((channel) => Math.abs(set[3 * cell + channel] - seen[3 * cell + channel]) < 2 * leastDepth);

/** The variance of a pixel's noise, by cells in which hardly anything is new. */
export const noiseOf = ({ own, other, both, count }: Cells): number =>
  quantile(
    own.map((squares, cell) => (squares + other[cell] - 2 * both[cell]) / Math.max(1, count[cell]) / 2),
    0.3,
  );
