import { cellCount, type PictureCells } from './cells';
import type { WatchReference } from './reference';

/** What stands in a picture that its plate has not, a cell each. */
export type Standing = {
  /** 1 where something stands */
  present: Uint8Array;
  /** 1 where it is only darker: a shadow */
  shadow: Uint8Array;
  /** mean code of each cell, to tell what moves from what hangs */
  level: Float32Array;
};

/** codes by which noise alone changes a cell */
const noise = 13;

/** A display code under more or less light. */
const lifted = (code: number, stops: number): number => Math.min(255, code * 2 ** (stops / 2.2));

/**
 * Holds a picture's cells against the plate's.
 * @param gains stops by which each channel is brighter than on the plate
 * @param slip how far edges have moved, in widths of a cell (0..1)
 * @returns also `sharp`: fine detail of cells in which nothing stands, as shares of the plate's
 */
export function standingIn(
  reference: WatchReference,
  taken: PictureCells,
  gains: readonly [number, number, number],
  slip: number,
): Standing & { sharp: number[] } {
  const present = new Uint8Array(cellCount);
  const shadow = new Uint8Array(cellCount);
  const level = new Float32Array(cellCount);
  const sharp: number[] = [];
  for (let cell = 0; cell < cellCount; cell++) {
    const at = cell * 3;
    let [most, darker] = [0, true];
    const alike: number[] = [];
    for (let channel = 0; channel < 3; channel++) {
      const expected = lifted(reference.colour[at + channel], gains[channel]);
      const off = taken.colour[at + channel] - expected;
      level[cell] += taken.colour[at + channel] / 3;
      most = Math.max(most, Math.abs(off));
      if (off > -4) darker = false;
      alike.push(taken.colour[at + channel] / Math.max(8, expected));
    }
    // An edge that moved by a part of a cell changes the cell by that part of it.
    const limit = noise + 1.5 * slip * reference.edge[cell];
    if (most <= limit) {
      if (reference.detail[cell] > 60) sharp.push(taken.detail[cell] / reference.detail[cell]);
      continue;
    }
    const spread = Math.max(...alike) - Math.min(...alike);
    present[cell] = 1;
    if (darker && spread < 0.14 && Math.min(...alike) > 0.25) shadow[cell] = 1;
  }
  return { present, shadow, level, sharp };
}
