import { cutOut, type Cutout, type CutoutTask } from '@/core/footage/cutout';
import { flightOf, type Flight, type FlightTask } from '@/core/footage/flight';
import type { Answer, Task } from '@/core/footage/task';
import { fitWithin, type Size } from '@/core/geometry/size';
import type { RgbaImage } from '@/core/picture/image';
import { resizeYuv, yuvToRgba } from '@/core/picture/planes';
import { Footage, type Source } from './footage';
import type { Progress } from './measure-take';
import { solveMomentSeam } from './solve-seam';

/** One picture of a file, no larger than somebody is cut out of. @returns null where the file is not here */
async function pictureOf(
  footage: Footage,
  { media, seconds }: { media: string; seconds: number },
  size?: Size,
): Promise<RgbaImage | null> {
  const picture = await footage.at(media, seconds);
  return picture && yuvToRgba(resizeYuv(picture, size ?? fitWithin(picture, 640)));
}

const nobody: Cutout = { rings: [], share: 0, faint: 0 };

async function solveCutout({ media, seconds, plate }: CutoutTask, footage: Footage): Promise<Cutout> {
  const picture = await pictureOf(footage, { media, seconds });
  const empty = picture && (await pictureOf(footage, plate, picture));
  return picture && empty ? cutOut(picture, empty) : nobody;
}

/** pictures of a jump that are looked at, at the most: of a fast camera's every second one, or fewer */
const mostPictures = 400;

async function solveFlight(
  { media, from, until, plate }: FlightTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
): Promise<Flight | null> {
  const all = [...times].filter((time) => time >= from && time < until);
  const step = Math.max(1, Math.ceil(all.length / mostPictures));
  const within = all.filter((_, index) => index % step === 0);
  const feet: number[] = [];
  let empty: RgbaImage | null = null;
  for (const [index, seconds] of within.entries()) {
    const picture = await pictureOf(footage, { media, seconds: seconds + 1e-6 });
    if (!picture) return null;
    empty ??= await pictureOf(footage, plate, picture);
    if (!empty) return null;
    const [largest] = cutOut(picture, empty).rings;
    feet.push(largest ? Math.max(...largest.map(([, y]) => y)) : NaN);
    footage.release();
    onProgress((index + 1) / within.length);
  }
  return flightOf(feet, within);
}

/** Solves what a moment asks for from the takes that it names. */
export async function solveTask(
  task: Task,
  sources: readonly Source[],
  onProgress: Progress,
): Promise<Answer> {
  if (task.is === 'seam') return { method: 'seam-3', seam: await solveMomentSeam(task, sources, onProgress) };
  const footage = new Footage(sources);
  try {
    if (task.is === 'cutout') return { method: 'cutout-1', cutout: await solveCutout(task, footage) };
    const times = sources.find(({ media }) => media === task.media)?.times ?? new Float64Array();
    return { method: 'flight-1', flight: await solveFlight(task, footage, times, onProgress) };
  } finally {
    await footage.close();
  }
}
