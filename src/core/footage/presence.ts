import { flood } from '../picture/flood';
import type { Point, Size } from '../geometry/size';
import type { RgbaImage } from '../picture/image';

/** Where a take differs from its plate, frame by frame: 1 where something stands that the plate has not. */
export type Presence = Size & { frames: Uint8Array[] };

/** The coarse grid in which a comparison keeps where a take ever differs from its plate. */
export const coveredCells: Size = { width: 48, height: 27 };

/** Who stands where at some seconds of a take: cells of a coarse grid, eight to a byte. */
export type Standing = { times: number[]; packed: Uint8Array[] };

/** Cells of 0 and 1, eight to a byte. */
export function packCells(cells: ArrayLike<number>): Uint8Array {
  const out = new Uint8Array(Math.ceil(cells.length / 8));
  for (let cell = 0; cell < cells.length; cell++) if (cells[cell]) out[cell >> 3] |= 1 << (cell & 7);
  return out;
}

/** What {@link packCells} packed. @param count how many cells there are */
export const unpackCells = (packed: Uint8Array, count: number): Uint8Array =>
  Uint8Array.from({ length: count }, (_, cell) => (packed[cell >> 3] >> (cell & 7)) & 1);

/** Compares means of small squares, so that noise does not count. `limit` in codes. */
export function presenceOf(plate: RgbaImage, frame: RgbaImage, size: Size, limit = 14): Uint8Array {
  const out = new Uint8Array(size.width * size.height);
  const stepX = frame.width / size.width;
  const stepY = frame.height / size.height;
  for (let row = 0; row < size.height; row++) {
    for (let column = 0; column < size.width; column++) {
      let [red, green, blue, count] = [0, 0, 0, 0];
      for (let y = Math.floor(row * stepY); y < (row + 1) * stepY && y < frame.height; y++) {
        for (let x = Math.floor(column * stepX); x < (column + 1) * stepX && x < frame.width; x++) {
          const at = (y * frame.width + x) * 4;
          red += frame.data[at] - plate.data[at];
          green += frame.data[at + 1] - plate.data[at + 1];
          blue += frame.data[at + 2] - plate.data[at + 2];
          count++;
        }
      }
      const off = Math.max(Math.abs(red), Math.abs(green), Math.abs(blue)) / Math.max(1, count);
      out[row * size.width + column] = off > limit ? 1 : 0;
    }
  }
  return out;
}

/** The present cell of a frame that lies nearest to a point, in shares of the frame; -1 where none is near. */
export function nearestCell({ width, frames, height }: Presence, frame: number, at: Point): number {
  const [cx, cy] = [at[0] * width, at[1] * height];
  let nearest = { cell: -1, distance: width * 0.05 };
  frames[frame].forEach((present, cell) => {
    if (!present) return;
    const distance = Math.hypot((cell % width) + 0.5 - cx, Math.floor(cell / width) + 0.5 - cy);
    if (distance < nearest.distance) nearest = { cell, distance };
  });
  return nearest.cell;
}

/** The middle of the largest thing present in a frame, in shares of the frame; null where there is none. */
export function largestThing({ width, height, frames }: Presence, frame: number): Point | null {
  const cells = frames[frame];
  const seen = new Uint8Array(cells.length);
  let largest: number[] = [];
  for (let start = 0; start < cells.length; start++) {
    const found = flood({ width, height }, cells, seen, start);
    if (found.length > largest.length) largest = found;
  }
  if (largest.length < 6) return null;
  const mean = (of: (cell: number) => number) =>
    largest.reduce((sum, cell) => sum + of(cell) + 0.5, 0) / largest.length;
  return [mean((cell) => cell % width) / width, mean((cell) => Math.floor(cell / width)) / height];
}
