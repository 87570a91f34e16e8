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
import type { SeamSide, SeamTask } from '@/core/footage/seam-task';
import type { SeamMeasure } from '@/core/model/measures';
import { fitWithin, type Point, type Size } from '@/core/geometry/size';
import { type RgbaImage } from '@/core/picture/image';
import { bare, type Node } from '@/core/picture/node';
import { rasterMask } from '@/core/picture/mask';
import { yuvToRgba } from '@/core/picture/planes';
import { Footage, type Source } from './footage';
import type { Progress } from './measure-take';
import { ShotPainter } from './shot-painter';

/** One of each side, in the order of the task. */
type Both<Value> = [Value, Value];

const cells: Size = { width: 96, height: 54 };
const mostFrames = 72;
/** room in delivery pixels that the join keeps from whoever stands beside it, for its soft edge */
const marginPixels = 20;

/** Decodes both takes once over the whole length, and finds or judges the seam between them. */
export async function solveMomentSeam(
  task: SeamTask,
  sources: readonly Source[],
  onProgress: Progress,
): Promise<SeamMeasure> {
  const size = fitWithin(task.delivery, 480);
  const footage = new Footage(sources);
  const painter = new ShotPainter(footage, task.delivery, size);
  const paint = async (node: Node, frame: number): Promise<RgbaImage> =>
    yuvToRgba(await painter.paint(bare(node), frame));
  try {
    const step = Math.max(1, Math.ceil((task.until - task.from) / mostFrames));
    const frames: number[] = [];
    for (let frame = task.from; frame < task.until; frame += step) frames.push(frame);
    const plate = task.plate && (await paint(task.plate, task.from));
    const seen = newDisagreement(size);
    const presence: Both<Presence> = [newPresence(), newPresence()];
    const pairs: [RgbaImage, RgbaImage][] = [];
    for (const [index, frame] of frames.entries()) {
      const pair: [RgbaImage, RgbaImage] = [
        await paint(task.sides[0].node, frame),
        await paint(task.sides[1].node, frame),
      ];
      addDisagreement(seen, ...pair);
      for (const [index, side] of plate ? task.sides.entries() : []) {
        const corrected = side.corrected === side.node ? pair[index] : await paint(side.corrected, frame);
        if (plate) presence[index].frames.push(presenceOf(plate, corrected, cells));
      }
      if (index % Math.ceil(frames.length / 24) === 0) pairs.push(pair);
      onProgress((0.9 * (index + 1)) / frames.length);
    }
    const covered: Both<Uint8Array> = [
      coveredBy(presence[0], task.sides[0].tap, frames),
      coveredBy(presence[1], task.sides[1].tap, frames),
    ];
    const margin = Math.round((size.width / task.delivery.width) * marginPixels);
    const solve = () => cutStill(size, withMargin(size, joinCost(seen), margin), forceCells(size, covered));
    const outline =
      task.outline ?? outlineOf(size, solve(), 1.2).map(([x, y]): Point => [x / size.width, y / size.height]);
    // What is judged is what will be painted: the inside of the outline.
    const points = outline.map(([x, y]): Point => [x * size.width, y * size.height]);
    const labels = rasterMask([points], 0, size).data.map((value) => (value > 127 ? 1 : 0));
    const every = Math.ceil(frames.length / 24);
    onProgress(1);
    return {
      outline,
      visible: pairs.map((pair, index) => ({
        frame: frames[index * every],
        difference: joinVisibility(pair, labels),
      })),
      crossing: frames.filter((_, index) => crosses(presence, covered, index)),
      found: [covered[0].some(Boolean), covered[1].some(Boolean)],
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
 * A side's own performer must show; where both stand at some time, neither is forced. The frame's left edge belongs
 * to the first side, its right one to the second, so that the join runs from edge to edge and can be taken hold of.
 */
function forceCells(size: Size, covered: Both<Uint8Array>): Int16Array {
  const forced = new Int16Array(size.width * size.height).fill(-1);
  const at = (x: number, y: number) =>
    Math.floor((y * cells.height) / size.height) * cells.width + Math.floor((x * cells.width) / size.width);
  for (let y = 0; y < size.height; y++) {
    forced[y * size.width] = 0;
    forced[(y + 1) * size.width - 1] = 1;
    for (let x = 0; x < size.width; x++) {
      const cell = at(x, y);
      if (covered[0][cell] && !covered[1][cell]) forced[y * size.width + x] = 0;
      if (covered[1][cell] && !covered[0][cell]) forced[y * size.width + x] = 1;
    }
  }
  return forced;
}

function crosses(presence: Both<Presence>, covered: Both<Uint8Array>, index: number): boolean {
  const [one, two] = presence.map(({ frames }) => frames[index]);
  if (!one || !two) return false;
  let count = 0;
  for (let cell = 0; cell < one.length; cell++) {
    const first = one[cell] && covered[0][cell];
    const second = two[cell] && covered[1][cell];
    if ((first && covered[1][cell]) || (second && covered[0][cell])) count++;
  }
  return count > 3;
}
