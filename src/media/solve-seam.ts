import { largestThing, presenceOf, type Presence } from '@/core/footage/presence';
import { coverOf, lossOf, tapped, thingsIn, type Things } from '@/core/footage/things';
import { cutStill } from '@/core/footage/seam/cut';
import {
  addDisagreement,
  joinCost,
  joinVisibility,
  newDisagreement,
  withMargin,
} from '@/core/footage/seam/join-cost';
import { outlinesOf } from '@/core/footage/seam/outlines';
import type { SeamSide, SeamTask } from '@/core/footage/seam-task';
import type { SeamMeasure, SideLoss } from '@/core/model/measures';
import { mapPoint } from '@/core/geometry/affine';
import { fitWithin, type Point, type Size } from '@/core/geometry/size';
import { type RgbaImage } from '@/core/picture/image';
import { bare, groupOf, isMedia, matrixAt, type MediaNode, type Node } from '@/core/picture/node';
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

/** Decodes both takes once over the whole length, finds or judges the seam between them, and who is lost by it. */
export async function solveMomentSeam(
  task: SeamTask,
  sources: readonly Source[],
  onProgress: Progress,
): Promise<SeamMeasure> {
  const size = fitWithin(task.delivery, 480);
  const footage = new Footage(sources);
  const painter = new ShotPainter(footage, task.delivery, size);
  /** Nodes over one another, at a frame. */
  const paint = async (nodes: readonly Node[], frame: number): Promise<RgbaImage> =>
    yuvToRgba(await painter.paint(groupOf('seen', task.delivery, task, nodes.map(bare)), frame));
  // Where a side was moved back, the plate fills the edge it left: so it will be shown, and nobody stands there.
  const filled = (node: Node) => (task.plate ? [task.plate, node] : [node]);
  try {
    const step = Math.max(1, Math.ceil((task.until - task.from) / mostFrames));
    const frames: number[] = [];
    for (let frame = task.from; frame < task.until; frame += step) frames.push(frame);
    // Whom somebody tapped before both show is followed from there.
    const earlier = task.sides.map(({ taps, node }) => {
      const first = Math.min(task.from, ...taps.map(({ frame }) => Math.max(node.from, frame)));
      const out: number[] = [];
      for (let frame = task.from - step; frame > first - step; frame -= step)
        out.unshift(Math.max(first, frame));
      return out;
    }) as Both<number[]>;
    const plate = task.plate && (await paint([task.plate], task.from));
    const seen = newDisagreement(size);
    const presence: Both<Presence> = [newPresence(), newPresence()];
    const pairs: [RgbaImage, RgbaImage][] = [];
    const borders: Both<Border[]> = [[], []];
    for (const [side, { corrected }] of plate ? task.sides.entries() : [])
      for (const frame of earlier[side])
        if (plate)
          presence[side].frames.push(presenceOf(plate, await paint(filled(corrected), frame), cells));
    for (const [index, frame] of frames.entries()) {
      const pair: [RgbaImage, RgbaImage] = [
        await paint(filled(task.sides[0].node), frame),
        await paint(filled(task.sides[1].node), frame),
      ];
      addDisagreement(seen, ...pair);
      const sampled = index % Math.ceil(frames.length / 24) === 0;
      if (sampled) pairs.push(pair);
      for (const [side, { node, corrected }] of plate ? task.sides.entries() : []) {
        const picture = corrected === node ? pair[side] : await paint(filled(corrected), frame);
        if (plate) presence[side].frames.push(presenceOf(plate, picture, cells));
        const reach = sampled && isMedia(node) && reachOf(node, frame, task.delivery, size);
        if (reach)
          borders[side].push({ reach, picture: await paint([{ ...node, edges: 'repeated' }], frame) });
      }
      onProgress((0.9 * (index + 1)) / frames.length);
    }
    const followed = presence.map(thingsIn) as Both<Things>;
    const kept = ([0, 1] as const).map((side) =>
      task.sides[side].all
        ? new Set(Array.from({ length: followed[side].count }, (_, thing) => thing))
        : keptOf(followed[side], presence[side], task.sides[side].taps, [...earlier[side], ...frames]),
    ) as Both<ReadonlySet<number>>;
    for (const side of [0, 1] as const) presence[side].frames.splice(0, earlier[side].length);
    const things = followed.map(({ labels, count }, side) => ({
      labels: labels.slice(earlier[side].length),
      count,
    })) as Both<Things>;
    const covered = ([0, 1] as const).map((side) => coverOf(things[side], kept[side])) as Both<Uint8Array>;
    const margin = Math.round((size.width / task.delivery.width) * marginPixels);
    const solve = () =>
      cutStill(
        size,
        withMargin(size, joinCost(seen), margin),
        forceCells(size, covered, task.sides[0].all ? 0 : 1),
      );
    const rings = task.outline
      ? [task.outline]
      : outlinesOf(size, solve(), 1.2).map((ring) =>
          ring.map(([x, y]): Point => [x / size.width, y / size.height]),
        );
    // What is judged is what will be painted: the inside of the outline.
    const inside = rings.map((ring) => ring.map(([x, y]): Point => [x * size.width, y * size.height]));
    const labels = rasterMask(inside, 0, size).data.map((value) => (value > 127 ? 1 : 0));
    const every = Math.ceil(frames.length / 24);
    const second = labels.reduce((sum, label) => sum + label, 0) / labels.length;
    onProgress(1);
    return {
      rings,
      shares: [1 - second, second],
      visible: pairs.map((pair, index) => ({
        frame: frames[index * every],
        difference: joinVisibility(pair, labels),
      })),
      crossing: frames.filter((_, index) => crosses(presence, covered, index)),
      found: [kept[0].size > 0, kept[1].size > 0],
      losses: ([0, 1] as const).flatMap((side) =>
        lossesOf(side, things[side], kept[side], labels, size, frames),
      ),
      borders: ([0, 1] as const).map((side) =>
        plate && borders[side].length > 0
          ? Math.max(
              ...borders[side].map(({ reach, picture }) =>
                joinVisibility([plate, picture], reach, (pixel) => labels[pixel] === side),
              ),
            )
          : null,
      ) as [number | null, number | null],
    };
  } finally {
    await footage.close();
  }
}

