import { refuse } from '@/core/error';
import { fitWithin, type Size } from '@/core/geometry/size';
import type { GrayImage, RgbaImage } from '@/core/picture/image';
import { resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import type { Footage } from './footage';
import type { Progress } from './measure-take';

/** pictures of a stretch that are looked at, at the most: of a fast camera's every second one, or fewer */
const mostPictures = 400;

/** The pictures of a stretch that are looked at, by their seconds. */
export function looked(times: Float64Array, from: number, until: number, most = mostPictures): number[] {
  const all = [...times].filter((time) => time >= from && time < until);
  const step = Math.max(1, Math.ceil(all.length / most));
  return all.filter((_, index) => index % step === 0);
}

/** Where nothing can be looked at, nothing is said to be fine. */
export const gone = () => refuse('absent', 'The take is no longer in this browser. Bring it in again.');

/** somebody is cut out of pictures no larger than this */
export const acrossCutout = 640;

/** a point is followed, and strokes are carried on, in pictures no larger than this, and in so many at the most: of more, in every second one, or fewer */
export const [acrossTrack, mostTracked] = [480, 600];

/** Where a picture is taken from a file. */
export type Instant = { media: string; seconds: number };

/** One picture of a file, no larger than somebody is cut out of. @returns null where the file is not here */
export async function pictureOf(
  footage: Footage,
  { media, seconds }: Instant,
  size?: Size,
): Promise<RgbaImage | null> {
  const picture = await footage.at(media, seconds);
  return picture && yuvToRgba(resizeYuv(picture, size ?? fitWithin(picture, acrossCutout)));
}

/** The light of a picture, no larger than asked. */
export function grayOf(picture: YuvImage, across: number): GrayImage {
  const { width, height, y } = resizeYuv(picture, fitWithin(picture, across));
  return { width, height, data: Uint8Array.from(y) };
}

/** The light of one picture of a file, no larger than asked; whole bytes, so that a minute of them fits into memory. */
async function grayAt(footage: Footage, media: string, seconds: number, across: number): Promise<GrayImage> {
  const picture = await footage.at(media, seconds + 1e-6);
  if (!picture) return gone();
  const gray = grayOf(picture, across);
  footage.release();
  return gray;
}

/** The light of pictures of a file, one after the other. @param within their seconds */
export async function* graysOf(
  footage: Footage,
  media: string,
  within: readonly number[],
  across: number,
  onProgress: Progress,
): AsyncGenerator<GrayImage> {
  for (const [index, seconds] of within.entries()) {
    yield await grayAt(footage, media, seconds, across);
    onProgress((index + 1) / within.length);
  }
}
