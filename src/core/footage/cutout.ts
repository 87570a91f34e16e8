import type { Point, Size } from '../geometry/size';
import type { Mend } from '../model/mend';
import { boundsOf, cutPart, widerBounds } from '../picture/bounds';
import { guided } from '../picture/guided';
import { checkSameSize, type GrayImage, type RgbaImage } from '../picture/image';
import { coverOfRings } from '../picture/mask';
import { refuse } from '../error';
import { byBoth } from './by-both';
import {
  emptySetOf,
  fillHoles,
  furtherIn,
  keepLarge,
  markDiffering,
  rimOf,
  type EmptySet,
} from './differing';
import type { Rgb } from '../picture/spill';
import { backdropOf, keyMatte } from './key';
import type { Reference } from './reference';
import { mended } from './mend';
import { outlinesOf } from './seam/outlines';

/** What a cut-out can be made by: a picture of the empty set, finding people, the colour of a backdrop, or people and one of the others. */
export const cutoutWays = ['plate', 'person', 'both', 'backdrop', 'backdrop-person'] as const;
export type CutoutBy = (typeof cutoutWays)[number];
/** True where people are looked for. */
export const findsPeople = (by: CutoutBy): boolean => !(by === 'plate' || by === 'backdrop');
/** True where the colour of a backdrop tells who stands before it. */
export const goesByBackdrop = (by: CutoutBy): boolean => by === 'backdrop' || by === 'backdrop-person';

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
  /** the colour of the backdrop that it was told by */
  key?: Rgb;
};

/** What a picture or a prepared reference tells of the empty set is worked out once. */
const prepared = new WeakMap<object, EmptySet>();

function emptySet(plate: RgbaImage | Reference): EmptySet {
  const known = prepared.get(plate);
  if (known) return known;
  const pictures = 'pictures' in plate ? plate.pictures : [plate];
  if (pictures.length === 0)
    refuse('no-colours', 'The plate has no colours to tell somebody by. Prepare it from pictures in colour.');
  const empty = emptySetOf(pictures);
  prepared.set(plate, empty);
  return empty;
}

/**
 * How much of each pixel shows somebody who stands before the empty set, by what differs from that.
 * @param plate the empty set, of the same size, from the same place; a reference of several pictures tells its noise too
 * @param options.shadows whether what they throw belongs to them; it does not where nothing is said
 * @returns 0..255 a pixel, its edge two pixels soft
 * @throws CoreError `sizes-differ`, `no-colours`
 */
export function plateMatte(
  plate: RgbaImage | Reference,
  frame: RgbaImage,
  { shadows = 'drop' }: { shadows?: 'keep' | 'drop' } = {},
): GrayImage & { data: Uint8Array } {
  const { mask } = markDiffering(frame, emptySet(plate), shadows);
  return { width: frame.width, height: frame.height, data: softened(frame, mask) };
}

/** A mask as coverage 0..255 whose edge is two pixels soft: weights of one, two and one each way. */
function softened({ width, height }: Size, mask: Uint8Array): Uint8Array {
  const out = new Uint8Array(mask.length);
  const [first, last] = [mask.indexOf(1), mask.lastIndexOf(1)].map((p) => Math.floor(p / width));
  if (first < 0) return out;
  let [left, right] = [width, 0];
  for (let y = first, row = y * width; y <= last; y++, row += width) {
    let [from, until] = [0, width - 1];
    while (from < left && !mask[row + from]) from++;
    while (until > right && !mask[row + until]) until--;
    [left, right] = [Math.min(left, from), Math.max(right, until)];
  }
  [left, right] = [Math.max(0, left - 1), Math.min(width - 1, right + 1)];
  const rows = new Uint8Array(mask.length);
  for (let y = first; y <= last; y++)
    for (let x = left, p = y * width + left; x <= right; x++, p++)
      rows[p] = mask[x > 0 ? p - 1 : p] + 2 * mask[p] + mask[x < width - 1 ? p + 1 : p];
  for (let y = Math.max(0, first - 1); y <= Math.min(height - 1, last + 1); y++) {
    const [above, below] = [y > 0 ? width : 0, y < height - 1 ? width : 0];
    for (let p = y * width + left, end = y * width + right; p <= end; p++) {
      const sum = rows[p - above] + 2 * rows[p] + rows[p + below];
      if (sum > 0) out[p] = Math.round((sum * 255) / 16);
    }
  }
  return out;
}

/**
 * Cuts out who stands in a picture of a locked camera, without their shadow, and says how sure that is.
 * @param plate the empty set, of the same size
 * @throws CoreError `sizes-differ`
 */
export function cutOut(picture: RgbaImage, plate: RgbaImage): Cutout {
  const size = { width: picture.width, height: picture.height };
  const { mask, differs, limit } = markDiffering(picture, emptySet(plate), 'drop');
  let [edge, faint] = [0, 0];
  for (const p of rimOf(size, mask)) {
    edge++;
    if (furtherIn(size, mask, p, differs) < 1.6 * limit) faint++;
  }
  return outlined(size, mask, edge > 0 ? faint / edge : 0);
}

/**
 * Which pixels of a picture of a locked camera differ from the empty set, shadows left out.
 * @param plate the empty set, of the same size
 * @returns 1 a pixel that differs
 * @throws CoreError `sizes-differ`
 */
