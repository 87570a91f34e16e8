import { shadowOf } from '@/core/footage/shadow/shadow';
import { presenceOf } from '@/core/footage/presence';
import { cutStill } from '@/core/footage/seam/cut';
import {
  addDisagreement,
  joinCost,
  joinVisibility,
  newDisagreement,
  seenReach,
  withMargin,
} from '@/core/footage/seam/join-cost';
import { outlinesOf } from '@/core/footage/seam/outlines';
import type { SeamTask } from '@/core/footage/seam-task';
import type { SeamMeasure, SeamMove } from '@/core/model/measures';
import { mapPoint } from '@/core/geometry/affine';
import { fitWithin, type Point, type Size } from '@/core/geometry/size';
import { type RgbaImage } from '@/core/picture/image';
import { bare, groupOf, isHeld, isMedia, matrixAt, type MediaNode, type Node } from '@/core/picture/node';
import { rasterMask } from '@/core/picture/mask';
import { yuvToRgba } from '@/core/picture/planes';
import { Footage, type Source } from './footage';
import type { Progress } from './measure-take';
import { moveIn, spansRound } from './move-seam';
import {
  cellOf,
  cells,
  coverFrom,
  crosses,
  followedIn,
  loses,
  lossesOf,
  overlapOf,
  touchingIn,
  type Both,
  type Followed,
  nearestOf,
  nearnessIn,
  type Contact,
} from './seam-presence';
import { keptWithShadows, shadowIn, shadowPrior, withoutShadow, type Fallen } from './seam-shadows';
import { ShotPainter } from './shot-painter';

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
    const stands = task.plate && isHeld(task.plate) ? await paint([task.plate], task.from) : null;
    /** The empty set at a frame, which moves through the picture where the plate's camera does. */
    const emptyAt = async (frame: number): Promise<RgbaImage | null> =>
      stands ?? (task.plate && (await paint([task.plate], frame)));
    const present: Both<Map<number, Uint8Array>> = [new Map(), new Map()];
    const fallen: Fallen = [new Map(), new Map()];
    const borders: Both<Border[]> = [[], []];
    /** Who stands where in a side's picture of a frame. */
    const watch = async (side: 0 | 1, frame: number, picture?: RgbaImage) => {
      const plate = await emptyAt(frame);
      if (!plate) return;
      const seen = picture ?? (await paint(filled(task.sides[side].corrected), frame));
      const shadow = shadowOf(plate, seen, cells);
      fallen[side].set(frame, shadow);
      present[side].set(frame, withoutShadow(presenceOf(plate, seen, cells), shadow));
    };
    const pairAt = async (frame: number): Promise<Both<RgbaImage>> => {
      const pair: Both<RgbaImage> = [
        await paint(filled(task.sides[0].node), frame),
        await paint(filled(task.sides[1].node), frame),
      ];
      for (const side of [0, 1] as const) {
        const { node, corrected } = task.sides[side];
        await watch(side, frame, node === corrected ? pair[side] : undefined);
      }
      return pair;
    };
    for (const side of [0, 1] as const) for (const frame of earlier[side]) await watch(side, frame);
    const seen = newDisagreement(size);
    const pairs: { frame: number; pair: Both<RgbaImage> }[] = [];
    for (const [index, frame] of frames.entries()) {
      const pair = await pairAt(frame);
      addDisagreement(seen, ...pair);
      if (index % Math.ceil(frames.length / 24) === 0) {
        pairs.push({ frame, pair });
        for (const [side, { node }] of task.plate ? task.sides.entries() : []) {
          const reach = isMedia(node) && reachOf(node, frame, task.delivery, size);
          const plate = reach && (await emptyAt(frame));
          if (plate)
            borders[side].push({
              reach,
              plate,
              picture: await paint([{ ...node, edges: 'repeated' }], frame),
            });
        }
      }
      onProgress((0.8 * (index + 1)) / frames.length);
    }
    const followed = () =>
      ([0, 1] as const).map((side) => followedIn(present[side], task.sides[side])) as Both<Followed>;
    const keptIn = (looked: readonly number[]) => {
      const both = followed();
      return looked.map((frame) => keptWithShadows(both, fallen, frame, task.shadows));
    };
    const both = followed();
    const margin = Math.round((size.width / task.delivery.width) * marginPixels);
    const covered = both.map((one) => coverFrom(one, task.from)) as Both<Uint8Array>;
    const forced = forceCells(size, covered, task.sides[0].all ? 0 : 1);
    const rings = task.outline
      ? [task.outline]
      : inShares(
          size,
          outlinesOf(
            size,
            cutStill(
              size,
              withMargin(size, joinCost(seen), margin),
              forced,
              shadowPrior(fallen, task.from, task.shadows, size),
            ),
            1.2,
          ),
        );
    // What is judged is what will be painted: the inside of the outline.
    const still = insideOf(size, rings);
    const troubled = frames.filter(
      (frame) => crosses(both, covered, frame) || loses(both, frame, still, size),
    );
    const spans = task.outline || !task.plate ? [] : spansRound(troubled, step, task);
    const moves: SeamMove[] = [];
    for (const [index, span] of spans.entries()) {
      const seamed = { still, rings, size, pairAt, keptIn, right: task.sides[0].all ? 0 : 1 } as const;
      moves.push(...(await moveIn(span, seamed, task.until)));
      onProgress(0.8 + (0.2 * (index + 1)) / spans.length);
    }
    const nearest = nearestOf(followed(), task.from, size.width / size.height);
    const contact =
      task.plate && nearest
        ? await nearestContact(nearest.frame, step, task, async (frame) => {
            const pair: Both<RgbaImage> = [
              await paint(filled(task.sides[0].corrected), frame),
              await paint(filled(task.sides[1].corrected), frame),
            ];
            for (const side of [0, 1] as const) await watch(side, frame, pair[side]);
            const plate = await emptyAt(frame);
            return plate && nearnessIn(followed(), frame, plate, pair);
          })
        : null;
    const judged = followed();
    const divisions = moves.map(({ frame, rings }) => ({ frame, labels: insideOf(size, rings) }));
    const labelsAt = (frame: number) =>
      divisions.findLast((division) => division.frame <= frame)?.labels ?? still;
    const second = still.reduce((sum, label) => sum + label, 0) / still.length;
    const looked = [...new Set([...frames, ...present[0].keys()])]
      .filter((frame) => frame >= task.from)
      .sort((one, other) => one - other);
    onProgress(1);
    return {
      rings,
      moves,
      shares: [1 - second, second],
      visible: pairs.map(({ frame, pair }) => {
        const touching = touchingIn(judged, frame);
        const counts = (pixel: number) => !touching[cellOf(pixel, size)];
        return { frame, difference: joinVisibility(pair, labelsAt(frame), counts) };
      }),
      crossing: looked.filter(
        (frame) =>
          crosses(judged, covered, frame) &&
          (task.outline !== null || overlapOf(judged, frame) || loses(judged, frame, labelsAt(frame), size)),
      ),
      contact,
      shadows: [0, 1].map((side) =>
        shadowIn(side as 0 | 1, fallen[side], judged, labelsAt, size, task.from),
      ) as SeamMeasure['shadows'],
      found: [judged[0].kept.size > 0, judged[1].kept.size > 0],
      losses: ([0, 1] as const).flatMap((side) => lossesOf(side, judged[side], labelsAt, size, task.from)),
      borders: ([0, 1] as const).map((side) =>
        borders[side].length > 0
          ? Math.max(
              ...borders[side].map(({ reach, plate, picture }) =>
                joinVisibility([plate, picture], reach, (pixel) => still[pixel] === side),
              ),
            )
          : null,
      ) as [number | null, number | null],
    };
  } finally {
    await footage.close();
  }
}

