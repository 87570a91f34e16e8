import { between, cornerMove, type Placement } from '../geometry/placement';
import type { Size } from '../geometry/size';
import { quantile } from '../statistics';
import { across, cellOf, down, within } from './cells';
import { misfits } from './ground';
import { pixelsOf, type Reference } from './reference';

const count = across * down;
/** places below which nothing is told of a cell */
const fewest = 8;
/** times the quiet cells' difference, and codes more, from which on something moves in a cell */
const [times, more] = [1.5, 1];
/** codes that a coder changes by itself from one picture to another, where it keeps flat ones to the bit */
const coded = 4;
/** share of the cells from which on all of the picture moved, and by which nobody enters it at once */
const [most, sudden] = [0.6, 0.2];
/** share of the cells that has to be left to go by */
const enough = 0.25;
/** codes by which a cell fits better where the camera stood, or where it is said to have gone: noise says nothing */
const tells = 0.75;
/** how many speak against a move, for each that speaks for it, where somebody moved and not the camera */
const against = 0.25;
/** pixels by which a corner moves that no cell tells of */
const unseen = 0.05;

/** A picture of a take, and where the camera stood. */
export type Seen = { luma: Uint8Array; placement: Placement };

/**
 * What of a reference is to be gone by while somebody moves before a camera that stands. Somebody large moves as one,
 * often with more contrast than the set, and would be taken for it: their cells are left out, where they stand in the
 * reference and where they were seen last.
 */
export class Restless {
  private readonly pixels: Int32Array;
  private readonly cells: Uint8Array;
  private usual = Infinity;
  private share = 1;
  private first: Uint8Array | null = null;
  private last: Uint8Array | null = null;

  constructor(
    private readonly whole: Reference,
    private readonly size: Size,
  ) {
    const [anchors] = whole.anchors;
    const { x, y } = anchors;
    this.pixels = pixelsOf(anchors);
    this.cells = Uint8Array.from(x, (_, at) => cellOf(x[at], y[at], size));
  }

  /**
   * Tells from two pictures, some time apart, who moves.
   * @returns the places to go by from now on; null where nothing new is told
   */
  look(before: Seen, after: Seen): Reference | null {
    const moves = this.differing(before.luma, after.luma);
    if (!moves || !this.stood(before, after)) return null;
    const maps = [(this.first ??= moves), this.last ?? moves, moves];
    this.last = moves;
    const keeps = (cell: number) => maps.every((map) => !map[cell]);
    const left = Array.from({ length: count }, (_, cell) => keeps(cell)).filter(Boolean).length;
    return left === count || left < enough * count ? null : within(this.whole, keeps);
  }

  /** The cells whose light changed; null where the camera may have moved between the two. */
  private differing(before: Uint8Array, after: Uint8Array): Uint8Array | null {
    const sums = new Float64Array(count);
    const places = new Uint32Array(count);
    this.pixels.forEach((pixel, at) => {
      sums[this.cells[at]] += Math.abs(after[pixel] - before[pixel]);
      places[this.cells[at]]++;
    });
    const means = sums.map((sum, cell) => (places[cell] < fewest ? NaN : sum / places[cell]));
    const told = [...means].filter((one) => one === one);
    if (told.length === 0) return null;
    this.usual = Math.min(this.usual, quantile(told, 0.25));
    const limit = Math.max(coded, times * this.usual + more);
    const share = told.filter((one) => one > limit).length / told.length;
    if (share > Math.min(most, this.share + sudden)) return null;
    this.share = share;
    return Uint8Array.from(means, (one) => Number(one > limit));
  }

  /**
   * Whether the camera stood, as where it moved by less than can be told: too many of the cells that tell fit better
   * where it was than where it seems to have gone.
   */
  private stood(before: Seen, after: Seen): boolean {
    if (cornerMove(between(before.placement, after.placement), this.size) < unseen) return true;
    const frame = { ...this.size, data: after.luma };
    const [anchors] = this.whole.anchors;
    const [was, went] = [before, after].map(({ placement }) => misfits(anchors, frame, placement));
    const better = (one: number[], other: number[]) =>
      one.filter((miss, cell) => miss < other[cell] - tells).length;
    return better(was, went) >= against * better(went, was);
  }
}
