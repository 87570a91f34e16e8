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

/** The values of squares in the line of a picture's pixels, into `line`: one a column of squares. */
function intoLine(
  values: Float32Array,
  { width: columns, height: rows }: Size,
  down: ReturnType<typeof between>,
  y: number,
  line: Float32Array,
): void {
  const share = down.share[y];
  const below = rows > 1 ? columns : 0;
  for (let column = 0, at = down.first[y] * columns; column < columns; column++, at++)
    line[column] = values[at] + share * (values[at + below] - values[at]);
}

/** Values of squares as values of a picture's pixels: straight from the middle of one to that of the next, the edge held. */
export function spreadSquares(values: Float32Array, side: number, size: Size): Float32Array {
  const squares = squaresOf(size, side);
  const [across, down] = [
    between(size.width, side, squares.width),
    between(size.height, side, squares.height),
  ];
  const { first, share } = across;
  const line = new Float32Array(squares.width + 1);
  const out = new Float32Array(size.width * size.height);
  for (let y = 0, pixel = 0; y < size.height; y++) {
    intoLine(values, squares, down, y, line);
    for (let x = 0; x < size.width; x++, pixel++) {
      const at = first[x];
      out[pixel] = line[at] + share[x] * (line[at + 1] - line[at]);
    }
  }
  return out;
}

/** A line that each square has, at the values of a picture's pixels; slopes and shifts are spread as `spreadSquares` does. */
export function linesOfSquares(
  slopes: Float32Array,
  shifts: Float32Array,
  values: Float32Array,
  side: number,
  size: Size,
): Float32Array {
  const squares = squaresOf(size, side);
  const [across, down] = [
    between(size.width, side, squares.width),
    between(size.height, side, squares.height),
  ];
  const { first, share } = across;
  const [slope, shift] = [new Float32Array(squares.width + 1), new Float32Array(squares.width + 1)];
  const out = new Float32Array(size.width * size.height);
  for (let y = 0, pixel = 0; y < size.height; y++) {
    intoLine(slopes, squares, down, y, slope);
    intoLine(shifts, squares, down, y, shift);
    for (let x = 0; x < size.width; x++, pixel++) {
      const [at, to] = [first[x], share[x]];
      const rises = slope[at] + to * (slope[at + 1] - slope[at]);
      out[pixel] = rises * values[pixel] + shift[at] + to * (shift[at + 1] - shift[at]);
    }
  }
  return out;
}
