import type { Point, Size } from '../geometry/size';
import { flood } from '../picture/flood';
import { guided } from '../picture/guided';
import { checkSameSize, lumaOf, type GrayImage, type RgbaImage } from '../picture/image';
import { feathered } from '../picture/mask';
import { median } from '../statistics';
import { backdropOf, keyMatte } from './key';
import { outlinesOf } from './seam/outlines';

/** What a cut-out is made by: a picture of the empty set, finding people, or the colour of a backdrop. */
export type CutoutBy = 'plate' | 'person' | 'backdrop';

/** Somebody to be cut out of a file's picture at some seconds. */
export type CutoutTask = {
  is: 'cutout';
  media: string;
  seconds: number;
  by: CutoutBy;
  plate: { media: string; seconds: number } | null;
};

/** Who or what stands in a picture and not in its plate. */
export type Cutout = {
  /** outlines in shares of the picture, the largest first; inside an odd number of them; empty where nobody is */
  rings: Point[][];
  /** share of the picture inside them */
  share: number;
  /** share of the edge along which the cut-out may be wrong, since little tells it from what is behind; 0..1 */
  faint: number;
};

/** codes by which a square of 3 × 3 pixels differs from the plate at least, however little noise there is */
const leastDifference = 14;
/** A shadow darkens what is there to this share of its light at the most; anything darker is somebody. */
const deepestShadow = 0.6;

/** Means of squares of 3 × 3 pixels of one channel, less `offset`. */
function smoothed({ width, height, data }: RgbaImage, channel: number, offset: number): Float32Array {
  const across = new Float32Array(width * height);
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0, p = y * width; x < width; x++, p++) {
      const at = (one: number) => data[(y * width + one) * 4 + channel];
      across[p] = (at(Math.max(0, x - 1)) + at(x) + at(Math.min(width - 1, x + 1))) / 3;
    }
  for (let y = 0; y < height; y++) {
    const [above, below] = [Math.max(0, y - 1) * width, Math.min(height - 1, y + 1) * width];
    for (let x = 0, p = y * width; x < width; x++, p++)
      out[p] = (across[above + x] + across[p] + across[below + x]) / 3 - offset;
  }
  return out;
}

/** Turns cells that do not reach the frame's edge, in pieces of at most `most`, into passable ones. */
function fillHoles(size: Size, mask: Uint8Array, most: number): void {
  const free = mask.map((value) => 1 - value);
  const seen = new Uint8Array(mask.length);
  const { width, height } = size;
  for (let start = 0; start < free.length; start++) {
    const cells = flood(size, free, seen, start);
    const open = cells.some((cell) => {
      const [x, y] = [cell % width, Math.floor(cell / width)];
      return x === 0 || y === 0 || x === width - 1 || y === height - 1;
    });
    if (!open && cells.length <= most) for (const cell of cells) mask[cell] = 1;
  }
}

/** Leaves only pieces that are at least a tenth as large as the largest one. */
function keepLarge(size: Size, mask: Uint8Array): void {
  const seen = new Uint8Array(mask.length);
  const pieces: number[][] = [];
  for (let start = 0; start < mask.length; start++) {
    const cells = flood(size, mask, seen, start);
    if (cells.length > 0) pieces.push(cells);
  }
  const largest = Math.max(0, ...pieces.map(({ length }) => length));
  for (const cells of pieces)
    if (cells.length < Math.max(largest / 10, mask.length / 4000)) for (const cell of cells) mask[cell] = 0;
}

/** Marked pixels beside one that is not; those on the picture's edge are none. */
function rimOf({ width, height }: Size, mask: Uint8Array): number[] {
  const rim: number[] = [];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1, p = y * width + 1; x < width - 1; x++, p++)
      if (mask[p] && !(mask[p - 1] && mask[p + 1] && mask[p - width] && mask[p + width])) rim.push(p);
  return rim;
}

/** How much somebody differs from the set two pixels further in, where they show unmixed. */
const furtherIn = (
  { width }: Size,
  mask: Uint8Array,
  pixel: number,
  differs: (pixel: number) => number,
): number =>
  Math.max(...[-2, 2, -2 * width, 2 * width].map((step) => (mask[pixel + step] ? differs(pixel + step) : 0)));

/** Takes back the pixel by which means of squares reach beyond an edge: there the difference is half of what it is inside. */
function trim(size: Size, mask: Uint8Array, differs: (pixel: number) => number): void {
  const outside = rimOf(size, mask).filter(
    (pixel) => differs(pixel) < 0.5 * furtherIn(size, mask, pixel, differs),
  );
  for (const pixel of outside) mask[pixel] = 0;
}

/** Where a picture differs from its plate, 1 a pixel; by how many codes; and from how many on that counts. */
type Differing = { mask: Uint8Array; differs: (pixel: number) => number; limit: number };

/**
 * Marks who stands in a picture and not in its plate: what differs by more than noise, and otherwise than a shadow,
 * which darkens all colours alike. Light that changed over the whole picture is allowed for. The limits are set by
 * trial, no published source.
 */
