import { quantile } from '../statistics';
import { contours } from 'd3-contour';
import simplify from 'simplify-js';
import { refuse } from '../error';
import { ciede2000, labOf } from '../picture/colour';
import { checkSameSize, type GrayImage, type RgbaImage } from '../picture/image';
import { type Point, type Size } from '../geometry/size';
import { MinimumCut } from './max-flow';

/** Says that a take must show along a line of points, in one frame or (without `frame`) always. Pixels. */
type Stroke = { take: number; frame?: number; points: Point[]; radius?: number };

/** The outlines, in pixels, of where takes above the first show, from `frame` on; `points` is the largest. */
export type Outline = { frame: number; points: Point[]; rings: Point[][] };

type Seam = {
  /** number of the take that shows at each pixel; one picture when still */
  labels: GrayImage[];
  /** as few keyframes as keep the same picture */
  outline: Outline[];
  /** 95th percentile CIEDE2000 across the join, a frame */
  visible: number[];
};

/** How much two takes differ at each pixel, gathered over frames that need not be kept. */
type Disagreement = Size & { frames: number; sum: Float64Array };

/** Nothing gathered yet. @param size in pixels */
export const newDisagreement = (size: Size): Disagreement => ({
  ...size,
  frames: 0,
  sum: new Float64Array(size.width * size.height),
});

/** Adds one pair of pictures. Squares weigh a hand that crosses for a moment more than constant noise. */
export function addDisagreement(into: Disagreement, a: RgbaImage, b: RgbaImage): void {
  checkSameSize(into, a);
  checkSameSize(a, b);
  for (let pixel = 0, at = 0; pixel < into.sum.length; pixel++, at += 4) {
    const red = a.data[at] - b.data[at];
    const green = a.data[at + 1] - b.data[at + 1];
    const blue = a.data[at + 2] - b.data[at + 2];
    into.sum[pixel] += red * red + green * green + blue * blue;
  }
  into.frames++;
}

/** Cost of a join at each pixel: root mean square difference in codes, plus a little for its length. */
export const joinCost = ({ frames, sum }: Disagreement): Float64Array =>
  sum.map((value) => Math.sqrt(value / Math.max(1, frames) / 3) + 0.05);

/** Costs with a margin: each pixel costs what the dearest within `reach` costs, so that soft edges have room. */
export function withMargin({ width, height }: Size, cost: Float64Array, reach: number): Float64Array {
  const across = new Float64Array(cost.length);
  const out = new Float64Array(cost.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let most = 0;
      const end = Math.min(width - 1, x + reach);
      for (let at = Math.max(0, x - reach); at <= end; at++) most = Math.max(most, cost[y * width + at]);
      across[y * width + x] = most;
    }
  }
  for (let y = 0; y < height; y++) {
    const end = Math.min(height - 1, y + reach);
    for (let x = 0; x < width; x++) {
      let most = 0;
      for (let at = Math.max(0, y - reach); at <= end; at++) most = Math.max(most, across[at * width + x]);
      out[y * width + x] = most;
    }
  }
  return out;
}

const never = 1e7;

/** Costs of one frame or of all: `cost(a, b, pixel)` of take `a` beside take `b`. */
type Volume = Size & {
  depth: number;
  takes: number;
  cost: (a: number, b: number, voxel: number) => number;
  /** what it costs that a take shows at a pixel */
  prior?: (take: number, pixel: number) => number;
};

/** One move of alpha expansion: which places change to take `alpha` so that the whole costs least. */
function expand(volume: Volume, labels: Uint8Array, forced: Int16Array, alpha: number): boolean {
  const { width, height, depth } = volume;
  const area = width * height;
  const nodes = area * depth;
  const cut = new MinimumCut(nodes, nodes * (depth > 1 ? 3 : 2));
  const pair = (p: number, q: number) => {
    const side = (a: number, b: number) => (a === b ? 0 : volume.cost(a, b, p) + volume.cost(a, b, q));
    const stay = side(labels[p], labels[q]);
    const right = side(labels[p], alpha);
    const left = side(alpha, labels[q]);
    // E(stay,stay), E(stay,change), E(change,stay), E(change,change) = stay, right, left, 0.
    cut.addTerminal(p, left - stay, 0);
    cut.addTerminal(q, 0 - left, 0);
    cut.addEdge(p, q, Math.max(0, right + left - stay), 0);
  };
  for (let z = 0; z < depth; z++) {
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const p = z * area + y * width + x;
        if (x + 1 < width) pair(p, p + 1);
        if (y + 1 < height) pair(p, p + width);
        if (z + 1 < depth) pair(p, p + area);
        if (volume.prior)
          cut.addTerminal(p, volume.prior(alpha, p % area), volume.prior(labels[p], p % area));
        if (forced[p] === alpha) cut.addTerminal(p, 0, never);
        else if (forced[p] >= 0 || labels[p] === alpha) cut.addTerminal(p, forced[p] >= 0 ? never : 0, 0);
      }
    }
  }
  const moved = cut.solve();
  let changed = false;
  for (let p = 0; p < nodes; p++) {
    if (moved[p] && labels[p] !== alpha) {
      labels[p] = alpha;
      changed = true;
    }
  }
  return changed;
}

