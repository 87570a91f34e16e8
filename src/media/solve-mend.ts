import { mendCutout } from '@/core/footage/cutout';
import type { Figure } from '@/core/footage/figures';
import { carried, heldAt, holdOf, type MendTask } from '@/core/footage/mend';
import { trackThrough } from '@/core/footage/track/track';
import type { GrayImage } from '@/core/picture/image';
import type { Footage } from './footage';
import type { Progress } from './measure-take';
import { acrossTrack, gone, graysOf, pictureOf } from './task-pictures';

/** Puts right who was cut out of some pictures, by strokes that were drawn on some of them and are carried to the others. */
export async function solveMend(
  { media, figures, mends }: MendTask,
  footage: Footage,
  onProgress: Progress,
): Promise<Figure[]> {
  const times = figures.map(({ seconds }) => seconds);
  const pictures: GrayImage[] = [];
  const onPictures = (share: number) => onProgress(0.5 * share);
  for await (const picture of graysOf(footage, media, times, acrossTrack, onPictures)) pictures.push(picture);
  const tracks = mends.map((mend) =>
    trackThrough(pictures, times, [{ time: mend.seconds, at: heldAt(mend) }], holdOf(mend)),
  );
  const out: Figure[] = [];
  for (const [index, figure] of figures.entries()) {
    const strokes = carried(mends, tracks, figure.seconds);
    if (strokes.length > 0) {
      const picture = await pictureOf(footage, { media, seconds: figure.seconds + 1e-6 });
      if (!picture) return gone();
      out.push({ seconds: figure.seconds, ...mendCutout(picture, figure, strokes) });
      footage.release();
    }
    onProgress(0.5 + (0.5 * (index + 1)) / figures.length);
  }
  return out;
}
