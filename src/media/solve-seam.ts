import { followTap, largestThing, presenceOf, type Presence } from '@/core/footage/presence';
import {
  addDisagreement,
  cutStill,
  joinCost,
  joinVisibility,
  withMargin,
  newDisagreement,
  outlineOf,
} from '@/core/footage/seam';
import type { SeamMeasure } from '@/core/model/measures';
import { PlanarPainter } from '@/core/picture/compose';
import { fitWithin, type Point, type RgbaImage, type Size } from '@/core/picture/image';
import { describeFrame, type Layer } from '@/core/picture/layers';
import { rasterMask } from '@/core/picture/mask';
import { yuvToRgba } from '@/core/picture/planes';
import { Footage, type Source } from './footage';
import type { Progress } from './measure-take';

/** One role: its layer as the person set it, and corrected for light and movement whatever was set. */
export type SeamSide = { layer: Layer; corrected: Layer; tap: { frame: number; at: Point } | null };

export type SeamTask = {
  left: SeamSide;
  right: SeamSide;
  plate: Layer | null;
  /** frames in which both show, end excluded */
  from: number;
  until: number;
  delivery: Size;
  /** drawn by hand, in shares of the frame: judged, not solved */
  outline: Point[] | null;
  sources: Source[];
};

const cells: Size = { width: 96, height: 54 };
const mostFrames = 72;
/** room in delivery pixels that the join keeps from whoever stands beside it, for its soft edge */
const marginPixels = 20;

/** Decodes both takes once over the whole length, and finds or judges the seam between them. */
export async function solveMomentSeam(task: SeamTask, onProgress: Progress): Promise<SeamMeasure> {
  const size = fitWithin(task.delivery, 480);
  const footage = new Footage(task.sources);
  const painter = new PlanarPainter(task.delivery, size);
  const paint = async (layer: Layer, frame: number): Promise<RgbaImage> => {
    const { items, pictures } = await footage.picturesFor(
      describeFrame([{ ...layer, mask: null, opacity: [{ frame: 0, value: 1, ease: 'hold' }] }], frame),
    );
    return yuvToRgba(painter.paint(items, pictures));
  };
  try {
    const step = Math.max(1, Math.ceil((task.until - task.from) / mostFrames));
    const frames: number[] = [];
    for (let frame = task.from; frame < task.until; frame += step) frames.push(frame);
    const plate = task.plate && (await paint(task.plate, task.from));
    const seen = newDisagreement(size);
    const presence = { left: newPresence(), right: newPresence() };
    const pairs: [RgbaImage, RgbaImage][] = [];
    for (const [index, frame] of frames.entries()) {
      const pair: [RgbaImage, RgbaImage] = [
        await paint(task.left.layer, frame),
        await paint(task.right.layer, frame),
      ];
      addDisagreement(seen, ...pair);
      for (const [role, picture] of [
        ['left', pair[0]],
        ['right', pair[1]],
      ] as const) {
        const side = task[role];
        if (!plate) continue;
        const corrected = side.corrected === side.layer ? picture : await paint(side.corrected, frame);
        presence[role].frames.push(presenceOf(plate, corrected, cells));
      }
      if (index % Math.ceil(frames.length / 24) === 0) pairs.push(pair);
      onProgress((0.9 * (index + 1)) / frames.length);
    }
    const covered = {
      left: coveredBy(presence.left, task.left.tap, frames),
      right: coveredBy(presence.right, task.right.tap, frames),
    };
    const margin = Math.round((size.width / task.delivery.width) * marginPixels);
    const solve = () => cutStill(size, withMargin(size, joinCost(seen), margin), forceCells(size, covered));
    const outline =
      task.outline ?? outlineOf(size, solve(), 1.2).map(([x, y]): Point => [x / size.width, y / size.height]);
    // What is judged is what will be painted: the inside of the outline.
    const points = outline.map(([x, y]): Point => [x * size.width, y * size.height]);
    const labels = rasterMask(points, 0, size).data.map((value) => (value > 127 ? 1 : 0));
    const every = Math.ceil(frames.length / 24);
    onProgress(1);
    return {
      outline,
      visible: pairs.map((pair, index) => ({
        frame: frames[index * every],
        difference: joinVisibility(pair, labels),
      })),
      crossing: frames.filter((_, index) => crosses(presence, covered, index)),
      found: { left: covered.left.some(Boolean), right: covered.right.some(Boolean) },
    };
  } finally {
    await footage.close();
  }
}

const newPresence = (): Presence => ({ ...cells, frames: [] });

/** Everything that the tapped performer covers; without a tap, the largest thing in the middle of the shot. */
function coveredBy(presence: Presence, tap: SeamSide['tap'], frames: number[]): Uint8Array {
  if (presence.frames.length === 0) return new Uint8Array(cells.width * cells.height);
  const middle = frames.length >> 1;
  const at = tap?.at ?? largestThing(presence, middle);
  if (!at) return new Uint8Array(cells.width * cells.height);
  const frame = tap ? frames.findLastIndex((value) => value <= tap.frame) : middle;
  return followTap(presence, [{ frame: Math.max(0, frame), at }]);
}

/**
 * A side's own performer must show; where both stand at some time, neither is forced. The frame's left and right
 * edges belong to the side of that name, so that the join runs from edge to edge and can be taken hold of.
 */
function forceCells(size: Size, covered: { left: Uint8Array; right: Uint8Array }): Int16Array {
  const forced = new Int16Array(size.width * size.height).fill(-1);
  const at = (x: number, y: number) =>
    Math.floor((y * cells.height) / size.height) * cells.width + Math.floor((x * cells.width) / size.width);
  for (let y = 0; y < size.height; y++) {
    forced[y * size.width] = 0;
    forced[(y + 1) * size.width - 1] = 1;
    for (let x = 0; x < size.width; x++) {
      const cell = at(x, y);
      if (covered.left[cell] && !covered.right[cell]) forced[y * size.width + x] = 0;
      if (covered.right[cell] && !covered.left[cell]) forced[y * size.width + x] = 1;
    }
  }
  return forced;
}

function crosses(
  presence: { left: Presence; right: Presence },
  covered: { left: Uint8Array; right: Uint8Array },
  index: number,
): boolean {
  const [left, right] = [presence.left.frames[index], presence.right.frames[index]];
  if (!left || !right) return false;
  let count = 0;
  for (let cell = 0; cell < left.length; cell++) {
    const mine = left[cell] && covered.left[cell];
    const theirs = right[cell] && covered.right[cell];
    if ((mine && covered.right[cell]) || (theirs && covered.left[cell])) count++;
  }
  return count > 3;
}
