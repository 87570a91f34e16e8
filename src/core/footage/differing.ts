import type { Size } from '../geometry/size';
import { checkSameSize, type RgbaImage } from '../picture/image';
import { piecesOf } from '../picture/pieces';

/** codes by which a square of 3 × 3 pixels differs from the plate at least, however little noise there is */
const leastDifference = 14;
/** how many standard deviations of the noise count as a difference */
const beyondNoise = 5;
/** A shadow darkens what is there to this share of its light at the most; anything darker is somebody. */
const deepestShadow = 0.6;
/** pixels that are looked at for what holds for the whole picture */
const sampled = 1500;
/** The next of some places that lie evenly, wherever one stops: so much of the whole further, and round again. */
const goldenShare = 0.618_033_988_749_895;
/** Turns a median deviation into a normal one's standard deviation. */
const deviationOfMedian = 1.4826;

/** The empty set: its mean picture, sums of 3 × 3 pixels, three colours each, and its noise where several pictures tell it. */
export type EmptySet = Size & {
  picture: RgbaImage;
  sums: Uint16Array;
  noise: Float32Array | null;
  /** pixels by which is told what holds for the whole picture */
  samples: Int32Array;
};

/** Sums of three pixels side by side, three colours; edges repeat. */
function sumsAcross({ width, height, data }: RgbaImage): Uint16Array {
  const out = new Uint16Array(width * height * 3);
  for (let channel = 0; channel < 3; channel++)
    for (let y = 0; y < height; y++) {
      let at = 4 * y * width + channel;
      let to = 3 * y * width + channel;
      let [before, own] = [data[at], data[at]];
      for (let x = 1; x < width; x++, to += 3) {
        at += 4;
        const after = data[at];
        out[to] = before + own + after;
        before = own;
        own = after;
      }
      out[to] = before + 2 * own;
    }
  return out;
}

/** Sums of 3 × 3 pixels about each one, three colours; edges repeat. */
function nineSums(picture: RgbaImage): Uint16Array {
  const across = sumsAcross(picture);
  const line = 3 * picture.width;
  return across.map((own, at) => own + across[at < line ? at : at - line] + (across[at + line] ?? own));
}

/** Pixels that lie evenly over a picture, and not on its edge. */
function samplesOf({ width, height }: Size): Int32Array {
  const inner = Math.max(0, width - 2) * Math.max(0, height - 2);
  return Int32Array.from({ length: Math.min(sampled, inner) }, (_, index) => {
    const place = Math.floor((((index + 1) * goldenShare) % 1) * inner);
    return (1 + Math.floor(place / (width - 2))) * width + 1 + (place % (width - 2));
  });
}

/** Prepares the empty set once for many pictures. @param plates one picture of it, or several, of which its noise is learned */
export function emptySetOf(plates: readonly RgbaImage[]): EmptySet {
  const [first] = plates;
  for (const plate of plates) checkSameSize(first, plate);
  const each = plates.map(nineSums);
  const sums = each[0].map((_, at) => Math.round(each.reduce((sum, one) => sum + one[at], 0) / each.length));
  const noise =
    each.length < 3
      ? null
      : Float32Array.from(sums, (mean, at) =>
          Math.sqrt(each.reduce((sum, one) => sum + (one[at] - mean) ** 2, 0) / (each.length - 1)),
        );
  const data = first.data.map((_, at) => plates.reduce((sum, one) => sum + one.data[at], 0) / plates.length);
  const { width, height } = first;
  return { width, height, picture: { width, height, data }, sums, noise, samples: samplesOf(first) };
}

/** The middle of whole numbers that are counted from `-reach` to `reach`. */
function middle(counts: Int32Array, reach: number): number {
  let all = 0;
  for (let at = 0; at < counts.length; at++) all += counts[at];
  let [seen, at] = [0, 0];
  while (at < counts.length && (seen += counts[at]) <= all / 2) at++;
  return at - reach;
}

/** Where a picture differs from the empty set, 1 a pixel; by how many codes; and from how many on that counts. */
export type Differing = { mask: Uint8Array; differs: (pixel: number) => number; limit: number };

/** Sums of 3 × 3 pixels of a picture about one that does not lie on its edge, of one colour. */
function nineAt({ width, data }: RgbaImage, pixel: number, channel: number): number {
  const line = 4 * width;
  const at = 4 * pixel + channel;
  let sum = 0;
  for (let row = at - line; row <= at + line; row += line) sum += data[row - 4] + data[row] + data[row + 4];
  return sum;
}

