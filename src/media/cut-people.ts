import { Agreement } from '@/core/footage/agreement/agreement';
import { cutOutLikely, differingFrom } from '@/core/footage/cutout';
import type { Figure } from '@/core/footage/figures';
import { fitWithin, type Size } from '@/core/geometry/size';
import { flowBetween, type Flow } from '@/core/picture/between';
import type { GrayImage, RgbaImage } from '@/core/picture/image';
import { resizePlane, resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import type { Footage } from './footage';
import type { Progress } from './measure-take';
import type { FindPeople } from './people';
import { readAhead } from './read-ahead';
import { acrossCutout, gone, pictureOf, type Instant } from './task-pictures';

/** pictures are held against each other no larger than this: what one of them says of another is drawn to its edges after */
const acrossAgreement = 320;
/** share of the work that finding is, before what was found is held against what comes later */
const found = 0.8;

/**
 * Seconds for which pictures may go by without a look for people, and how much that is new in a picture asks for one all
 * the same, as a share of who shows. By trial: e2e/ghost, bench.
 */
const [unlooked, mostNew] = [0.2, 0.25];

/** pictures that are made ready while people are looked for in one before them, at the most */
const mostAhead = 6;

/** A picture out of which somebody is cut, what of it differs from the empty set, and the size in which the pictures agree on it. */
type Cut = {
  seconds: number;
  luma: GrayImage & { data: Uint8Array };
  differs: Uint8Array | null;
  small: Size;
};

/** A picture as people are looked for in it, and as it is held against the one before. */
type Ready = {
  seconds: number;
  seen: YuvImage;
  small: YuvImage;
  flow: Flow | null;
  differs: Uint8Array | null;
};

/** Pictures of a take, shrunk, with how each moves on from the one before and what of it differs from the plate. */
async function* readyPictures(
  media: string,
  within: readonly number[],
  footage: Footage,
  plate: Instant | null,
): AsyncGenerator<Ready, void> {
  let [empty, before]: [RgbaImage | null, YuvImage | null] = [null, null];
  for (const seconds of within) {
    const picture = await footage.at(media, seconds + 1e-6);
    if (!picture) return gone();
    const seen = resizeYuv(picture, fitWithin(picture, acrossCutout));
    const small = resizeYuv(seen, fitWithin(seen, acrossAgreement));
    footage.release();
    empty ??= plate && (await pictureOf(footage, plate, seen));
    const flow = before && flowBetween(before, small, 1);
    yield { seconds, seen, small, flow, differs: empty && differingFrom(yuvToRgba(seen), empty) };
    before = small;
  }
}

/**
 * Cuts people out of pictures that follow one another, as these agree on it. People are looked for in every picture, or
 * where `looks` says so in as few as will do: looking takes longer than all else.
 * @param within their seconds of the take, rising
 * @param find is asked who is in a picture; the next ones are made ready meanwhile
 * @param plate a picture of the empty set, by which they are cut out too; null where they are not
 */
export async function cutPeople(
  media: string,
  within: readonly number[],
  footage: Footage,
  onProgress: Progress,
  find: FindPeople,
  looks: 'always' | 'now and then',
  plate: Instant | null = null,
): Promise<Figure[]> {
  const agreement = new Agreement();
  const pictures = readAhead(readyPictures(media, within, footage, plate), mostAhead);
  let lastLook = -Infinity;
  const cuts: Cut[] = [];
  for await (const { seconds, seen, small, flow, differs } of pictures.read()) {
    const isNew = agreement.add(small, flow) > mostNew;
    const isLast = cuts.length === within.length - 1;
    if (looks === 'always' || isNew || isLast || seconds - lastLook >= unlooked - 1e-3) {
      const people = await pictures.during(find(yuvToRgba(seen)));
      const likely = people && Uint8Array.from(people.matte.data, (value) => Math.round(255 * value));
      agreement.found(likely && resizePlane(likely, seen, small));
      lastLook = seconds;
    }
    cuts.push({
      seconds,
      differs,
      luma: { width: seen.width, height: seen.height, data: seen.y },
      small: { width: small.width, height: small.height },
    });
    onProgress((found * cuts.length) / within.length);
  }
  const figures: Figure[] = [];
  for (const likely of agreement.backwards()) {
    const { seconds, luma, differs, small } = cuts[cuts.length - 1 - figures.length];
    const matte = { ...luma, data: resizePlane(likely, small, luma) };
    figures.push({ seconds, ...cutOutLikely(luma, matte, differs) });
    onProgress(found + ((1 - found) * figures.length) / within.length);
  }
  return figures.reverse();
}
