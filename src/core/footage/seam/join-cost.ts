import { median, quantile } from '../../statistics';
import { ciede2000, labOf } from '../../picture/colour';
import { checkSameSize, type RgbaImage } from '../../picture/image';
import { type Size } from '../../geometry/size';

/** How much two takes differ at each pixel, gathered over frames that need not be kept. */
export type Disagreement = Size & { frames: number; sum: Float64Array };

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
  const { sum } = into;
  const [one, other] = [a.data, b.data];
  for (let pixel = 0, at = 0; pixel < sum.length; pixel++, at += 4) {
    const red = one[at] - other[at];
    const green = one[at + 1] - other[at + 1];
    const blue = one[at + 2] - other[at + 2];
    sum[pixel] += red * red + green * green + blue * blue;
  }
  into.frames++;
}

/** How much two takes differ over all their frames. */
export function disagreementOf(a: readonly RgbaImage[], b: readonly RgbaImage[]): Disagreement {
  const seen = newDisagreement({ width: a[0].width, height: a[0].height });
  a.forEach((picture, frame) => addDisagreement(seen, picture, b[frame]));
  return seen;
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

type Lab = ReturnType<typeof labOf>;

/** Pixels to each side that an eye takes together, in a picture of some size. */
export const seenReach = ({ width }: Size): number => Math.floor(width / 120);

/** The mean colour of what an eye takes together round a pixel. */
function seenColour({ width, height, data }: RgbaImage, px: number, py: number): Lab {
  const reach = seenReach({ width, height });
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
}

/** A place at which a join runs: a pixel, the take that it shows, and the one that shows beside it. */
type JoinPlace = { x: number; y: number; own: number; other: number };

/**
 * Where the joins of a division run.
 * @param counts where given, only at pixels for which it is true
 */
export function joinPlaces(
  { width, height }: Size,
  labels: ArrayLike<number>,
  counts: (pixel: number) => boolean = () => true,
): JoinPlace[] {
  const places: JoinPlace[] = [];
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const own = labels[p];
      const right = x + 1 < width ? labels[p + 1] : own;
      const below = y + 1 < height ? labels[p + width] : own;
      if ((right === own && below === own) || !counts(p)) continue;
      for (const other of [right, below]) if (other !== own) places.push({ x, y, own, other });
    }
  return places;
}

/**
 * CIEDE2000 between what lies on both sides of a join in one frame, at each of its places. Colours are means over squares
 * of about a fiftieth of the width: an eye sees a step between surfaces, not the sensor's noise.
 */
export function joinDifferences(takes: readonly RgbaImage[], places: readonly JoinPlace[]): number[] {
  const [{ width }] = takes;
  const known = new Map<number, Lab>();
  const colour = (take: number, x: number, y: number): Lab => {
    const key = (y * width + x) * takes.length + take;
    const found = known.get(key) ?? seenColour(takes[take], x, y);
    known.set(key, found);
    return found;
  };
  return places.map(({ x, y, own, other }) => ciede2000(colour(own, x, y), colour(other, x, y)));
}

/** places across and down at which pictures are held against each other as a whole */
const grid = { across: 16, down: 9 };

/** CIEDE2000 by which takes differ in the middle of all places: noise, or light that no join can hide. */
export function apartAnyway(takes: readonly RgbaImage[]): number {
  const { width, height } = takes[0];
  const differences: number[] = [];
  for (let row = 0; row < grid.down; row++)
    for (let column = 0; column < grid.across; column++) {
      const x = Math.floor(((column + 0.5) * width) / grid.across);
      const y = Math.floor(((row + 0.5) * height) / grid.down);
      const colours = takes.map((take) => seenColour(take, x, y));
      for (let take = 1; take < takes.length; take++)
        differences.push(ciede2000(colours[take - 1], colours[take]));
    }
  return median(differences);
}

/** 95th percentile of a join's differences in one frame; 0 where there is no join at all. */
export const joinVisibility = (
  takes: readonly RgbaImage[],
  labels: ArrayLike<number>,
  counts?: (pixel: number) => boolean,
): number => quantile(joinDifferences(takes, joinPlaces(takes[0], labels, counts)), 0.95);
