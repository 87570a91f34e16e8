import type { Placement } from '../geometry/placement';
import { checkSameSize, type GrayImage } from '../picture/image';
import { median } from '../statistics';
import { across, cellOf, down, within } from './cells';
import type { Anchors, Reference } from './reference';
import { pyramidOf } from './pyramid';
import { registerLevels } from './register';

/** share of a picture's cells that has to move as one for nothing else to be looked for */
const alike = 0.85;
/** codes by which one movement has to fit a cell better than another to have its vote: noise says nothing */
const tells = 1.5;

/** The light of a picture at a place from its middle; NaN outside. */
function lightAt({ width, height, data }: GrayImage, x: number, y: number): number {
  const [px, py] = [x + width / 2 - 0.5, y + height / 2 - 0.5];
  const [left, top] = [Math.floor(px), Math.floor(py)];
  if (left < 0 || top < 0 || left >= width - 1 || top >= height - 1) return NaN;
  const [right, below] = [px - left, py - top];
  const at = top * width + left;
  const upper = data[at] + (data[at + 1] - data[at]) * right;
  const lower = data[at + width] + (data[at + width + 1] - data[at + width]) * right;
  return upper + (lower - upper) * below;
}

/** How far a picture differs from a reference under a movement, in the mean of each cell; NaN where nothing tells. */
export function misfits(
  { x, y, value }: Anchors,
  frame: GrayImage,
  { dx, dy, rotation, scale }: Placement,
): number[] {
  const angle = (rotation * Math.PI) / 180;
  const [cos, sin] = [scale * Math.cos(angle), scale * Math.sin(angle)];
  const off = Float32Array.from(
    x,
    (_, index) =>
      lightAt(frame, cos * x[index] - sin * y[index] + dx, sin * x[index] + cos * y[index] + dy) -
      value[index],
  );
  const brighter = median(off.filter((one) => one === one));
  const cells = Array.from({ length: across * down }, (): number[] => []);
  off.forEach((one, index) => {
    if (one === one) cells[cellOf(x[index], y[index], frame)].push(Math.abs(one - brighter));
  });
  return cells.map((values) =>
    values.length < 4 ? NaN : values.reduce((sum, one) => sum + one, 0) / values.length,
  );
}

/** How many codes the middle one of all cells misses by: what fits less than half of a picture is not its ground. */
const usualMiss = (cells: readonly number[]): number => median(cells.filter((one) => one === one));

/**
 * How the ground of a picture lies against an earlier one, apart from whoever moves before it: of some movements, found
 * by all of the picture and by parts of it, the one that most of its cells go along with, however little there is to
 * see in each.
 * @param reference an earlier picture of the same camera, with the same people in it
 */
export function groundFrame(reference: Reference, frame: GrayImage): Placement {
  checkSameSize(reference, frame);
  const levels = pyramidOf(frame);
  const judged = (placement: Placement) => ({
    placement,
    cells: misfits(reference.anchors[0], levels[0], placement),
  });
  let best = judged(registerLevels(reference, levels));
  const told = best.cells.filter((one) => one === one).sort((one, other) => one - other);
  // What fits best says how much noise there is, even where most of the picture goes another way.
  const strange = best.cells.map((one) => one > 1.5 * told[told.length >> 3] + tells);
  if (strange.filter(Boolean).length <= (1 - alike) * told.length) return best.placement;
  const column = (cell: number) => cell % across;
  const parts: ((cell: number) => boolean)[] = [
    (cell) => strange[cell],
    (cell) => column(cell) < across / 3,
    (cell) => column(cell) >= (2 * across) / 3,
    (cell) => cell < (across * down) / 3,
  ];
  for (const part of parts) {
    const found = registerLevels(within(reference, part), levels);
    const one = judged(found);
    if (found.agreement > 0 && usualMiss(one.cells) < usualMiss(best.cells)) best = one;
  }
  const most = 1.5 * usualMiss(best.cells) + tells;
  const again = registerLevels(
    within(reference, (cell) => !(best.cells[cell] > most)),
    levels,
  );
  const last = judged(again);
  return again.agreement > 0 && usualMiss(last.cells) <= usualMiss(best.cells) ? again : best.placement;
}
