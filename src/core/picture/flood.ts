/** Cells in rows, and in layers of rows where there are several. */
export type Cells = { width: number; height: number; layers?: number };

/**
 * All cells that are connected with a start, step by step along the axes.
 * @param passable 1 for cells that can be stepped on; width × height × layers
 * @param seen 1 for cells that were reached before; those reached now are marked
 * @returns the cells reached now, in no order; none where the start cannot be stepped on or was reached before
 */
export function flood(
  { width, height, layers = 1 }: Cells,
  passable: ArrayLike<number>,
  seen: Uint8Array,
  start: number,
): number[] {
  const area = width * height;
  const reached: number[] = [];
  const visit = (cell: number) => {
    if (!passable[cell] || seen[cell]) return;
    seen[cell] = 1;
    reached.push(cell);
  };
  visit(start);
  for (let next = 0; next < reached.length; next++) {
    const cell = reached[next];
    const layer = Math.floor(cell / area);
    const row = Math.floor((cell - layer * area) / width);
    const column = cell % width;
    if (column > 0) visit(cell - 1);
    if (column + 1 < width) visit(cell + 1);
    if (row > 0) visit(cell - width);
    if (row + 1 < height) visit(cell + width);
    if (layer > 0) visit(cell - area);
    if (layer + 1 < layers) visit(cell + area);
  }
  return reached;
}