function markDiffering(picture: RgbaImage, plate: RgbaImage, shadows: 'keep' | 'drop'): Differing {
  checkSameSize(picture, plate);
  const size = { width: picture.width, height: picture.height };
  const pixels = size.width * size.height;
  const channels = [0, 1, 2].map((channel) => {
    const raw = new Int16Array(pixels);
    for (let p = 0; p < pixels; p++) raw[p] = picture.data[p * 4 + channel] - plate.data[p * 4 + channel];
    const light = median(raw);
    const [seen, empty] = [smoothed(picture, channel, light), smoothed(plate, channel, 0)];
    const off = seen.map((value, p) => value - empty[p]);
    // 1.4826 turns a median deviation into a normal one's standard deviation.
    const noise = 1.4826 * median(off.map(Math.abs));
    return { seen, empty, off, noise };
  });
  const limit = Math.max(leastDifference, 5 * Math.max(...channels.map(({ noise }) => noise)));
  const [red, green, blue] = channels;
  const differs = (p: number) =>
    Math.max(Math.abs(red.off[p]), Math.abs(green.off[p]), Math.abs(blue.off[p]));
  const isShadow = (p: number) => {
    let [shared, own] = [0, 0];
    for (const { seen, empty } of channels) {
      shared += seen[p] * empty[p];
      own += empty[p] * empty[p];
    }
    const left = Math.min(1, Math.max(deepestShadow, shared / Math.max(1, own)));
    return channels.every(({ seen, empty }) => Math.abs(seen[p] - left * empty[p]) <= 0.7 * limit);
  };
  const mask = Uint8Array.from({ length: pixels }, (_, p) =>
    differs(p) > limit && (shadows === 'keep' || !isShadow(p)) ? 1 : 0,
  );
  fillHoles(size, mask, pixels / 700);
  keepLarge(size, mask);
  trim(size, mask, differs);
  return { mask, differs, limit };
}

/**
 * How much of each pixel shows somebody who stands before the empty set, by what differs from that.
 * @param plate the empty set, of the same size, from the same place
 * @param options.shadows whether what they throw belongs to them; it does not where nothing is said
 * @returns 0..255 a pixel, its edge two pixels soft
 * @throws CoreError `sizes-differ`
 */
export function plateMatte(
  plate: RgbaImage,
  frame: RgbaImage,
  { shadows = 'drop' }: { shadows?: 'keep' | 'drop' } = {},
): GrayImage & { data: Uint8Array } {
  const { mask } = markDiffering(frame, plate, shadows);
  const size = { width: frame.width, height: frame.height };
  const soft = feathered(Float32Array.from(mask), size, 2);
  return { ...size, data: Uint8Array.from(soft, (value) => Math.round(255 * value)) };
}

/**
 * Cuts out who stands in a picture of a locked camera, without their shadow, and says how sure that is.
 * @param plate the empty set, of the same size
 * @throws CoreError `sizes-differ`
 */
export function cutOut(picture: RgbaImage, plate: RgbaImage): Cutout {
  const size = { width: picture.width, height: picture.height };
  const { mask, differs, limit } = markDiffering(picture, plate, 'drop');
  let [edge, faint] = [0, 0];
  for (const p of rimOf(size, mask)) {
    edge++;
    if (furtherIn(size, mask, p, differs) < 1.6 * limit) faint++;
  }
  return outlined(size, mask, edge > 0 ? faint / edge : 0);
}

/** Marked pixels as a cut-out. */
function outlined(size: Size, mask: Uint8Array, faint: number): Cutout {
  return {
    rings: outlinesOf(size, mask, 0.8).map((ring) =>
      ring.map(([x, y]): Point => [x / size.width, y / size.height]),
    ),
    share: mask.reduce((sum, one) => sum + one, 0) / mask.length,
    faint,
  };
}

/** pixels on both sides of an edge between which a matte that is sure of itself goes from one to the other */
const sureWithin = 4;

/**
 * Cuts people out by how likely each pixel is one of theirs: the edge is drawn to that of the picture.
 * @param picture what they were found in
 * @param matte 0..1 a pixel of a picture of the same size
 * @throws CoreError `sizes-differ`
 */
export function cutOutLikely(picture: RgbaImage, matte: GrayImage): Cutout {
  checkSameSize(picture, matte);
  const size = { width: picture.width, height: picture.height };
  const light = Float32Array.from(lumaOf(picture).data, (value) => value / 255);
  const reach = Math.max(2, Math.round(Math.max(size.width, size.height) / 100));
  const refined = guided(size, light, Float32Array.from(matte.data), reach, 1e-3);
  const mask = Uint8Array.from(refined, (value) => (value > 0.5 ? 1 : 0));
  fillHoles(size, mask, mask.length / 700);
  keepLarge(size, mask);
  const rim = rimOf(size, mask);
  const steps = [-sureWithin, sureWithin, -sureWithin * size.width, sureWithin * size.width];
  const doubtful = rim.filter((pixel) => {
    const near = steps.map((step) => matte.data[pixel + step] ?? 0.5);
    return Math.max(...near) - Math.min(...near) < 0.6;
  });
  return outlined(size, mask, rim.length > 0 ? doubtful.length / rim.length : 0);
}

/** Cuts out who stands before a backdrop of one colour, which is found by the frame's rim; nobody where there is none. */
export function cutOutBackdrop(picture: RgbaImage): Cutout {
  const size = { width: picture.width, height: picture.height };
  const key = backdropOf(picture);
  if (!key) return outlined(size, new Uint8Array(size.width * size.height), 0);
  const { data } = keyMatte(picture, key);
  const mask = Uint8Array.from(data, (value) => (value > 127 ? 1 : 0));
  fillHoles(size, mask, mask.length / 700);
  keepLarge(size, mask);
  const rim = rimOf(size, mask);
  const doubtful = rim.filter((pixel) => furtherIn(size, mask, pixel, (one) => data[one]) < 200);
  return outlined(size, mask, rim.length > 0 ? doubtful.length / rim.length : 0);
}
