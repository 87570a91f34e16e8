import { onReference, type Alignment } from '@/core/footage/align-sound';
import { alignLips, type Lips, type MouthLook } from '@/core/footage/lips';
import { fitWithin } from '@/core/geometry/size';
import { cutFace, faceBoxOf, readFace, type FaceBox } from '@/core/people/face';
import { resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { songRate, songSoundOf } from './measure-song';
import type { Progress } from './measure-take';
import type { Faces } from './people';
import { PictureReader } from './pictures';
import { acrossCutout } from './task-pictures';

/** The song, at {@link songRate}, and where a take lies on it. */
export type Sung = { wav: Blob; playback: Alignment };

/** pictures a second that are looked at, at the most, and how many: a minute of them */
const [mostASecond, most] = [30, 1800];
/** looks over all of them for whether there is a face at all, and pictures between two looks for one that is gone */
const [firstLooks, again] = [8, 12];

/** The nearest face in a picture; null where none is seen. */
async function faceIn(picture: YuvImage, { find }: Faces): Promise<FaceBox | null> {
  const small = resizeYuv(picture, fitWithin(picture, acrossCutout));
  const people = await find(yuvToRgba(small));
  const factor = picture.width / small.width;
  return (people?.poses ?? [])
    .flatMap((pose) => faceBoxOf(pose, small) ?? [])
    .map(({ x, y, side, lean }) => ({ x: factor * x, y: factor * y, side: factor * side, lean }))
    .reduce<FaceBox | null>((best, box) => (best && best.side >= box.side ? best : box), null);
}

/** The pictures of a take that are looked at: those with the song on them, a minute at the most. */
function sungPictures(times: Float64Array, playback: Alignment, seconds: number): number[] {
  const sung = [...times].filter((time) => {
    const place = onReference(playback, time);
    return place >= 0 && place <= seconds;
  });
  const perSecond = (sung.length - 1) / (sung[sung.length - 1] - sung[0]);
  const step = Math.max(1, Math.round(perSecond / mostASecond));
  return sung.filter((_, index) => index % step === 0).slice(0, most);
}

/**
 * How the lips of whoever is nearest to the camera go with the song.
 * @param film the take's proxy, whose pictures match its own one to one
 * @param times seconds at which each picture of the take begins to show
 * @returns null where no mouth is seen, or too little of it to tell
 * @throws CoreError `people.absent` where what finds people cannot be fetched
 */
export async function findLips(
  film: Blob,
  times: Float64Array,
  { wav, playback }: Sung,
  faces: Faces,
  onProgress: Progress,
): Promise<Lips | null> {
  const song = await songSoundOf(wav);
  const within = sungPictures(times, playback, song.length / songRate);
  const reader = new PictureReader(film, times, 1);
  const pictureAt = (time: number) => {
    reader.release();
    return reader.at(time);
  };
  const looks: MouthLook[] = [];
  try {
    let box: FaceBox | null = null;
    for (let look = 0; look < firstLooks && !box && within.length > 0; look++)
      box = await faceIn(
        await pictureAt(within[Math.floor(((look + 0.5) / firstLooks) * within.length)]),
        faces,
      );
    if (!box) return null;
    box = null;
    for (const [index, time] of within.entries()) {
      onProgress(index / within.length);
      if (!box && index % again > 0) continue;
      const picture = await pictureAt(time);
      box ??= await faceIn(picture, faces);
      if (!box) continue;
      const found = readFace(await faces.face(cutFace(yuvToRgba(picture), box)), box);
      if (found) looks.push({ time, open: found.open });
      box = found && found.next;
    }
  } finally {
    await reader.close();
  }
  return alignLips({ data: song, rate: songRate }, playback, looks);
}
