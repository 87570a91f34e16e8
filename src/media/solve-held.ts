import { GrainPass, type GrainTask } from '@/core/footage/grain';
import { softnessBetween, type Softness, type SoftnessTask } from '@/core/footage/softness';
import type { GrayImage } from '@/core/picture/image';
import { factorsOf, resizeYuv, type YuvImage } from '@/core/picture/planes';
import type { Grain } from '@/core/picture/regrain';
import { median } from '@/core/statistics';
import type { Footage } from './footage';
import type { Progress } from './measure-take';
import { gone, looked } from './task-pictures';

/** pictures from which grain is told, at the most */
const mostGrainy = 12;
/** share by which the shapes of two pictures may differ that are held against each other */
const sameShape = 0.01;

/** Pictures of a file that follow one another: of a fast camera, fewer seconds. */
async function* pictures(
  footage: Footage,
  media: string,
  within: readonly number[],
  onProgress: Progress,
): AsyncGenerator<YuvImage> {
  for (const [index, seconds] of within.entries()) {
    const picture = await footage.at(media, seconds + 1e-6);
    if (!picture) return gone();
    yield picture;
    footage.release();
    onProgress((index + 1) / within.length);
  }
}

const first = (times: Float64Array, from: number, until: number) =>
  looked(times, from, until, Infinity).slice(0, mostGrainy);

/** The grain of a stretch of a file. @returns null where too little of it stands */
export async function solveGrain(
  { media, from, until }: GrainTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
): Promise<Grain | null> {
  const pass = new GrainPass();
  for await (const picture of pictures(footage, media, first(times, from, until), onProgress))
    pass.push(picture);
  return pass.finish();
}

/** The luma of a picture, in codes of full range. */
function lumaOf(picture: YuvImage): GrayImage & { data: Float32Array } {
  const { width, height, y } = picture;
  const f = factorsOf(picture);
  return { width, height, data: Float32Array.from(y, (code) => (code - f.black) * f.luma) };
}

const variance = (grain: Grain): number => median(grain.luma) ** 2;

/**
 * How much sharper a held picture is than the mean of some pictures of a film: what grain is in that counts for little.
 * @returns null where the camera of the film moves, or the two have too little in common
 */
export async function solveSoftness(
  { media, from, until, held }: SoftnessTask,
  footage: Footage,
  times: { film: Float64Array; still: Float64Array },
  onProgress: Progress,
): Promise<Softness | null> {
  const pass = new GrainPass();
  const mean: { image: (GrayImage & { data: Float32Array }) | null; of: number } = { image: null, of: 0 };
  const halfway = (share: number) => onProgress(share / 2);
  for await (const picture of pictures(footage, media, first(times.film, from, until), halfway)) {
    pass.push(picture);
    const luma = lumaOf(picture);
    mean.of++;
    if (mean.image) for (let at = 0; at < luma.data.length; at++) mean.image.data[at] += luma.data[at];
    else mean.image = luma;
  }
  const grain = pass.finish();
  const { image: film, of } = mean;
  if (!film || !grain) return null;
  for (let at = 0; at < film.data.length; at++) film.data[at] /= of;
  const own = new GrainPass();
  const around = first(times.still, held.seconds - 0.25, held.seconds + 0.25);
  for await (const picture of pictures(footage, held.media, around, (share) => onProgress((1 + share) / 2)))
    own.push(picture);
  const still = await footage.at(held.media, held.seconds + 1e-6);
  if (!still) return gone();
  const shape = (still.width * film.height) / (still.height * film.width);
  if (Math.abs(shape - 1) > sameShape) return null;
  const kept = own.finish();
  return softnessBetween(lumaOf(resizeYuv(still, film)), film, [
    kept ? variance(kept) : 0,
    variance(grain) / of,
  ]);
}
