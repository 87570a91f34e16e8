import { refuse } from '../error';
import type { RgbaImage } from '../picture/image';
import type { Size } from '../geometry/size';

/** Cells that a picture is judged in. */
export const cellGrid: Size = { width: 64, height: 36 };
/** Cells that a picture is divided into. */
export const cellCount = cellGrid.width * cellGrid.height;
/** Longest side at which the camera's position is measured. */
const watchSide = 640;

/** What a check needs of one picture, taken from it in one go. */
export type PictureCells = {
  /** luma, 0..255, at the size in which positions are measured */
  luma: { width: number; height: number; data: Float32Array };
  /** mean display codes of each cell, three a cell */
  colour: Float32Array;
  /** mean square of the second difference of each cell's luma: fine detail and noise */
  detail: Float32Array;
  /** size of the picture it was taken from */
  from: Size;
};

/**
 * Takes what a check needs from a picture.
 * @throws CoreError `watch.small` under 64 × 36 pixels
 */
export function readCells(image: RgbaImage): PictureCells {
  const { width, height, data } = image;
  if (width < cellGrid.width || height < cellGrid.height || data.length < width * height * 4)
    return refuse('watch.small', 'This picture is too small to be watched. Choose a larger size.');
  const factor = Math.max(1, Math.ceil(Math.max(width, height) / watchSide));
  const [lw, lh] = [Math.floor(width / factor), Math.floor(height / factor)];
  const luma = new Float32Array(lw * lh);
  const sums = new Float32Array(cellCount * 3);
  const detail = new Float32Array(cellCount);
  const places = new Float32Array(cellCount);
  const edges = Array.from({ length: cellGrid.width + 1 }, (_, x) => Math.ceil((x * width) / cellGrid.width));
  // Two lines back are enough for the second difference down.
  let [before, last, line] = [new Float32Array(width), new Float32Array(width), new Float32Array(width)];
  for (let y = 0; y < height; y++) {
    const row = Math.floor((y * cellGrid.height) / height) * cellGrid.width;
    const start = y * width * 4;
    for (let column = 0; column < cellGrid.width; column++) {
      const [from, to] = [edges[column], edges[column + 1]];
      let [reds, greens, blues, fine] = [0, 0, 0, 0];
      for (let x = from, at = start + from * 4; x < to; x++, at += 4) {
        const red = data[at];
        const green = data[at + 1];
        const blue = data[at + 2];
        const value = 0.2126 * red + 0.7152 * green + 0.0722 * blue;
        line[x] = value;
        reds += red;
        greens += green;
        blues += blue;
        if (x > 1 && y > 1) {
          const across = line[x - 2] - 2 * line[x - 1] + value;
          const down = before[x] - 2 * last[x] + value;
          fine += across * across + down * down;
        }
      }
      const cell = row + column;
      sums[cell * 3] += reds;
      sums[cell * 3 + 1] += greens;
      sums[cell * 3 + 2] += blues;
      detail[cell] += fine;
      places[cell] += to - from;
    }
    if (y < lh * factor) {
      const into = Math.floor(y / factor) * lw;
      for (let x = 0, small = into; small < into + lw; small++)
        for (let part = 0; part < factor; part++) luma[small] += line[x++];
    }
    [before, last, line] = [last, line, before];
  }
  const area = factor * factor;
  if (area > 1) for (let at = 0; at < luma.length; at++) luma[at] /= area;
  for (let cell = 0; cell < cellCount; cell++) {
    for (let channel = 0; channel < 3; channel++) sums[cell * 3 + channel] /= places[cell];
    detail[cell] /= places[cell];
  }
  return { luma: { width: lw, height: lh, data: luma }, colour: sums, detail, from: { width, height } };
}