/** Which take each stroke forces at each voxel; -1 where none does. */
function force(size: Size, depth: number, strokes: Stroke[], radius: number): Int16Array {
  const area = size.width * size.height;
  const forced = new Int16Array(area * depth).fill(-1);
  for (const stroke of strokes) {
    const reach = stroke.radius ?? radius;
    const spans = depth === 1 || stroke.frame === undefined ? [...Array(depth).keys()] : [stroke.frame];
    const dots: Point[] = stroke.points.flatMap((point, index): Point[] => {
      const before = stroke.points[index - 1];
      if (!before) return [point];
      const steps = Math.max(1, Math.ceil(Math.hypot(point[0] - before[0], point[1] - before[1])));
      return Array.from({ length: steps }, (_, step): Point => {
        const share = (step + 1) / steps;
        return [before[0] + (point[0] - before[0]) * share, before[1] + (point[1] - before[1]) * share];
      });
    });
    for (const [px, py] of dots) {
      for (let y = Math.max(0, Math.floor(py - reach)); y < Math.min(size.height, py + reach); y++) {
        for (let x = Math.max(0, Math.floor(px - reach)); x < Math.min(size.width, px + reach); x++) {
          if (Math.hypot(x + 0.5 - px, y + 0.5 - py) > reach) continue;
          for (const z of spans) if (z >= 0 && z < depth) forced[z * area + y * size.width + x] = stroke.take;
        }
      }
    }
  }
  return forced;
}

/** Pixels from each pixel to the nearest that is marked, along rows, columns and diagonals; Infinity where none is. */
function distanceTo({ width, height }: Size, marked: (pixel: number) => boolean): Float32Array {
  const out = Float32Array.from({ length: width * height }, (_, pixel) => (marked(pixel) ? 0 : Infinity));
  const near = (p: number, x: number, side: number) => {
    const row = p + side * width;
    let least = Math.min(out[p], out[row] + 1);
    if (x > 0) least = Math.min(least, out[row - 1] + Math.SQRT2);
    if (x + 1 < width) least = Math.min(least, out[row + 1] + Math.SQRT2);
    out[p] = least;
  };
  for (let y = 0; y < height; y++)
    for (let x = 0, p = y * width; x < width; x++, p++) {
      if (y > 0) near(p, x, -1);
      if (x > 0) out[p] = Math.min(out[p], out[p - 1] + 1);
    }
  for (let y = height - 1; y >= 0; y--)
    for (let x = width - 1, p = y * width + x; x >= 0; x--, p--) {
      if (y + 1 < height) near(p, x, 1);
      if (x + 1 < width) out[p] = Math.min(out[p], out[p + 1] + 1);
    }
  return out;
}

/**
 * What it costs that a take shows nearer to another take's strokes than to its own: so little that it only tells where
 * takes agree, and enough that a division neither shrinks onto a stroke nor hugs the frame's edge to be shorter. None
 * where fewer than two takes have strokes.
 * @see Borgefors 1986 (distances by two passes); the weight is set by trial, no published source
 */