export const differingFrom = (picture: RgbaImage, plate: RgbaImage): Uint8Array =>
  markDiffering(picture, emptySet(plate), 'drop').mask;

/** Marked pixels as a cut-out. */
function outlined(size: Size, mask: Uint8Array, faint: number): Cutout {
  let marked = 0;
  for (let pixel = 0; pixel < mask.length; pixel++) marked += mask[pixel];
  return {
    rings: outlinesOf(size, mask, 0.8).map((ring) =>
      ring.map(([x, y]): Point => [x / size.width, y / size.height]),
    ),
    share: marked / mask.length,
    faint,
  };
}

/** on both sides of an edge a matte that is sure of itself goes from one to the other within this share of the picture's larger side */
const sureWithin = 1 / 80;
/** and by so many codes of 255 */
const leastStep = 153;
/** pixels of a square that are looked at as one to learn how likelihoods follow the light */
const learnedSide = 2;

/**
 * Cuts people out by how likely each pixel is one of theirs: the edge is drawn to that of the picture.
 * @param luma of what they were found in
 * @param matte of the same size
 * @param differs 1 a pixel that differs from the empty set, where they are cut out by that too; null where they are not
 * @throws CoreError `sizes-differ`
 */
export function cutOutLikely(luma: GrayImage, matte: GrayImage, differs: Uint8Array | null = null): Cutout {
  checkSameSize(luma, matte);
  const size = { width: luma.width, height: luma.height };
  const person = drawnToEdges(luma, matte);
  const mask = differs ? byBoth(size, differs, person) : person;
  fillHoles(size, mask, mask.length / 700);
  keepLarge(size, mask);
  const rim = rimOf(size, mask);
  const away = Math.ceil(Math.max(size.width, size.height) * sureWithin);
  const steps = [-away, away, -away * size.width, away * size.width];
  const doubtful = rim.filter((pixel) => {
    // What differs from the empty set ends where that says, however coarsely people are found.
    if (differs?.[pixel]) return false;
    const near = steps.map((step) => matte.data[pixel + step] ?? 127);
    return Math.max(...near) - Math.min(...near) < leastStep;
  });
  return outlined(size, mask, rim.length > 0 ? doubtful.length / rim.length : 0);
}

/** Who is in a picture, 1 a pixel: as a matte says, but up to the picture's own edges. */
function drawnToEdges(luma: GrayImage, matte: GrayImage): Uint8Array<ArrayBuffer> {
  const reach = learnedSide * Math.max(1, Math.round(Math.max(luma.width, luma.height) / 200));
  // Nothing is learned so far off everybody but that nobody is there.
  const part = widerBounds(boundsOf(matte, 0), 3 * reach + 2 * learnedSide, learnedSide, luma);
  const size = { width: part.right - part.left, height: part.bottom - part.top };
  const out = new Uint8Array(luma.data.length);
  if (size.width <= 0 || size.height <= 0) return out;
  const [light, likely] = [luma, matte].map((image) => cutPart(image, part));
  for (let pixel = 0; pixel < light.length; pixel++) {
    light[pixel] /= 255;
    likely[pixel] /= 255;
  }
  const refined = guided(size, light, likely, reach, 1e-3, learnedSide);
  for (let y = part.top, from = 0; y < part.bottom; y++)
    for (let to = y * luma.width + part.left, end = to + size.width; to < end; to++, from++)
      out[to] = refined[from] > 0.5 ? 1 : 0;
  return out;
}

/** Which pixels of a picture lack the colour of its backdrop, which is found by the frame's rim; null where there is none. */
export function beforeBackdrop(picture: RgbaImage): { key: Rgb; data: Uint8Array; mask: Uint8Array } | null {
  const key = backdropOf(picture);
  if (!key) return null;
  const { data } = keyMatte(picture, key);
  return { key, data, mask: Uint8Array.from(data, (value) => (value > 127 ? 1 : 0)) };
}

/** Cuts out who stands before a backdrop of one colour, which is found by the frame's rim; nobody where there is none. */
export function cutOutBackdrop(picture: RgbaImage): Cutout {
  const size = { width: picture.width, height: picture.height };
  const found = beforeBackdrop(picture);
  if (!found) return outlined(size, new Uint8Array(size.width * size.height), 0);
  const { key, data, mask } = found;
  fillHoles(size, mask, mask.length / 700);
  keepLarge(size, mask);
  const rim = rimOf(size, mask);
  const doubtful = rim.filter((pixel) => furtherIn(size, mask, pixel, (one) => data[one]) < 200);
  return { ...outlined(size, mask, rim.length > 0 ? doubtful.length / rim.length : 0), key };
}

/** A cut-out of a picture as strokes put it right; how doubtful its edge is stays as it was found. */
export function mendCutout(picture: RgbaImage, { rings, faint }: Cutout, mends: readonly Mend[]): Cutout {
  const size = { width: picture.width, height: picture.height };
  const inside = rings.map((ring) => ring.map(([x, y]): Point => [x * size.width, y * size.height]));
  const mask = Uint8Array.from(coverOfRings(inside, size), (cover) => (cover > 0.5 ? 1 : 0));
  return outlined(size, mended(picture, mask, mends), faint);
}
