import type { Size } from '../../geometry/size';
import type { Cells } from './cells';

/** cells to each side by which is told whether what lies under a shadow still shows, and how wide its edge is */
export const round = 2;
/** how many times the noise the set's own pattern has to be, to tell anything */
const telling = 2;
/** share of the set's pattern that has to be left under a shadow */
const leastPattern = 0.5;
/** codes by which parts of the set differ under a shadow that spans them, and share of that which has to be left of it */
const spanned = { codes: 5, explained: 0.5 };

/** A cell and those round it, so many to each side. */
export function cellsRound({ width, height }: Size, cell: number, by: number): number[] {
  const [column, row] = [cell % width, Math.floor(cell / width)];
  const out: number[] = [];
  for (let y = Math.max(0, row - by); y <= Math.min(height - 1, row + by); y++)
    for (let x = Math.max(0, column - by); x <= Math.min(width - 1, column + by); x++)
      out.push(y * width + x);
  return out;
}

/** Whether the set's own pattern shows under what darkens a cell: 1 it does, -1 it does not, 0 it has none there. */
export function patternUnder(
  { own, both, count }: Cells,
  size: Size,
  shares: Float32Array,
  noise: number,
  cell: number,
): -1 | 0 | 1 {
  let [squares, common, pixels, shared] = [0, 0, 0, 0];
  for (const one of cellsRound(size, cell, round)) {
    if (shares[one] === 0) continue;
    squares += own[one];
    common += both[one];
    pixels += count[one];
    shared += shares[one] * count[one];
  }
  const pattern = squares - noise * pixels;
  if (pattern < telling * Math.max(1, noise) * pixels) return 0;
  return common / pattern >= (leastPattern * shared) / pixels ? 1 : -1;
}

/** Whether parts of the set that are lighter than others are so as well where something darkens both, by means of cells. */
export function spansParts({ set, seen }: Cells, piece: readonly number[]): boolean {
  const light = (of: Float64Array, cell: number) => (of[3 * cell] + of[3 * cell + 1] + of[3 * cell + 2]) / 3;
  const lights = [set, seen].map((of) => piece.map((cell) => light(of, cell)));
  const [own, other] = lights.map((all) => all.reduce((sum, one) => sum + one, 0) / all.length);
  let [squares, squaresSeen, common] = [0, 0, 0];
  for (let index = 0; index < piece.length; index++) {
    const [one, two] = [lights[0][index] - own, lights[1][index] - other];
    squares += one * one;
    squaresSeen += two * two;
    common += one * two;
  }
  const apart = Math.sqrt(squares / piece.length);
  if (apart < spanned.codes || common < (leastPattern * squares * other) / own) return false;
  return common ** 2 >= spanned.explained * squares * squaresSeen;
}
