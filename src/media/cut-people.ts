import { Agreement } from '@/core/footage/agreement/agreement';
import { beforeBackdrop, cutOutLikely, differingFrom } from '@/core/footage/cutout';
import type { Figure } from '@/core/footage/figures';
import { fitWithin, type Size } from '@/core/geometry/size';
import { flowBetween, type Flow } from '@/core/picture/between';
import type { GrayImage, RgbaImage } from '@/core/picture/image';
import { resizePlane, resizeYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import type { Footage } from './footage';
import type { Progress } from './measure-take';
import type { Beside, FindPeople, People } from './people';
import { readAhead } from './read-ahead';
import { acrossCutout, gone, pictureOf, type Instant } from './task-pictures';

/** pictures are held against each other no larger than this: what one of them says of another is drawn to its edges after */
const acrossAgreement = 320;
/** share of the work that finding is, before what was found is held against what comes later */
const found = 0.8;

/**
 * Seconds for which pictures may go by without a look for people, and how much that is new in a picture asks for one
 * more, as a share of who shows. By trial: e2e/ghost, bench.
 */
const [unlooked, mostNew] = [0.2, 0.25];

/** pictures that are made ready, and in which people are looked for, while those before them are worked at; at the most */
const mostAhead = 12;

/** What people stand before: a picture of the empty set, or a backdrop of one colour. */
export type EmptySet = Instant | 'backdrop';

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
  /** who is in it, where it is looked at anyhow */
  look: Promise<People | null> | null;
};

/** Where pictures of a take are looked at anyhow: all of them, or the first and the last, and between them one in a while. */
function dueIn(within: readonly number[], looks: 'always' | 'now and then'): Set<number> {
  const due = new Set<number>();
  let last = -Infinity;
  within.forEach((seconds, index) => {
    if (looks === 'now and then' && seconds - last < unlooked - 1e-3 && index < within.length - 1) return;
    due.add(seconds);
    last = seconds;
  });
  return due;
}

/** Pictures of a take, shrunk, with how each moves on from the one before, what of it differs from what they stand before, and who is in it. */
async function* readyPictures(
  media: string,
  within: readonly number[],
  footage: Footage,
  find: FindPeople,
  due: ReadonlySet<number>,
  before: EmptySet | null,
): AsyncGenerator<Ready, void> {
  const plate = before === 'backdrop' ? null : before;
  let [empty, last]: [RgbaImage | null, YuvImage | null] = [null, null];
  for (const seconds of within) {
    const picture = await footage.at(media, seconds + 1e-6);
    if (!picture) return gone();
    const seen = resizeYuv(picture, fitWithin(picture, acrossCutout));
    footage.release();
    const look = due.has(seconds) ? find(yuvToRgba(seen)) : null;
    // Whoever waits for it hears of what goes wrong; nobody may be there yet.
    look?.catch(() => undefined);
    const small = resizeYuv(seen, fitWithin(seen, acrossAgreement));
    empty ??= plate && (await pictureOf(footage, plate, seen));
    const flow = last && flowBetween(last, small, 1);
    const differs =
      before === 'backdrop'
        ? (beforeBackdrop(yuvToRgba(seen))?.mask ?? null)
        : empty && differingFrom(yuvToRgba(seen), empty);
    yield { seconds, seen, small, flow, look, differs };
    last = small;
  }
}

/** Likelihoods 0..1 as codes of 255. */
function codesOf(likely: GrayImage['data']): Uint8Array {
  const out = new Uint8Array(likely.length);
  for (let pixel = 0; pixel < out.length; pixel++) out[pixel] = 255 * likely[pixel] + 0.5;
  return out;
}

/**
 * Cuts people out of pictures that follow one another, as these agree on it. People are looked for in every picture, or
 * where `looks` says so in as few as will do: looking takes longer than all else.
 * @param within their seconds of the take, rising
 * @param beside is asked who is in a picture, and cuts some of them out; all else goes on meanwhile
 * @param before what they stand before, by which they are cut out too; null where they are not
 */
export async function cutPeople(
  media: string,
  within: readonly number[],
  footage: Footage,
  onProgress: Progress,
  beside: Beside,
  looks: 'always' | 'now and then',
  before: EmptySet | null = null,
): Promise<Figure[]> {
  const agreement = new Agreement();
  const due = dueIn(within, looks);
  const pictures = readAhead(readyPictures(media, within, footage, beside.find, due, before), mostAhead);
  const cuts: Cut[] = [];
  for await (const { seconds, seen, small, flow, differs, look } of pictures.read()) {
    const isNew = agreement.add(small, flow) > mostNew;
    const looking = look ?? (isNew ? beside.find(yuvToRgba(seen)) : null);
    if (looking) {
      const people = await pictures.during(looking);
      const likely = people && codesOf(people.matte.data);
      agreement.found(likely && resizePlane(likely, seen, small));
    }
    cuts.push({
      seconds,
      differs,
      luma: { width: seen.width, height: seen.height, data: seen.y },
      small: { width: small.width, height: small.height },
    });
    onProgress((found * cuts.length) / within.length);
  }
  let drawn = 0;
  const figures: Promise<Figure>[] = [];
  for (const likely of agreement.backwards()) {
    const index = cuts.length - 1 - figures.length;
    const { seconds, luma, differs, small } = cuts[index];
    const matte = { ...luma, data: resizePlane(likely, small, luma) };
    // What agrees on the next picture is worked out here, so that fewer are cut out here than beside.
    const cutout = index % 3 === 0 ? cutOutLikely(luma, matte, differs) : beside.cut(luma, matte, differs);
    figures.push(
      Promise.resolve(cutout).then((one) => {
        onProgress(found + ((1 - found) * ++drawn) / within.length);
        return { seconds, ...one };
      }),
    );
  }
  return (await Promise.all(figures)).reverse();
}
