import { cutOut } from '@/core/footage/cutout';
import { fallOf, frontIn, type Fall, type FallTask } from '@/core/footage/fall';
import { flightOf, type Flight, type FlightTask } from '@/core/footage/flight';
import { FreePathPass, type FreePath, type PathTask } from '@/core/footage/free-path';
import type { Answer, Task } from '@/core/footage/task';
import { fitWithin, type Point, type Size } from '@/core/geometry/size';
import { boxRound } from '@/core/recipes/cutouts';
import type { GrayImage, RgbaImage } from '@/core/picture/image';
import { flowBetween } from '@/core/picture/between';
import { feetOf } from '@/core/people/pose';
import { mostTorn, type Tears, type TearsTask } from '@/core/footage/tears';
import { trackThrough, type Track, type TrackTask } from '@/core/footage/track/track';
import { resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { movingUnder, type UnderSpan, type UnderTask } from '@/core/footage/under';
import { cropImage } from '@/core/picture/image';
import { Footage, type Source } from './footage';
import type { Progress } from './measure-take';
import type { Beside, FindPeople } from './people';
import { solveCutout, solveFigures } from './solve-cutout';
import { solveGrain, solveSoftness } from './solve-held';
import { solveMend } from './solve-mend';
import { solveMomentSeam } from './solve-seam';
import { solveVeil } from './solve-veil';
import { acrossTrack, gone, graysOf, looked, mostTracked, pictureOf } from './task-pictures';

/** pixels across an outline, at about which it is looked under: noise of single pixels is lost in them */
const acrossOutline = 24;

async function solveUnder(
  { media, from, until, ring }: UnderTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
): Promise<UnderSpan[]> {
  const within = looked(times, from, until);
  const inPicture = (share: number) => Math.min(1, Math.max(0, share));
  const box = boxRound(ring.map(([x, y]): Point => [inPicture(x), inPicture(y)]));
  if (!box) return [];
  const side = acrossOutline / Math.max(0.01, box.right - box.left, box.bottom - box.top);
  const crops: RgbaImage[] = [];
  let corner: Point = [0, 0];
  let size: Size = { width: 0, height: 0 };
  for (const [index, seconds] of within.entries()) {
    const picture = await footage.at(media, seconds + 1e-6);
    if (!picture) return gone();
    size = fitWithin(picture, Math.min(960, Math.round(side)));
    const seen = cropImage(yuvToRgba(resizeYuv(picture, size)), box);
    crops.push(seen.image);
    corner = seen.corner;
    footage.release();
    onProgress((index + 1) / within.length);
  }
  const own = ring.map(([x, y]): Point => [x * size.width - corner[0], y * size.height - corner[1]]);
  const last = within.at(-1) ?? until;
  const step = within.length > 1 ? (last - within[0]) / (within.length - 1) : 0;
  return movingUnder(crops, own, [...within, last + step]);
}

async function solveFlight(
  { media, from, until, plate }: FlightTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
  find: FindPeople,
): Promise<Flight | null> {
  const within = looked(times, from, until);
  const feet: number[] = [];
  let empty: RgbaImage | null = null;
  for (const [index, seconds] of within.entries()) {
    const picture = await pictureOf(footage, { media, seconds: seconds + 1e-6 });
    if (!picture) return null;
    if (plate) {
      empty ??= await pictureOf(footage, plate, picture);
      if (!empty) return null;
      const [largest] = cutOut(picture, empty).rings;
      feet.push(largest ? Math.max(...largest.map(([, y]) => y)) : NaN);
    } else feet.push(feetOf((await find(picture))?.poses ?? []));
    footage.release();
    onProgress((index + 1) / within.length);
  }
  return flightOf(feet, within, plate ? 'plate' : 'person');
}

/** pictures of a stretch through which a camera is followed, at the most: two minutes at 25 a second */
const mostOfPath = 3000;

async function solvePath(
  { media, from, until }: PathTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
): Promise<FreePath> {
  const within = looked(times, from, until, mostOfPath);
  const pass = new FreePathPass();
  let next = 0;
  for await (const luma of graysOf(footage, media, within, acrossTrack, onProgress))
    pass.push({ luma, seconds: within[next++] });
  return pass.finish();
}

/** what falls is looked for in pictures no larger than this */
const acrossFall = 160;

async function solveFall(
  { media, from, until }: FallTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
): Promise<Fall | null> {
  const within = looked(times, from, until);
  const fronts: number[] = [];
  let before: GrayImage | null = null;
  for await (const picture of graysOf(footage, media, within, acrossFall, onProgress)) {
    before ??= picture;
    fronts.push(frontIn(before, picture));
  }
  return fallOf(fronts, within);
}

async function solveTrack(
  { media, from, until, taps, reach }: TrackTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
): Promise<Track> {
  const within = looked(times, from, until, mostTracked);
  const pictures: GrayImage[] = [];
  const onPictures = (share: number) => onProgress(0.6 * share);
  for await (const picture of graysOf(footage, media, within, acrossTrack, onPictures))
    pictures.push(picture);
  const track = trackThrough(pictures, within, taps, reach);
  onProgress(1);
  return track;
}

/** pictures are held against each other no larger than this: so much is looked at of them */
const acrossTears = 320;
/** frames that are looked at, at the most: every second one of many, or fewer */
const mostTears = 240;

async function solveTears(
  { media, pairs }: TearsTask,
  footage: Footage,
  onProgress: Progress,
): Promise<Tears> {
  const step = Math.max(1, Math.ceil(pairs.length / mostTears));
  const looked = pairs.filter((_, index) => index % step === 0);
  const found: Tears = [];
  for (const [index, { frame, seconds }] of looked.entries()) {
    const sides = await footage.around(media, seconds);
    if (!sides) return gone();
    const small = (picture: YuvImage) => resizeYuv(picture, fitWithin(picture, acrossTears));
    const { torn } = flowBetween(small(sides.one), small(sides.two), sides.share);
    if (torn > mostTorn) found.push({ frame, share: torn });
    footage.release();
    onProgress((index + 1) / looked.length);
  }
  return found;
}

/** Solves what a moment asks for from the takes that it names. @param beside is asked where people are looked for */
export async function solveTask(
  task: Task,
  sources: readonly Source[],
  onProgress: Progress,
  beside: Beside,
): Promise<Answer> {
  if (task.is === 'seam') return { method: 'seam-7', seam: await solveMomentSeam(task, sources, onProgress) };
  const footage = new Footage(sources);
  try {
    if (task.is === 'tears') return { method: 'tears-1', tears: await solveTears(task, footage, onProgress) };
    if (task.is === 'mend') return { method: 'mend-1', figures: await solveMend(task, footage, onProgress) };
    const source = sources.find(({ media }) => media === task.media);
    if (task.is !== 'flight' && !source) return gone();
    const times = source?.times ?? new Float64Array();
    if (task.is === 'cutout')
      return { method: 'cutout-2', cutout: await solveCutout(task, footage, times, onProgress, beside) };
    if (task.is === 'under')
      return { method: 'under-1', spans: await solveUnder(task, footage, times, onProgress) };
    if (task.is === 'track')
      return { method: 'track-2', track: await solveTrack(task, footage, times, onProgress) };
    if (task.is === 'path')
      return { method: 'path-1', path: await solvePath(task, footage, times, onProgress) };
    if (task.is === 'grain')
      return { method: 'grain-1', grain: await solveGrain(task, footage, times, onProgress) };
    if (task.is === 'softness') {
      const still = sources.find(({ media }) => media === task.held.media)?.times ?? new Float64Array();
      return {
        method: 'softness-1',
        softness: await solveSoftness(task, footage, { film: times, still }, onProgress),
      };
    }
    if (task.is === 'veil')
      return { method: 'veil-1', veil: await solveVeil(task, footage, times, onProgress, beside.find) };
    if (task.is === 'fall')
      return { method: 'fall-1', fall: await solveFall(task, footage, times, onProgress) };
    if (task.is === 'figures')
      return { method: 'figures-2', figures: await solveFigures(task, footage, times, onProgress, beside) };
    return { method: 'flight-1', flight: await solveFlight(task, footage, times, onProgress, beside.find) };
  } finally {
    await footage.close();
  }
}
