import { motion } from '@/core/footage/analysers/motion';
import { pixelsOf, type Region } from '@/core/geometry/region';
import type { Size } from '@/core/geometry/size';
import { cutGray } from '@/core/picture/image';
import { Footage, type Source } from './footage';
import type { Progress } from './measure-take';
import { gone, graysOf, looked } from './task-pictures';

/** pixels across a part in which it is looked at, about, and of the whole picture at the most */
const [acrossPart, acrossWhole] = [256, 960];
/** pictures that are looked at, at the most: of more every second one, or fewer */
const mostLooked = 3000;

/** What moves in a part of a take's picture, at the seconds of the pictures that were looked at. */
export type PartMotion = { times: Float64Array; moved: Float32Array };

/**
 * How much moves in a part of a take's picture from each picture to the next, as the analyser of motion has it of all.
 * @throws CoreError `absent` where its file is not here
 */
export async function motionIn(source: Source, region: Region, onProgress: Progress): Promise<PartMotion> {
  const footage = new Footage([source]);
  try {
    const within = looked(source.times, 0, Infinity, mostLooked);
    const wide = Math.min(acrossWhole, Math.round(acrossPart / region.width));
    let pass: ReturnType<typeof motion.begin> | null = null;
    let size: Size | null = null;
    let at = 0;
    for await (const picture of graysOf(footage, source.media, within, wide, onProgress)) {
      const part = cutGray(picture, pixelsOf(region, picture));
      size ??= { width: part.width, height: part.height };
      pass ??= motion.begin({ analysis: size, fullRange: true });
      pass.push(part.data, within[at++]);
    }
    const curve = pass?.finish().curve;
    return { times: Float64Array.from(within), moved: curve ?? gone() };
  } finally {
    await footage.close();
  }
}
