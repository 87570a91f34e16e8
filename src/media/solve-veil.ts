import { followVeil, type VeilTask, type VeilTrack } from '@/core/footage/veil';
import { pictureAt } from '@/core/footage/picture-times';
import { fitWithin, type Point } from '@/core/geometry/size';
import { headsOf, type Head } from '@/core/people/head';
import { headsInWhole, partRound } from '@/core/people/look-at';
import { cutImage, type GrayImage } from '@/core/picture/image';
import { resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import type { Footage } from './footage';
import type { Progress } from './measure-take';
import type { FindPeople } from './people';
import { acrossTrack, gone, looked, mostTracked } from './task-pictures';

/** seconds between two pictures in which heads are looked for, and the pixels of their longer side */
const [apart, acrossLooks] = [0.4, 960];

/** Heads near where one should be. */
async function headsNear(picture: YuvImage, at: Point, reach: number, find: FindPeople): Promise<Head[]> {
  const part = partRound(picture, at, reach);
  const people = await find(cutImage(yuvToRgba(picture), part));
  return headsInWhole(headsOf(people?.poses ?? [], 1), part, picture);
}

/** Follows a head that is to be hidden; without what finds people, by what it looks like alone. */
export async function solveVeil(
  { media, from, until, taps, reach }: VeilTask,
  footage: Footage,
  times: Float64Array,
  onProgress: Progress,
  find: FindPeople,
): Promise<VeilTrack> {
  const within = looked(times, from, until, mostTracked);
  const pictures: GrayImage[] = [];
  const kept = new Map<number, YuvImage>();
  // Where they were tapped, it is looked whether a head is there at all.
  const shown = Float64Array.from(within);
  const tapped = new Set(taps.map(({ time }) => pictureAt(shown, time)));
  let next = -Infinity;
  for (const [index, seconds] of within.entries()) {
    const picture = await footage.at(media, seconds + 1e-6);
    if (!picture) return gone();
    const { width, height, y } = resizeYuv(picture, fitWithin(picture, acrossTrack));
    pictures.push({ width, height, data: Uint8Array.from(y) });
    const isDue = seconds >= next;
    if (isDue || tapped.has(index)) kept.set(index, resizeYuv(picture, fitWithin(picture, acrossLooks)));
    if (isDue) next = seconds + apart;
    footage.release();
    onProgress((0.5 * (index + 1)) / within.length);
  }
  let looks = 0;
  const heads = async (index: number, at: Point, around: number) => {
    const found = await headsNear(kept.get(index) as YuvImage, at, around, find);
    onProgress(0.5 + (0.5 * ++looks) / kept.size);
    return found;
  };
  const byLooks = (finds: boolean) =>
    followVeil(pictures, within, taps, reach, finds ? { indices: [...kept.keys()], heads } : null);
  return byLooks(true).catch((error: unknown) => {
    if ((error as { code?: string }).code === 'people.absent') return byLooks(false);
    throw error;
  });
}
