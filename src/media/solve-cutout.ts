import {
  beforeBackdrop,
  cutOut,
  cutOutBackdrop,
  findsPeople,
  goesByBackdrop,
  type Cutout,
  type CutoutBy,
  type CutoutTask,
} from '@/core/footage/cutout';
import type { Figure, FiguresTask } from '@/core/footage/figures';
import { picturesRound } from '@/core/footage/picture-times';
import type { RgbaImage } from '@/core/picture/image';
import { cutPeople, type EmptySet } from './cut-people';
import type { Footage } from './footage';
import type { Progress } from './measure-take';
import type { Beside } from './people';
import { gone, looked, pictureOf, type Instant } from './task-pictures';

const nobody: Cutout = { rings: [], share: 0, faint: 0 };

/** @param plate the empty set; null where there is none */
function cutFrom(picture: RgbaImage, by: CutoutBy, plate: RgbaImage | null): Cutout {
  if (by === 'backdrop') return cutOutBackdrop(picture);
  return plate ? cutOut(picture, plate) : nobody;
}

/** What tells people from what is behind them, besides that they are people. */
const setOf = (by: CutoutBy, plate: Instant | null): EmptySet | null =>
  goesByBackdrop(by) ? 'backdrop' : plate;

/** pictures to each side that say who is in one of them */
const eachSide = 4;

/** Cuts somebody out of one picture. @param times of the take's pictures */
export async function solveCutout(
  { media, seconds, by, plate }: CutoutTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
  beside: Beside,
): Promise<Cutout> {
  if (findsPeople(by)) {
    const { round, shows } = picturesRound(times, seconds, eachSide);
    const figures = await cutPeople(media, round, footage, onProgress, beside, 'always', setOf(by, plate));
    if (figures.length === 0) return gone();
    const { rings, share, faint } = figures[shows];
    const picture = goesByBackdrop(by) ? await pictureOf(footage, { media, seconds }) : null;
    const key = picture ? beforeBackdrop(picture)?.key : undefined;
    return { rings, share, faint, ...(key && { key }) };
  }
  const picture = await pictureOf(footage, { media, seconds });
  return picture ? cutFrom(picture, by, plate && (await pictureOf(footage, plate, picture))) : nobody;
}

/** pictures that somebody is cut out of, at the most: of a longer stretch every second one, or fewer */
const mostFigures = 240;

/** Cuts somebody out of every picture of a stretch. */
export async function solveFigures(
  { media, from, until, by, plate }: FiguresTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
  beside: Beside,
): Promise<Figure[]> {
  const within = looked(times, from, until, mostFigures);
  if (findsPeople(by))
    return cutPeople(media, within, footage, onProgress, beside, 'now and then', setOf(by, plate));
  const figures: Figure[] = [];
  let empty: RgbaImage | null = null;
  for (const [index, seconds] of within.entries()) {
    const picture = await pictureOf(footage, { media, seconds: seconds + 1e-6 });
    if (!picture) return gone();
    empty ??= plate && (await pictureOf(footage, plate, picture));
    figures.push({ seconds, ...cutFrom(picture, by, empty) });
    footage.release();
    onProgress((index + 1) / within.length);
  }
  return figures;
}
