import { VideoSampleSink } from 'mediabunny';
import { refuse } from '@/core/error';
import type { RgbaImage } from '@/core/picture/image';
import type { Size } from '@/core/geometry/size';
import { yuvToRgba } from '@/core/picture/planes';
import type { WatchFrame } from '@/core/watch/alarms';
import { readPicture, type Reading } from '@/core/watch/reading';
import { watchReference } from '@/core/watch/reference';
import { verdictOf, type Verdict } from '@/core/watch/verdict';
import { openInput } from './open';
import { coloursOf, planesOf } from './pictures';

/** Pictures of a clip at even distances; the first and the last ones lie a little inside. */
async function picturesAlong(blob: Blob, count: number): Promise<{ time: number; picture: RgbaImage }[]> {
  const input = openInput(blob);
  try {
    const track = await input.getPrimaryVideoTrack().catch(() => null);
    if (!track || !(await track.canDecode()))
      return refuse(
        'media.no-pictures',
        'No pictures of this file can be decoded here. Choose a clip in H.264, standard range.',
      );
    const [first, duration] = [await track.getFirstTimestamp(), await track.computeDuration()];
    const kind = await coloursOf(track);
    const times = Array.from(
      { length: count },
      (_, index) => first + ((index + 0.5) / count) * Math.max(0, duration - first),
    );
    const out: { time: number; picture: RgbaImage }[] = [];
    for await (const sample of new VideoSampleSink(track).samplesAtTimestamps(times)) {
      if (!sample) continue;
      try {
        const { data, width, height } = yuvToRgba(await planesOf(sample, kind));
        out.push({ time: Math.max(0, sample.timestamp), picture: { data, width, height } });
      } finally {
        sample.close();
      }
    }
    return out;
  } finally {
    input.dispose();
  }
}

/** A few pictures of a plate's file, to watch against. */
export const platePictures = async (blob: Blob): Promise<RgbaImage[]> =>
  (await picturesAlong(blob, 3)).map(({ picture }) => picture);

type QuickTask = {
  clip: Blob;
  /** the plate's file, or pictures of it */
  plate: Blob | RgbaImage[];
  frame: WatchFrame;
  delivery: Size;
};

/**
 * A verdict on a clip from nine pictures: does the camera stand where it stood, is the light the same, does
 * anybody cross the join.
 * @throws CoreError `media.no-pictures`, `no-reference`, `watch.size` with what to do
 */
export async function quickCheck(task: QuickTask): Promise<Verdict> {
  const plate = task.plate instanceof Blob ? await platePictures(task.plate) : task.plate;
  const reference = watchReference(plate);
  const readings: { time: number; reading: Reading }[] = [];
  for (const { time, picture } of await picturesAlong(task.clip, 9))
    readings.push({ time, reading: readPicture(reference, picture, task.delivery) });
  return verdictOf(readings, task.frame, task.delivery);
}
