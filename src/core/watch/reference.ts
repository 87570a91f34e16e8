import { refuse } from '../error';
import { prepareReference, type Reference } from '../footage/reference';
import type { Size } from '../geometry/size';
import type { RgbaImage } from '../picture/image';
import { cellCount, cellGrid, readCells, type PictureCells } from './cells';

/** A plate, prepared once for many checks. */
export type WatchReference = {
  registered: Reference;
  colour: Float32Array;
  detail: Float32Array;
  /** how much codes differ within and around a cell: an edge that moves a little must not count as a person */
  edge: Float32Array;
  size: Size;
};

/**
 * Prepares a plate.
 * @param pictures one picture of the empty set, or several in a row: their mean has less noise
 * @throws CoreError `no-reference` without a picture, `sizes-differ` where they differ in size
 */
export function watchReference(pictures: readonly RgbaImage[]): WatchReference {
  if (pictures.length === 0) refuse('no-reference', 'There is no clean plate yet. Film the plate first.');
  const taken = pictures.map(readCells);
  const [first] = taken;
  const mean = (pick: (one: PictureCells) => Float32Array) =>
    first && pick(first).map((_, at) => taken.reduce((sum, one) => sum + pick(one)[at], 0) / taken.length);
  for (const one of taken) {
    if (one.luma.width !== first.luma.width || one.luma.height !== first.luma.height)
      refuse('sizes-differ', 'The plate’s pictures differ in size. Film the plate again in one go.');
  }
  const colour = mean((one) => one.colour);
  const edge = new Float32Array(cellCount);
  const green = (x: number, y: number) =>
    colour[
      (Math.min(cellGrid.height - 1, Math.max(0, y)) * cellGrid.width +
        Math.min(cellGrid.width - 1, Math.max(0, x))) *
        3 +
        1
    ];
  for (let y = 0; y < cellGrid.height; y++)
    for (let x = 0; x < cellGrid.width; x++)
      edge[y * cellGrid.width + x] = Math.max(
        Math.abs(green(x + 1, y) - green(x, y)),
        Math.abs(green(x - 1, y) - green(x, y)),
        Math.abs(green(x, y + 1) - green(x, y)),
        Math.abs(green(x, y - 1) - green(x, y)),
      );
  const registered = prepareReference({ ...first.luma, data: mean((one) => one.luma.data) });
  return { registered, colour, detail: mean((one) => one.detail), edge, size: first.from };
}
