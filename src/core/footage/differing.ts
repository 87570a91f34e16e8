import type { Size } from '../geometry/size';
import { checkSameSize, type RgbaImage } from '../picture/image';
import { piecesOf } from '../picture/pieces';

/** codes by which a square of 3 × 3 pixels differs from the plate at least, however little noise there is */
const leastDifference = 14;
/** how many standard deviations of the noise count as a difference */
const beyondNoise = 5;
/** A shadow darkens what is there to this share of its light at the most; anything darker is somebody. */
const deepestShadow = 0.6;
/** pixels of which every so many are looked at for what holds for the whole picture */
const sparse = 7;
/** Turns a median deviation into a normal one's standard deviation. */
const deviationOfMedian = 1.4826;

/** The empty set: sums of 3 × 3 pixels, three colours each, and its noise where several pictures tell it. */
export type EmptySet = Size & { picture: RgbaImage; sums: Uint16Array; noise: Float32Array | null };

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
  return { width: first.width, height: first.height, picture: first, sums, noise };
}

/** The middle of whole numbers that are counted from `-reach` to `reach`. */
function middle(counts: Int32Array, reach: number): number {
  const half = counts.reduce((sum, count) => sum + count, 0) / 2;
  let [seen, at] = [0, 0];
  while (at < counts.length && (seen += counts[at]) <= half) at++;
  return at - reach;
}

/** Where a picture differs from the empty set, 1 a pixel; by how many codes; and from how many on that counts. */
export type Differing = { mask: Uint8Array; differs: (pixel: number) => number; limit: number };

/** How a picture's light is off from the empty set's over all of it, and how much noise there is then; in sums of nine. */
function lightAndNoise(
  across: Uint16Array,
  { width, sums }: EmptySet,
  channel: number,
): { light: number; noise: number } {
  const reach = 9 * 255;
  const line = 3 * width;
  const offs = new Int32Array(2 * reach + 1);
  const step = 3 * sparse;
  const off = (at: number) => across[at - line] + across[at] + across[at + line] - sums[at];
  const [from, until] = [line + channel, across.length - line];
  for (let at = from; at < until; at += step) offs[off(at) + reach]++;
  const light = middle(offs, reach);
  const deviations = new Int32Array(4 * reach + 1);
  for (let at = from; at < until; at += step) deviations[Math.abs(off(at) - light) + 2 * reach]++;
  return { light, noise: deviationOfMedian * middle(deviations, 2 * reach) };
}

/**
 * Marks who stands in a picture and not in its plate: what differs by more than noise, and otherwise than a shadow,
 * which darkens all colours alike. Light that changed over the whole picture is allowed for. The limits are set by
 * trial, no published source.
 */
export function markDiffering(picture: RgbaImage, empty: EmptySet, shadows: 'keep' | 'drop'): Differing {
  checkSameSize(picture, empty.picture);
  const size = { width: picture.width, height: picture.height };
  const pixels = size.width * size.height;
  const across = sumsAcross(picture);
  const { sums, noise: learned } = empty;
  const channels = [0, 1, 2].map((channel) => lightAndNoise(across, empty, channel));
  const [red, green, blue] = channels.map(({ light }) => light);
  const limit = Math.max(9 * leastDifference, beyondNoise * Math.max(...channels.map(({ noise }) => noise)));
  const reach = 0.7 * limit;
  const off = new Uint16Array(pixels);
  const mask = new Uint8Array(pixels);
  const line = 3 * size.width;
  for (let y = 0, p = 0, at = 0; y < size.height; y++) {
    const [above, below] = [y > 0 ? line : 0, y < size.height - 1 ? line : 0];
    for (let x = 0; x < size.width; x++, p++, at += 3) {
      const r = across[at - above] + across[at] + across[at + below] - red;
      const g = across[at - above + 1] + across[at + 1] + across[at + below + 1] - green;
      const b = across[at - above + 2] + across[at + 2] + across[at + below + 2] - blue;
      const [er, eg, eb] = [sums[at], sums[at + 1], sums[at + 2]];
      const most = Math.max(Math.abs(r - er), Math.abs(g - eg), Math.abs(b - eb));
      off[p] = most;
      if (most <= limit) continue;
      // What moves in the empty set itself, leaves and flags, has to differ by more.
      if (learned && most <= beyondNoise * Math.max(learned[at], learned[at + 1], learned[at + 2])) continue;
      mask[p] = 1;
      if (shadows === 'keep') continue;
      const share = (r * er + g * eg + b * eb) / Math.max(1, er * er + eg * eg + eb * eb);
      const left = Math.min(1, Math.max(deepestShadow, share));
      if (
        Math.abs(r - left * er) <= reach &&
        Math.abs(g - left * eg) <= reach &&
        Math.abs(b - left * eb) <= reach
      )
        mask[p] = 0;
    }
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
  for (let y = 1; y < height - 1; y++)
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