/** Where a side's own picture reaches in a frame, 1 a pixel, and that picture with its edge drawn on. */
type Border = { reach: Uint8Array; picture: RgbaImage };

/** Null where it fills the frame, to within half a pixel. */
function reachOf(node: MediaNode, frame: number, delivery: Size, size: Size): Uint8Array | null {
  const { width, height } = node.content.size;
  const matrix = matrixAt(node, frame);
  const corners = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ].map(([x, y]) => mapPoint(matrix, [x, y]));
  const [left, right] = [Math.max(corners[0][0], corners[3][0]), Math.min(corners[1][0], corners[2][0])];
  const [top, bottom] = [Math.max(corners[0][1], corners[1][1]), Math.min(corners[2][1], corners[3][1])];
  if (left < 0.5 && top < 0.5 && right > delivery.width - 0.5 && bottom > delivery.height - 0.5) return null;
  const factor = size.width / delivery.width;
  const ring = corners.map(([x, y]): Point => [x * factor, y * factor]);
  return rasterMask([ring], 0, size).data.map((value) => (value > 127 ? 1 : 0));
}

const newPresence = (): Presence => ({ ...cells, frames: [] });

/** Whom a side keeps: who was tapped; without a tap, the largest thing in the middle of the shot. */
function keptOf(
  things: Things,
  presence: Presence,
  taps: SeamSide['taps'],
  frames: readonly number[],
): ReadonlySet<number> {
  if (presence.frames.length === 0) return new Set();
  const middle = frames.length >> 1;
  const largest = taps.length === 0 ? largestThing(presence, middle) : null;
  const at = taps.map(({ frame, at: point }) => ({
    frame: Math.max(
      0,
      frames.findLastIndex((value) => value <= frame),
    ),
    at: point,
  }));
  return tapped(things, presence, largest ? [{ frame: middle, at: largest }] : at);
}

/** share of somebody that may go unseen in a frame: their rim, a shadow; more where nobody asked for them */
const tolerance = { kept: 0.06, other: 0.2 };

/** Who of a side is cut by a division of the frame, or left out by it. */
function lossesOf(
  side: 0 | 1,
  things: Things,
  kept: ReadonlySet<number>,
  labels: Uint8Array,
  size: Size,
  frames: readonly number[],
): SideLoss[] {
  const shows = new Float32Array(cells.width * cells.height);
  const [across, down] = [size.width / cells.width, size.height / cells.height];
  shows.forEach((_, cell) => {
    const [left, top] = [(cell % cells.width) * across, Math.floor(cell / cells.width) * down];
    let [sum, count] = [0, 0];
    for (let y = Math.floor(top); y < top + down && y < size.height; y++)
      for (let x = Math.floor(left); x < left + across && x < size.width; x++, count++)
        if (labels[y * size.width + x] === side) sum++;
    shows[cell] = sum / Math.max(1, count);
  });
  return Array.from({ length: things.count }, (_, thing) => thing).flatMap((thing) => {
    const isKept = kept.has(thing);
    const loss = lossOf(things, thing, cells, shows, isKept ? tolerance.kept : tolerance.other);
    if (!loss) return [];
    const lost = loss.frames.map((index) => frames[index]);
    return [
      {
        side,
        kept: isKept,
        whole: loss.whole,
        share: loss.share,
        frames: { count: lost.length, first: lost[0], last: lost[lost.length - 1] },
        at: loss.at,
      },
    ];
  });
}

/**
 * A side's own performer must show; where both stand at some time, neither is forced. The frame's left edge belongs
 * to the first side, its right one to the second, so that the join runs from edge to edge and can be taken hold of; or
 * to the first as well, round a second one who stands within.
 */
function forceCells(size: Size, covered: Both<Uint8Array>, right: 0 | 1): Int8Array {
  const forced = new Int8Array(size.width * size.height).fill(-1);
  const at = (x: number, y: number) =>
    Math.floor((y * cells.height) / size.height) * cells.width + Math.floor((x * cells.width) / size.width);
  for (let y = 0; y < size.height; y++) {
    forced[y * size.width] = 0;
    forced[(y + 1) * size.width - 1] = right;
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
