import { type Size } from '../../geometry/size';
import { MinimumCut } from './max-flow';
import type { Forced } from './strokes';

const never = 1e7;

/** codes of one unit of what a volume's joins cost, and what every join costs besides, for its length */
export const step = 0.25;
const length = 0.05;

/** The place of two takes among all pairs. */
export const pairOf = (takes: number, a: number, b: number): number =>
  Math.min(a, b) * takes + Math.max(a, b);

/** What a division of frames between takes costs. A voxel is a pixel of a span of frames, counted through all spans. */
export type Volume = Size & {
  /** spans of frames that each have one division */
  depth: number;
  takes: number;
  /** what it costs that take `a` shows at a voxel and take `b` beside it: by `pairOf`, in {@link step}s */
  costs: readonly ArrayLike<number>[];
  /** how much a change from span to span counts beside one within a picture */
  inTime: number;
  forced: Forced;
  /** take of which somebody is to be kept at each pixel of a span, -1 where nobody is; and what it costs not to */
  kept?: (span: number) => Int8Array;
  keeping?: number;
  /** what it costs that a take shows at a pixel */
  prior?: (take: number, pixel: number) => number;
};

/** What voxels of which takes may change; all of them where nothing is said. */
type Free = Uint8Array | null;

/** Numbers the voxels that may change: the first of each frame, and those of one frame at a time. */
function numbered(area: number, depth: number, free: Free) {
  const first = new Uint32Array(depth + 1);
  for (let z = 0; z < depth; z++) {
    let count = area;
    if (free) {
      count = 0;
      for (let p = z * area; p < (z + 1) * area; p++) count += free[p];
    }
    first[z + 1] = first[z] + count;
  }
  const number = (z: number, into: Int32Array) => {
    let next = first[z];
    for (let p = 0; p < area; p++) into[p] = !free || free[z * area + p] ? next++ : -1;
  };
  return { count: first[depth], number };
}

/** One move of alpha expansion: which free voxels change to take `alpha` so that the whole costs least. */
function expand(volume: Volume, labels: Uint8Array, free: Free, alpha: number): boolean {
  const { width, height, depth, takes, costs, inTime, prior, keeping = 0 } = volume;
  const area = width * height;
  const { count, number } = numbered(area, depth, free);
  if (count === 0) return false;
  const cut = new MinimumCut(count, count * (depth > 1 ? 3 : 2));
  const beside = (a: number, b: number, p: number, q: number, isTime: boolean) => {
    if (a === b) return 0;
    const between = costs[pairOf(takes, a, b)];
    // A change is not seen where takes agree before it or after it; a join has to be hidden on both of its sides.
    if (isTime) return 2 * inTime * (step * Math.min(between[p], between[q]) + length);
    return step * (between[p] + between[q]) + 2 * length;
  };
  /** Two neighbours, each a voxel and its node; a node is -1 where it may not change. */
  const pair = (p: number, one: number, q: number, other: number, isTime: boolean) => {
    if (one < 0 && other < 0) return;
    const stay = beside(labels[p], labels[q], p, q, isTime);
    const right = beside(labels[p], alpha, p, q, isTime);
    const left = beside(alpha, labels[q], p, q, isTime);
    if (other < 0) return cut.addTerminal(one, left - stay, 0);
    if (one < 0) return cut.addTerminal(other, right - stay, 0);
    // Halves to both, so that the graph stays even: E(stay,stay), E(stay,change), E(change,stay), E(change,change) are
    // stay, right, left, 0.
    cut.addTerminal(one, (left - stay - right) / 2, 0);
    cut.addTerminal(other, (right - stay - left) / 2, 0);
    const between = Math.max(0, right + left - stay) / 2;
    cut.addEdge(one, other, between, between);
  };
  let [nodes, following] = [new Int32Array(area), new Int32Array(area)];
  number(0, nodes);
  for (let z = 0; z < depth; z++) {
    if (z + 1 < depth) number(z + 1, following);
    const forced = volume.forced(z);
    const kept = volume.kept?.(z);
    for (let y = 0, pixel = 0; y < height; y++) {
      for (let x = 0; x < width; x++, pixel++) {
        const p = z * area + pixel;
        const node = nodes[pixel];
        if (x + 1 < width) pair(p, node, p + 1, nodes[pixel + 1], false);
        if (y + 1 < height) pair(p, node, p + width, nodes[pixel + width], false);
        if (z + 1 < depth) pair(p, node, p + area, following[pixel], true);
        if (node < 0) continue;
        if (prior) cut.addTerminal(node, prior(alpha, pixel), prior(labels[p], pixel));
        if (kept && kept[pixel] >= 0)
          cut.addTerminal(node, kept[pixel] === alpha ? 0 : keeping, kept[pixel] === labels[p] ? 0 : keeping);
        if (forced[pixel] === alpha) cut.addTerminal(node, 0, never);
        else if (forced[pixel] >= 0) cut.addTerminal(node, never, 0);
      }
    }
    [nodes, following] = [following, nodes];
  }
  const moved = cut.solve();
  let changed = false;
  for (let p = 0, node = 0; p < labels.length; p++) {
    if (free && !free[p]) continue;
    if (moved[node++] && labels[p] !== alpha) {
      labels[p] = alpha;
      changed = true;
    }
  }
  return changed;
}

/**
 * Makes a division as cheap as it gets by changing free voxels alone: exactly for two takes, by rounds of expansion for
 * more.
 * @param labels take of each voxel; is changed
 * @param free 1 where a voxel may change; every one where there is none
 * @see Boykov, Veksler & Zabih 2001, "Fast approximate energy minimization via graph cuts"
 */
export function improve(volume: Volume, labels: Uint8Array, free: Free = null): void {
  if (volume.takes === 2) {
    for (let p = 0; p < labels.length; p++) if (!free || free[p]) labels[p] = 0;
    expand(volume, labels, free, 1);
    return;
  }
  const area = volume.width * volume.height;
  for (let z = 0; z < volume.depth; z++)
    volume.forced(z).forEach((take, pixel) => {
      if (take >= 0) labels[z * area + pixel] = take;
    });
  for (let round = 0; round < 4; round++) {
    let changed = false;
    for (let alpha = 0; alpha < volume.takes; alpha++)
      if (expand(volume, labels, free, alpha)) changed = true;
    if (!changed) return;
  }
}

/** A still division between two takes. @param cost what a join costs at each pixel, from `joinCost` */
export const stillVolume = (
  size: Size,
  cost: Float64Array,
  forced: Int8Array,
  prior?: Volume['prior'],
): Volume => ({
  ...size,
  prior,
  depth: 1,
  takes: 2,
  costs: [[], cost.map((codes) => (codes - length) / step)],
  inTime: 1,
  forced: () => forced,
});

/**
 * The cheapest division of the frame between two takes, the same over the whole length.
 * @param cost what a join costs at each pixel, from `joinCost`
 * @param forced take that must show at each pixel, -1 where either may
 * @param prior what it costs besides that a take shows at a pixel, in codes
 * @returns 0 or 1 a pixel. No straight seam that obeys `forced` costs less.
 * @see Kwatra 2003; Agarwala 2004 (graph cut with strokes)
 */
export function cutStill(
  size: Size,
  cost: Float64Array,
  forced: Int8Array,
  prior?: Volume['prior'],
): Uint8Array {
  const labels = new Uint8Array(size.width * size.height);
  improve(stillVolume(size, cost, forced, prior), labels);
  return labels;
}
