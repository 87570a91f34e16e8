import type { Size } from '../geometry/size';

/** The numbers of squares that a picture divides into; the last ones of a row and a column may reach beyond it. */
export const squaresOf = ({ width, height }: Size, side: number): Size => ({
  width: Math.ceil(width / side),
  height: Math.ceil(height / side),
});

/**
 * Means of a plane over squares.
 * @param corner of the first of them, in pixels of the plane
 * @param size how many of them there are each way
 */
export function meansOfSquares(
  { data, width, height }: { data: Uint8Array | Float32Array } & Size,
  side: number,
  { left, top }: { left: number; top: number },
  size: Size,
): Float32Array {
  const out = new Float32Array(size.width * size.height);
  for (let y = 0, to = 0; y < size.height; y++) {
    const [first, last] = [top + y * side, Math.min(height, top + (y + 1) * side)];
    for (let x = 0; x < size.width; x++, to++) {
      const [from, until] = [left + x * side, Math.min(width, left + (x + 1) * side)];
      let sum = 0;
      for (let row = first * width; row < last * width; row += width)
        for (let at = row + from; at < row + until; at++) sum += data[at];
      out[to] = sum / Math.max(1, (last - first) * (until - from));
    }
  }
  return out;
}

/** Where along one side of a picture each pixel lies between the middles of two squares: the first of them, and how far to the next. */
function between(length: number, side: number, count: number): { first: Int32Array; share: Float32Array } {
  const [first, share] = [new Int32Array(length), new Float32Array(length)];
  for (let pixel = 0; pixel < length; pixel++) {
    const place = Math.min(count - 1, Math.max(0, (pixel + 0.5) / side - 0.5));
    first[pixel] = Math.max(0, Math.min(count - 2, Math.floor(place)));
    share[pixel] = place - first[pixel];
  }
  return { first, share };
}

/** Values of squares as values of a picture's pixels: straight from the middle of one to that of the next, the edge held. */
export function spreadSquares(values: Float32Array, side: number, size: Size): Float32Array {
  const { width: columns, height: rows } = squaresOf(size, side);
  const [across, down] = [between(size.width, side, columns), between(size.height, side, rows)];
  const below = rows > 1 ? columns : 0;
  const line = new Float32Array(columns + 1);
  const out = new Float32Array(size.width * size.height);
  for (let y = 0, pixel = 0; y < size.height; y++) {
    const [row, share] = [down.first[y] * columns, down.share[y]];
    for (let column = 0, at = row; column < columns; column++, at++)
      line[column] = values[at] + share * (values[at + below] - values[at]);
    for (let x = 0; x < size.width; x++, pixel++) {
      const first = across.first[x];
      out[pixel] = line[first] + across.share[x] * (line[first + 1] - line[first]);
    }
  }
  return out;
}
