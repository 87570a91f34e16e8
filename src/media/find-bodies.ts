import { fitWithin } from '@/core/geometry/size';
import { bodiesOf, type Bodies } from '@/core/people/bodies';
import { agreeOn, mirroredPose } from '@/core/people/two-looks';
import { mirrorImage } from '@/core/picture/image';
import { resizeYuv, yuvToRgba } from '@/core/picture/planes';
import type { Progress } from './measure-take';
import type { FindPeople } from './people';
import { PictureReader } from './pictures';
import { acrossCutout } from './task-pictures';

/** seconds between two looks at who stands in a take, and how many there are at the most */
const [apart, most] = [0.5, 16];

/**
 * Who stands in a take, in pictures of it at even distances, each looked at twice so that what is made up does not count.
 * @param film its proxy, whose pictures match the take's one to one
 * @param times seconds at which each picture of the take begins to show
 * @throws CoreError `people.absent` where what finds people cannot be fetched
 */
export async function findBodies(
  film: Blob,
  times: Float64Array,
  find: FindPeople,
  onProgress: Progress,
): Promise<Bodies> {
  const [first, last] = [times[0], times[times.length - 1]];
  const count = Math.min(most, 1 + Math.floor((last - first) / apart));
  const reader = new PictureReader(film, times, 1);
  const looks: Bodies['looks'][number][] = [];
  let ratio = 1;
  try {
    for (let look = 0; look < count; look++) {
      const time = first + ((look + 0.5) / count) * (last - first);
      reader.release();
      const picture = await reader.at(time);
      const image = yuvToRgba(resizeYuv(picture, fitWithin(picture, acrossCutout)));
      ratio = image.width / image.height;
      const mirrored = mirrorImage(image);
      const seen = await find(image);
      const again = seen && (await find(mirrored));
      const poses = again ? agreeOn(seen.poses, again.poses.map(mirroredPose), ratio) : [];
      looks.push({ time, bodies: bodiesOf(poses, ratio) });
      onProgress((look + 1) / count);
    }
  } finally {
    await reader.close();
  }
  return { ratio, looks };
}