function nearStrokes(size: Size, takes: number, forced: Int16Array): Volume['prior'] {
  const area = size.width * size.height;
  const strokes = Array.from({ length: takes }, () => new Uint8Array(area));
  forced.forEach((take, voxel) => {
    if (take >= 0) strokes[take][voxel % area] = 1;
  });
  if (strokes.filter((one) => one.includes(1)).length < 2) return undefined;
  const distances = strokes.map((one) => distanceTo(size, (pixel) => one[pixel] === 1));
  const nearest = distances[0].map((_, pixel) => Math.min(...distances.map((one) => one[pixel])));
  const further = (take: number, pixel: number) => distances[take][pixel] - nearest[pixel];
  const finite = distances.flatMap((one, take) =>
    one[0] < Infinity ? [one.reduce((most, _, pixel) => Math.max(most, further(take, pixel)), 0)] : [],
  );
  const enough = 0.5 * Math.max(...finite);
  const weight = 0.8 / size.width;
  return (take, pixel) => weight * Math.min(1, further(take, pixel) / enough);
}

function relax(volume: Volume, forced: Int16Array): Uint8Array {
  const labels = new Uint8Array(forced.length);
  for (let p = 0; p < labels.length; p++) if (forced[p] > 0) labels[p] = forced[p];
  for (let round = 0; round < 4; round++) {
    let changed = false;
    for (let alpha = 0; alpha < volume.takes; alpha++) {
      if (volume.takes === 2 && alpha === 0 && round === 0) labels.fill(0);
      else if (expand(volume, labels, forced, alpha)) changed = true;
    }
    if (!changed || volume.takes === 2) break;
  }
  return labels;
}

/**
 * The cheapest division of the frame between two takes, the same over the whole length.
 * @param cost what a join costs at each pixel, from {@link joinCost}
 * @param forced take that must show at each pixel, -1 where either may
 * @returns 0 or 1 a pixel. No straight seam that obeys `forced` costs less.
 * @see Kwatra 2003; Agarwala 2004 (graph cut with strokes)
 */
export function cutStill(size: Size, cost: Float64Array, forced: Int16Array): Uint8Array {
  return relax({ ...size, depth: 1, takes: 2, cost: (_a, _b, pixel) => cost[pixel] }, forced);
}

/** What a division of the frame costs: the sum over neighbours that show different takes. */
export function seamCost(size: Size, cost: Float64Array, labels: ArrayLike<number>): number {
  let total = 0;
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) {
      const p = y * size.width + x;
      if (x + 1 < size.width && labels[p] !== labels[p + 1]) total += cost[p] + cost[p + 1];
      if (y + 1 < size.height && labels[p] !== labels[p + size.width])
        total += cost[p] + cost[p + size.width];
    }
  }
  return total;
}

/**
 * 95th percentile CIEDE2000 between what lies on both sides of a join in one frame. Colours are means
 * over squares of about a fiftieth of the width: an eye sees a step between surfaces, not the sensor's noise.
 * @param counts where given, only joins at pixels for which it is true; 0 where there is no join at all
 */
export function joinVisibility(
  takes: RgbaImage[],
  labels: ArrayLike<number>,
  counts: (pixel: number) => boolean = () => true,
): number {
  const { width, height } = takes[0];
  const reach = Math.floor(width / 120);
  const differences: number[] = [];
  const lab = ({ data }: RgbaImage, px: number, py: number) => {
    let [red, green, blue, count] = [0, 0, 0, 0];
    for (let y = Math.max(0, py - reach); y <= Math.min(height - 1, py + reach); y++) {
      for (let x = Math.max(0, px - reach); x <= Math.min(width - 1, px + reach); x++) {
        const at = (y * width + x) * 4;
        red += data[at];
        green += data[at + 1];
        blue += data[at + 2];
        count++;
      }
    }
    return labOf(Math.round(red / count), Math.round(green / count), Math.round(blue / count));
  };
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      for (const q of [x + 1 < width ? p + 1 : p, y + 1 < height ? p + width : p]) {
        if (labels[p] === labels[q] || !counts(p)) continue;
        differences.push(ciede2000(lab(takes[labels[p]], x, y), lab(takes[labels[q]], x, y)));
      }
    }
  }
  return differences.length > 0 ? quantile(differences, 0.95) : 0;
}

/** square pixels that a hole or an island has at least */
const leastRing = 30;

/**
 * The outlines of where take 1 and above show, as closed lines in pixels, thinned out, the largest first: pieces, and
 * holes in them. What lies inside an odd number of them shows it. Empty where it shows nowhere.
 */