/** Where they come nearest: between frames that were looked at they may come nearer still. */
async function nearestContact(
  near: number,
  step: number,
  { from, until }: SeamTask,
  look: (frame: number) => Promise<Contact | null>,
): Promise<Contact | null> {
  let best: Contact | null = null;
  const last = Math.min(until - 1, near + step);
  for (let frame = Math.max(from, near - step); frame <= last; frame++) {
    const found = await look(frame);
    if (found && (!best || found.apart < best.apart)) best = found;
  }
  return best;
}

const inShares = ({ width, height }: Size, rings: readonly Point[][]): Point[][] =>
  rings.map((ring) => ring.map(([x, y]): Point => [x / width, y / height]));

/** 1 inside the outline, where the second side shows. */
const insideOf = (size: Size, rings: readonly Point[][]): Uint8Array => {
  const pixels = rings.map((ring) => ring.map(([x, y]): Point => [x * size.width, y * size.height]));
  return Uint8Array.from(rasterMask(pixels, 0, size).data, (value) => (value > 127 ? 1 : 0));
};

/** Where a side's own picture reaches in a frame and as far from its edge as an eye takes in, 1 a pixel, that picture with its edge drawn on, and the empty set. */
type Border = { reach: Uint8Array; plate: RgbaImage; picture: RgbaImage };

/** Null where it fills the frame, to within half a pixel. */
function reachOf(node: MediaNode, frame: number, delivery: Size, size: Size): Uint8Array | null {
  const { width, height } = node.content.size;
  const matrix = matrixAt(node, frame);
  const factor = size.width / delivery.width;
  /** Where the corners of the picture lie, without a margin of some of its pixels. */
  const cornersWithin = (by: number) =>
    [
      [by, by],
      [width - by, by],
      [width - by, height - by],
      [by, height - by],
    ].map(([x, y]) => mapPoint(matrix, [x, y]));
  const corners = cornersWithin(0);
  const [left, right] = [Math.max(corners[0][0], corners[3][0]), Math.min(corners[1][0], corners[2][0])];
  const [top, bottom] = [Math.max(corners[0][1], corners[1][1]), Math.min(corners[2][1], corners[3][1])];
  if (left < 0.5 && top < 0.5 && right > delivery.width - 0.5 && bottom > delivery.height - 0.5) return null;
  // An eye that looks at the border takes in what lies round it: beyond the picture there is nothing to be compared.
  const margin = (seenReach(size) + 1) / (factor * Math.hypot(matrix[0], matrix[1]));
  const ring = cornersWithin(margin).map(([x, y]): Point => [x * factor, y * factor]);
  return rasterMask([ring], 0, size).data.map((value) => (value > 127 ? 1 : 0));
}

/**
 * A side's own performer must show; where both stand at some time, neither is forced. The frame's left edge belongs
 * to the first side, its right one to the second, so that the join runs from edge to edge and can be taken hold of; or
 * to the first as well, round a second one who stands within.
 */
function forceCells(size: Size, covered: Both<Uint8Array>, right: 0 | 1): Int8Array {
  const forced = new Int8Array(size.width * size.height).fill(-1);
  for (let y = 0; y < size.height; y++) {
    forced[y * size.width] = 0;
    forced[(y + 1) * size.width - 1] = right;
    for (let x = 0; x < size.width; x++) {
      const cell = cellOf(y * size.width + x, size);
      if (covered[0][cell] && !covered[1][cell]) forced[y * size.width + x] = 0;
      if (covered[1][cell] && !covered[0][cell]) forced[y * size.width + x] = 1;
    }
  }
  return forced;
}
