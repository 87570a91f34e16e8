import { refuse } from '@/core/error';
import { allowed } from '@/core/finding/allowed';
import { doubtIn, emptySetFrom, sameLight } from '@/core/footage/empty-set';
import { setRegions, shownAt } from '@/core/footage/set-regions';
import { pictureAt } from '@/core/footage/picture-times';
import {
  chain,
  cornerMove,
  placementMatrix,
  scalePlacement,
  unpackPlacements,
  type Placement,
} from '@/core/geometry/placement';
import { fitWithin } from '@/core/geometry/size';
import type { MeasuredTake } from '@/core/model/measures';
import {
  blankYuv,
  chromaSide,
  planesLength,
  resizeYuv,
  rgbaToYuv,
  yuvToRgba,
  type YuvImage,
  type YuvMatrix,
} from '@/core/picture/planes';
import { resamplePlane } from '@/core/picture/resample';
import type { Rate } from '@/core/time/rate';
import { baseOf } from './compare-take';
import { standingFilm } from './film-of-still';
import type { Progress } from './measure-take';
import { PictureReader } from './pictures';

/** A take that an empty set is looked for in. */
export type PlateSource = { blob: Blob; take: MeasuredTake; matrix?: YuvMatrix };

/** A clean plate that was put together. */
export type MadePlate = {
  film: Blob;
  /** share of the picture in which somebody may stand, 0..1 */
  doubt: number;
  /** how many of the takes show the same view, and are in it */
  takes: number;
};

/** pictures that it is put together from at the most, and bytes of theirs that are held */
const [mostPictures, mostBytes] = [31, 2e8];
/** rows of all pictures that are compared at once */
const stripe = 32;
/** pixels of the longer side of the pictures in which it is told where somebody stands */
const regionSide = 480;
/** pixels of a corner below which a picture lies where it should */
const still = 0.1;

/** A picture moved to where it lies against the first one. Beyond its edge it is repeated. */
function laid(picture: YuvImage, placement: Placement): YuvImage {
  const own = { ...picture, y: picture.y.slice(), u: picture.u.slice(), v: picture.v.slice() };
  if (cornerMove(placement, picture) < still) return own;
  const out = blankYuv(picture, picture);
  const half = { width: chromaSide(picture.width), height: chromaSide(picture.height) };
  const move = (
    from: Uint8Array,
    size: { width: number; height: number },
    into: Uint8Array,
    at: Placement,
  ) => {
    const whole = { left: 0, top: 0, right: size.width, bottom: size.height };
    resamplePlane(from, size, placementMatrix(at, size), into, size, whole, null, 'repeated');
  };
  move(own.y, picture, out.y, placement);
  move(own.u, half, out.u, scalePlacement(placement, 0.5));
  move(own.v, half, out.v, scalePlacement(placement, 0.5));
  return out;
}

/** Some rows of a picture. @param rows an even number of them, from an even one on */
function rowsOf({ width, y, u, v, ...kind }: YuvImage, from: number, rows: number): YuvImage {
  const side = chromaSide(width);
  const [first, last] = [(from >> 1) * side, chromaSide(from + rows) * side];
  return {
    ...kind,
    width,
    height: rows,
    y: y.subarray(from * width, (from + rows) * width),
    u: u.subarray(first, last),
    v: v.subarray(first, last),
  };
}

/** Pictures of some takes at even distances, each laid on the first take's view. */
async function picturesOf(
  sources: readonly PlateSource[],
  onProgress: Progress,
): Promise<{ pictures: YuvImage[]; takes: number }> {
  const [first] = sources;
  const held = sources.flatMap(({ blob, take, matrix }) => {
    const track = unpackPlacements(take.track);
    const base = baseOf(take, track, first.take);
    return base.agreement < allowed.agreement ? [] : [{ blob, take, matrix, track, base }];
  });
  const most = Math.min(mostPictures, Math.floor(mostBytes / planesLength(first.take.size)));
  const each = Math.ceil(most / held.length);
  const pictures: YuvImage[] = [];
  for (const [index, { blob, take, matrix, track, base }] of held.entries()) {
    const reader = new PictureReader(blob, take.times, 1, matrix);
    const factor = take.size.width / take.analysis.width;
    const last = take.times[take.times.length - 1];
    try {
      for (let count = 0; count < Math.min(each, take.times.length); count++) {
        const seconds = (last * (count + 0.5)) / each;
        const own = track[pictureAt(take.times, seconds)];
        // What covers the set cannot be laid on it.
        if (own.agreement >= allowed.agreement)
          pictures.push(laid(await reader.at(seconds), scalePlacement(chain(base, own), factor)));
        reader.release();
        onProgress((0.7 * (index + count / each)) / held.length);
      }
    } finally {
      await reader.close();
    }
  }
  return { pictures, takes: held.length };
}

/**
 * A clean plate as most pictures of some takes show the set, as a film in which it stands.
 * @param sources of one size; those that do not show the first one's view are left out
 * @throws CoreError `few-pictures` where too little of them can be laid on one another
 */
export async function buildPlate(
  sources: readonly PlateSource[],
  rate: Rate,
  onProgress: Progress,
): Promise<MadePlate> {
  if (sources.length === 0)
    return refuse('few-pictures', 'There is no take that an empty set could be put together from.');
  const { pictures, takes } = await picturesOf(sources, onProgress);
  const { width, height } = sources[0].take.size;
  const data = new Uint8ClampedArray(4 * width * height);
  const light = sameLight(pictures);
  let doubt = 0;
  const small = fitWithin({ width, height }, regionSide);
  const regions = setRegions(pictures.map((one, index) => light[index](yuvToRgba(resizeYuv(one, small)))));
  for (let from = 0; from < height; from += stripe) {
    const rows = Math.min(stripe, height - from);
    const cellOf = (pixel: number) =>
      Math.floor(((from + Math.floor(pixel / width)) * small.height) / height) * small.width +
      Math.floor(((pixel % width) * small.width) / width);
    const built = emptySetFrom(
      pictures.map((one, index) => light[index](yuvToRgba(rowsOf(one, from, rows)))),
      (pixel) => shownAt(regions, cellOf(pixel)),
    );
    data.set(built.picture.data, 4 * width * from);
    doubt += doubtIn(built) * (rows / height);
    onProgress(0.7 + (0.2 * from) / height);
  }
  return { film: await standingFilm(rgbaToYuv({ width, height, data }), rate), doubt, takes };
}