export function outlinesOf(size: Size, labels: ArrayLike<number>, tolerance = 1): Point[][] {
  // A rim of zeros closes the outline at the frame's edge.
  const wide = size.width + 2;
  const values = new Array<number>(wide * (size.height + 2)).fill(0);
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++)
      values[(y + 1) * wide + x + 1] = labels[y * size.width + x] > 0 ? 1 : 0;
  }
  const [shape] = contours()
    .size([wide, size.height + 2])
    .thresholds([0.5])(values);
  const edge = (value: number, limit: number) => (value < 0.75 ? 0 : value > limit - 0.75 ? limit : value);
  return shape.coordinates
    .flatMap((polygon) => polygon as Point[][])
    .map((ring) => ({ ring, area: ringArea(ring) }))
    .filter(({ area }) => area >= leastRing)
    .sort((a, b) => b.area - a.area)
    .map(({ ring }) => {
      const shifted = ring.map(([x, y]) => ({ x: edge(x - 1, size.width), y: edge(y - 1, size.height) }));
      const thin = simplify(shifted, tolerance, true);
      const closed =
        thin.length > 1 && thin[0].x === thin[thin.length - 1].x && thin[0].y === thin[thin.length - 1].y;
      return (closed ? thin.slice(0, -1) : thin).map(({ x, y }): Point => [x, y]);
    })
    .filter((ring) => ring.length > 2);
}

/** The area inside a closed line. */
const ringArea = (ring: readonly Point[]): number =>
  Math.abs(
    ring.reduce((sum, [x, y], index) => {
      const [nextX, nextY] = ring[(index + 1) % ring.length];
      return sum + (x * nextY - nextX * y) / 2;
    }, 0),
  );

/**
 * Divides the frame between takes so that the joins run where the takes agree.
 * @param takes pictures of each take, same size and number of frames, already steadied and matched
 * @param strokes where a take must show
 * @param options.still one division for the whole length
 * @throws CoreError `takes`, `frames-differ` or `sizes-differ` where they do not belong together
 */
export function solveSeam(takes: RgbaImage[][], strokes: Stroke[], options: { still?: boolean } = {}): Seam {
  if (takes.length < 2) refuse('takes', 'A seam needs at least two takes. Choose another one.');
  const frames = takes[0].length;
  if (frames === 0 || takes.some((take) => take.length !== frames)) {
    refuse('frames-differ', 'The takes have different numbers of frames. Trim them to the same length.');
  }
  const [first] = takes[0];
  for (const take of takes) for (const picture of take) checkSameSize(first, picture);
  const size = { width: first.width, height: first.height };
  const area = size.width * size.height;
  const depth = options.still ? 1 : frames;
  const costs = new Map<number, Float64Array>();
  for (let a = 0; a < takes.length; a++) {
    for (let b = a + 1; b < takes.length; b++) {
      const all = new Float64Array(area * depth);
      for (let z = 0; z < depth; z++) {
        const seen = newDisagreement(size);
        for (let frame = options.still ? 0 : z; frame < (options.still ? frames : z + 1); frame++) {
          addDisagreement(seen, takes[a][frame], takes[b][frame]);
        }
        all.set(joinCost(seen), z * area);
      }
      costs.set(a * takes.length + b, all);
    }
  }
  const cost = (a: number, b: number, voxel: number) =>
    (costs.get(Math.min(a, b) * takes.length + Math.max(a, b)) as Float64Array)[voxel];
  const forced = force(size, depth, strokes, Math.max(2, size.width * 0.02));
  const prior = nearStrokes(size, takes.length, forced);
  const labels = relax({ ...size, depth, takes: takes.length, cost, prior }, forced);
  const at = (frame: number) =>
    labels.subarray(depth === 1 ? 0 : frame * area, (depth === 1 ? 0 : frame * area) + area);
  const outline: Outline[] = [];
  for (let z = 0; z < depth; z++) {
    const same = z > 0 && at(z).every((label, index) => label === at(z - 1)[index]);
    if (same) continue;
    const rings = outlinesOf(size, at(z));
    outline.push({ frame: z, points: rings[0] ?? [], rings });
  }
  return {
    labels: Array.from({ length: depth }, (_, z) => ({ ...size, data: at(z).slice() })),
    outline,
    visible: Array.from({ length: frames }, (_, frame) =>
      joinVisibility(
        takes.map((take) => take[frame]),
        at(frame),
      ),
    ),
  };
}
