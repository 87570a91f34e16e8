import type { Point, Size } from '../geometry/size';

/** How near two come: how far apart they are, in shares of the picture's width, and where, in shares of the picture. */
export type Nearness = { apart: number; at: Point };

/** Cells that are marked beside one that is not, or at the grid's edge. */
function rimOf({ width, height }: Size, marked: Uint8Array): Point[] {
  const rim: Point[] = [];
  for (let y = 0, cell = 0; y < height; y++)
    for (let x = 0; x < width; x++, cell++) {
      if (!marked[cell]) continue;
      const isInside = x > 0 && y > 0 && x < width - 1 && y < height - 1;
      const isWhole =
        isInside && marked[cell - 1] && marked[cell + 1] && marked[cell - width] && marked[cell + width];
      if (!isWhole) rim.push([x, y]);
    }
  return rim;
}

/**
 * How near somebody of one picture comes to somebody of another, laid over each other.
 * @param one and @param other 1 for cells in which they stand, of a grid over the picture
 * @param shape width over height of the picture
 * @returns 0 apart where they touch or overlap; null where one of them is not there
 */
export function nearnessOf(size: Size, one: Uint8Array, other: Uint8Array, shape: number): Nearness | null {
  const [first, second] = [rimOf(size, one), rimOf(size, other)];
  if (first.length === 0 || second.length === 0) return null;
  const [across, down] = [1 / size.width, 1 / (size.height * shape)];
  let best = { squared: Infinity, at: [0, 0] as Point };
  for (const [x, y] of first)
    for (const [u, v] of second) {
      // Cells side by side touch: what lies between them counts.
      const dx = Math.max(0, Math.abs(x - u) - 1) * across;
      const dy = Math.max(0, Math.abs(y - v) - 1) * down;
      const squared = dx * dx + dy * dy;
      if (squared < best.squared)
        best = { squared, at: [((x + u) / 2 + 0.5) / size.width, ((y + v) / 2 + 0.5) / size.height] };
    }
  const overlap = one.some((marked, cell) => marked === 1 && other[cell] === 1);
  return { apart: overlap ? 0 : Math.sqrt(best.squared), at: best.at };
}