/** How a picture's light is off from the empty set's over all of it, and how much noise there is then; in sums of nine. */
function lightAndNoise(
  picture: RgbaImage,
  sums: Uint16Array,
  samples: Int32Array,
  channel: number,
): { light: number; noise: number } {
  const reach = 9 * 255;
  const offs = new Int16Array(samples.length);
  const counts = new Int32Array(2 * reach + 1);
  for (let index = 0; index < offs.length; index++) {
    offs[index] = nineAt(picture, samples[index], channel) - sums[3 * samples[index] + channel];
    counts[offs[index] + reach]++;
  }
  const light = middle(counts, reach);
  const deviations = new Int32Array(4 * reach + 1);
  for (let index = 0; index < offs.length; index++) deviations[Math.abs(offs[index] - light) + 2 * reach]++;
  return { light, noise: deviationOfMedian * middle(deviations, 2 * reach) };
}

/** pixels across a block */
const block = 8;

/**
 * Blocks of a picture in which squares of 3 × 3 pixels may differ from the empty set by more than a limit, since pixels in
 * or beside them do.
 * @param lights by how much a picture's light is off, a colour each; in sums of nine, as the limit
 */
function blocksToLookAt(picture: RgbaImage, empty: RgbaImage, lights: readonly number[], limit: number) {
  const { width, height, data } = picture;
  const { data: set } = empty;
  const across = Math.ceil(width / block);
  const marked = new Uint8Array(across * Math.ceil(height / block));
  // The mean picture and the mean sums were rounded.
  const most = limit / 9 - 1;
  const [red, green, blue] = lights.map((light) => Math.ceil(light / 9 - most));
  const span = Math.floor(2 * most);
  for (let y = 0; y < height; y++) {
    const above = (y > 0 ? (y - 1) >> 3 : 0) * across;
    const below = (y < height - 1 ? (y + 1) >> 3 : y >> 3) * across;
    // Every second pixel tells of those round it: whom nobody would keep is all that falls between.
    for (let x = y & 1; x < width; x += 2) {
      const at = 4 * (y * width + x);
      // One comparison tells of both ends: what is below zero is large without a sign.
      if (
        (data[at] - set[at] - red) >>> 0 <= span &&
        (data[at + 1] - set[at + 1] - green) >>> 0 <= span &&
        (data[at + 2] - set[at + 2] - blue) >>> 0 <= span
      )
        continue;
      const left = x > 0 ? (x - 1) >> 3 : 0;
      const right = x < width - 1 ? (x + 1) >> 3 : x >> 3;
      marked[above + left] = marked[above + right] = marked[below + left] = marked[below + right] = 1;
    }
  }
  return { marked, across };
}

/**
 * Marks who stands in a picture and not in its plate: what differs by more than noise, and otherwise than a shadow,
 * which darkens all colours alike. Light that changed over the whole picture is allowed for. The limits are set by
 * trial, no published source.
 */
export function markDiffering(picture: RgbaImage, empty: EmptySet, shadows: 'keep' | 'drop'): Differing {
  checkSameSize(picture, empty.picture);
  const { width, height, data } = picture;
  const size = { width, height };
  const pixels = width * height;
  const { sums, samples, noise: learned } = empty;
  const channels = [0, 1, 2].map((channel) => lightAndNoise(picture, sums, samples, channel));
  const lights = channels.map(({ light }) => light);
  const [red, green, blue] = lights;
  const limit = Math.max(9 * leastDifference, beyondNoise * Math.max(...channels.map(({ noise }) => noise)));
  const reach = 0.7 * limit;
  const off = new Uint16Array(pixels);
  const mask = new Uint8Array(pixels);
  const { marked, across } = blocksToLookAt(picture, empty.picture, lights, limit);
  /** sums of three pixels under one another, three colours each, of the columns of a block and the two beside it */
  const columns = new Int32Array(3 * (block + 2));
  const lookAt = (x0: number, y: number) => {
    const x1 = Math.min(width, x0 + block);
    const [above, below] = [Math.max(0, y - 1) * width, Math.min(height - 1, y + 1) * width];
    const own = y * width;
    for (let x = x0 - 1, to = 0; x <= x1; x++, to += 3) {
      const column = x < 0 ? 0 : x < width ? x : width - 1;
      const [up, here, down] = [4 * (above + column), 4 * (own + column), 4 * (below + column)];
      columns[to] = data[up] + data[here] + data[down];
      columns[to + 1] = data[up + 1] + data[here + 1] + data[down + 1];
      columns[to + 2] = data[up + 2] + data[here + 2] + data[down + 2];
    }
    for (let x = x0, at = 3 * (own + x0), from = 0; x < x1; x++, at += 3, from += 3) {
      const r = columns[from] + columns[from + 3] + columns[from + 6] - red;
      const g = columns[from + 1] + columns[from + 4] + columns[from + 7] - green;
      const b = columns[from + 2] + columns[from + 5] + columns[from + 8] - blue;
      const [er, eg, eb] = [sums[at], sums[at + 1], sums[at + 2]];
      const most = Math.max(Math.abs(r - er), Math.abs(g - eg), Math.abs(b - eb));
      off[own + x] = most;
      if (most <= limit) continue;
      // What moves in the empty set itself, leaves and flags, has to differ by more.
      if (learned && most <= beyondNoise * Math.max(learned[at], learned[at + 1], learned[at + 2])) continue;
      mask[own + x] = 1;
      if (shadows === 'keep') continue;
      const share = (r * er + g * eg + b * eb) / Math.max(1, er * er + eg * eg + eb * eb);
      const left = Math.min(1, Math.max(deepestShadow, share));
      if (
        Math.abs(r - left * er) <= reach &&
        Math.abs(g - left * eg) <= reach &&
        Math.abs(b - left * eb) <= reach
      )
        mask[own + x] = 0;
    }
  };
  for (let index = 0; index < marked.length; index++) {
    if (!marked[index]) continue;
    const [x0, y0] = [block * (index % across), block * Math.floor(index / across)];
    for (let y = y0; y < Math.min(height, y0 + block); y++) lookAt(x0, y);
  }
  fillHoles(size, mask, pixels / 700);
  keepLarge(size, mask);
  const differing: Differing = { mask, differs: (pixel) => off[pixel] / 9, limit: limit / 9 };
  trim(size, differing);
  return differing;
}

/** Marks pixels between marked ones that do not reach the picture's edge, in pieces of at most `most`. */
export function fillHoles(size: Size, mask: Uint8Array, most: number): void {
  const { runs, sizes, open } = piecesOf(size, mask, 0);
  for (const { from, until, piece } of runs)
    if (!open[piece] && sizes[piece] <= most) mask.fill(1, from, until);
}

/** Leaves only pieces that are at least a tenth as large as the largest one. */
export function keepLarge(size: Size, mask: Uint8Array): void {
  const { runs, sizes } = piecesOf(size, mask, 1);
  const largest = sizes.reduce((most, count) => Math.max(most, count), 0);
  const least = Math.max(largest / 10, mask.length / 4000);
  for (const { from, until, piece } of runs) if (sizes[piece] < least) mask.fill(0, from, until);
}

/** Marked pixels beside one that is not; those on the picture's edge are none. */
export function rimOf({ width, height }: Size, mask: Uint8Array): number[] {
  const rim: number[] = [];
  const first = Math.max(1, Math.floor(mask.indexOf(1) / width));
  const last = Math.min(height - 2, Math.floor(mask.lastIndexOf(1) / width));
  for (let y = first; y <= last; y++)
    for (let x = 1, p = y * width + 1; x < width - 1; x++, p++)
      if (mask[p] && !(mask[p - 1] && mask[p + 1] && mask[p - width] && mask[p + width])) rim.push(p);
  return rim;
}

/** How much somebody differs from the set two pixels further in, where they show unmixed. */
export function furtherIn(
  { width }: Size,
  mask: Uint8Array,
  pixel: number,
  differs: (pixel: number) => number,
): number {
  let most = 0;
  for (const step of [-2, 2, -2 * width, 2 * width])
    if (mask[pixel + step]) most = Math.max(most, differs(pixel + step));
  return most;
}

/** Takes back the pixel by which means of squares reach beyond an edge: there the difference is half of what it is inside. */
function trim(size: Size, { mask, differs }: Differing): void {
  const outside = rimOf(size, mask).filter(
    (pixel) => differs(pixel) < 0.5 * furtherIn(size, mask, pixel, differs),
  );
  for (const pixel of outside) mask[pixel] = 0;
}
