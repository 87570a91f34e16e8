import { refuse } from '@/core/error';
import { allowed } from '@/core/finding/allowed';
import { filledIn, leastFilled } from '@/core/footage/filled';
import {
  partWanted,
  type FoundJoin,
  type JoinPlace,
  type JoinsFound,
  type JoinSpan,
  type JoinsWanted,
  type MostFilled,
} from '@/core/footage/found-joins';
import { distinctJoins, findJoins as joinsOf, type Join } from '@/core/footage/joins';
import { panBetween } from '@/core/footage/pan';
import { registerFrame } from '@/core/footage/register';
import type { ShotSheet } from '@/core/footage/cuts/shots';
import { cornerMove } from '@/core/geometry/placement';
import { fitWithin } from '@/core/geometry/size';
import type { GrayImage } from '@/core/picture/image';
import { Footage, type Source } from './footage';
import type { Progress } from './measure-take';
import { drawSheet, imageOf } from './picture-sheet';
import { acrossTrack, gone, graysOf } from './task-pictures';

/** pixels across in which takes are held against each other, and pictures of each at the most: of a longer one every second, or fewer */
const [across, mostLooked] = [160, 700];
/** joins that are wanted */
const wantedJoins = 12;

/** Joins of two files, with the pictures at which they lie. */
export type FoundJoins = JoinsFound & { sheet: ShotSheet; pictures: Blob };

/** Of takes that are too short nothing is shown. */
const noSheet: ShotSheet = { columns: 0, count: 0, width: 0, height: 0 };

type Gray = GrayImage & { data: Uint8Array };

/** The light of some pictures of a file. @param within their seconds */
async function graysIn(
  footage: Footage,
  media: string,
  within: readonly number[],
  wide: number,
  onProgress: Progress = () => undefined,
): Promise<Gray[]> {
  const pictures: Gray[] = [];
  for await (const picture of graysOf(footage, media, within, wide, onProgress))
    pictures.push(picture as Gray);
  return pictures;
}

/** Whether a picture of a file lies in a span of it; all do where there is none. */
const liesIn = ({ times }: Source, span: JoinSpan | undefined, picture: number): boolean =>
  !span || (times[picture] >= span[0] - 1e-6 && times[picture] <= span[1] + 1e-6);

/** How a file's picture moves to the next one, or where there is none as near as can be told. */
function panAt(pictures: readonly Gray[], at: number) {
  const from = Math.max(0, Math.min(at, pictures.length - 2));
  return panBetween(pictures[from], pictures[from + 1]);
}

/** The picture that is covered most, of those of which one in `step` was looked at. */
function mostOf(filled: Float32Array, step: number): MostFilled {
  const share = filled.reduce((most, one) => Math.max(most, one), 0);
  return { picture: step * Math.max(0, filled.indexOf(share)), share };
}

/** Pictures of the second file to one of the first, by how long they show in the mean; 1 where one of them is a single picture. */
function paceOf([one, other]: readonly [Source, Source]): number {
  const tick = ({ times }: Source) => (times[times.length - 1] - times[0]) / (times.length - 1);
  const pace = tick(one) / tick(other);
  return Number.isFinite(pace) && pace > 0 ? pace : 1;
}

/** How both files move at a join: the first one into it, the second out of it. */
const pansAt = (one: readonly Gray[], other: readonly Gray[], { a, b }: Join): FoundJoin['pans'] =>
  Math.min(one.length, other.length) > 1 ? [panAt(one, a - 1), panAt(other, b)] : null;

/**
 * Finds where one file goes over into another unseen, or one into itself where both are the same: the least seen first.
 * @throws CoreError `absent`, `shapes-differ`
 */
export async function findJoins(
  sources: readonly [Source, Source],
  wanted: JoinsWanted,
  onProgress: Progress,
): Promise<FoundJoins> {
  const { over, at, spans } = wanted;
  const [one, other] = sources;
  const footage = footageOf(sources);
  try {
    const isOne = one.media === other.media;
    const pace = paceOf(sources);
    // One step for both, so that one goes on as fast to the other as in all of their pictures.
    const step = Math.ceil(Math.max(1, one.times.length, other.times.length) / mostLooked);
    const every = ({ times }: Source) => [...times].filter((_, index) => index % step === 0);
    const first = await graysIn(footage, one.media, every(one), across, (share) =>
      onProgress((isOne ? 0.8 : 0.4) * share),
    );
    const second = isOne
      ? first
      : await graysIn(footage, other.media, every(other), across, (share) => onProgress(0.4 + 0.4 * share));
    const [{ width, height }] = first;
    const [next] = second;
    if (next.width !== width || next.height !== height)
      refuse(
        'shapes-differ',
        'These two takes have different shapes. Choose two of one shape, or cut one of them to the other’s and bring it in again.',
      );
    const { x, y, width: wide, height: tall } = partWanted(wanted);
    const region = { x: x * width, y: y * height, width: wide * width, height: tall * height };
    const filled = [first, second].map(filledIn);
    const mostFilled: FoundJoins['mostFilled'] = [mostOf(filled[0], step), mostOf(filled[1], step)];
    const isWanted = (side: 0 | 1) => (index: number) =>
      (at !== 'filled' || filled[side][index] >= leastFilled) &&
      liesIn(sources[side], spans?.[side], step * index);
    const rough = joinsOf(first, second, {
      region,
      pace,
      moving: at === 'moving',
      ...(at === 'filled' || spans ? { only: [isWanted(0), isWanted(1)] as const } : {}),
      // Where pictures are left out, those that are looked at lie further apart.
      over: Math.ceil(over / step),
      limit: wantedJoins,
    });
    const all: FoundJoin[] = [];
    for (const [index, join] of rough.entries()) {
      const found =
        step === 1
          ? placed(sources, join, pansAt(first, second, join))
          : await exactly(footage, sources, step, join, { region, pace, over, at, spans });
      if (found) {
        const covered: FoundJoin['filled'] = [filled[0][join.a], filled[1][join.b]];
        all.push({ ...found, filled: covered, off: await setOff(footage, sources, found) });
      }
      onProgress(0.8 + (0.15 * (index + 1)) / rough.length);
    }
    // Looked at exactly, two of them may come to lie beside each other.
    const joins = distinctJoins(all.sort((a, b) => a.cost - b.cost));
    if (joins.length === 0) return { joins, sheet: noSheet, pictures: new Blob(), step, mostFilled };
    const drawn = await drawSheet(2 * joins.length, 2, async (index) => {
      footage.release();
      const side = index % 2;
      const picture = await footage.at(sources[side].media, joins[index >> 1].seconds[side] + 1e-6);
      return picture ?? gone();
    });
    return { joins, ...drawn, step, mostFilled };
  } finally {
    await footage.close();
  }
}

/** The best join near one of pictures of which some were left out, looked for in all of them; null where they leave no room. */
async function exactly(
  footage: Footage,
  sources: readonly [Source, Source],
  step: number,
  join: Join,
  how: {
    region: { x: number; y: number; width: number; height: number };
    pace: number;
    over: number;
    at: JoinPlace;
    spans: JoinsWanted['spans'];
  },
): Promise<Placed | null> {
  const round = async ({ media, times }: Source, at: number) => {
    const first = Math.max(0, at - step);
    const within = [...times.subarray(first, at + step + Math.ceil(how.over * Math.max(1, how.pace)) + 1)];
    return { first, pictures: await graysIn(footage, media, within, across) };
  };
  const a = await round(sources[0], step * join.a);
  const b = await round(sources[1], step * join.b);
  // How much is covered is known of the pictures that were looked at alone; those beside them may show the set.
  const isWanted = (side: 0 | 1, index: number, looked: number) =>
    (how.at !== 'filled' || index === looked) && liesIn(sources[side], how.spans?.[side], index);
  const only = [
    (i: number) => isWanted(0, a.first + i, step * join.a),
    (j: number) => isWanted(1, b.first + j, step * join.b),
  ] as const;
  const [near] = joinsOf(a.pictures, b.pictures, { ...how, only, limit: 1 });
  if (!near) return null;
  const pans = pansAt(a.pictures, b.pictures, near);
  return placed(sources, { ...near, a: a.first + near.a, b: b.first + near.b }, pans);
}

/** A join as far as it is told by pictures that were looked at. */
type Placed = Omit<FoundJoin, 'off' | 'filled'>;
const placed = ([one, other]: readonly [Source, Source], join: Join, pans: FoundJoin['pans']): Placed => ({
  ...join,
  seconds: [one.times[join.a], other.times[join.b]],
  pans,
});

/** By how much the set is off from one picture of a join to the other, in shares of their width; null where it is not one set. */
async function setOff(
  footage: Footage,
  sources: readonly [Source, Source],
  { seconds }: Placed,
): Promise<number | null> {
  const at = (side: 0 | 1) => graysIn(footage, sources[side].media, [seconds[side]], acrossTrack);
  const [[one], [other]] = [await at(0), await at(1)];
  const found = registerFrame(one, other);
  return found.agreement < allowed.agreement ? null : cornerMove(found, one) / one.width;
}

/** Readers for two files, which may be one. */
const footageOf = ([one, other]: readonly [Source, Source]) =>
  new Footage(one.media === other.media ? [one] : [one, other]);

/** pixels across of the pictures in which a join is looked at in motion */
const acrossMotion = 480;

/**
 * A join as it runs: the first file up to it, then the second, one dissolving into the other where that is meant.
 * @param join where it lies, and over how many pictures
 * @param each pictures before it and from it on, at the most
 */
export async function joinInMotion(
  sources: readonly [Source, Source],
  { a, b, over }: Pick<Join, 'a' | 'b'> & { over: number },
  each: number,
): Promise<ImageBitmap[]> {
  const footage = footageOf(sources);
  try {
    const imageAt = async (side: 0 | 1, index: number) => {
      const { media, times } = sources[side];
      const picture = await footage.at(media, times[index] + 1e-6);
      if (!picture) return gone();
      const image = imageOf(picture, fitWithin(picture, acrossMotion));
      footage.release();
      return image;
    };
    const images: ImageBitmap[] = [];
    const last = Math.min(each, sources[1].times.length - b);
    const pace = paceOf(sources);
    for (let step = -Math.min(each, a); step < last; step++) {
      const shows = step < 0 ? await imageAt(0, a + step) : await imageAt(1, b + step);
      // Of the first one as many seconds have gone by.
      const onward = Math.round(step / pace);
      const isMixed = over > 1 && step >= 0 && onward < over && a + onward < sources[0].times.length;
      const behind = isMixed ? await imageAt(0, a + onward) : null;
      const canvas = new OffscreenCanvas(shows.width, shows.height);
      const paper = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
      if (behind) {
        paper.drawImage(await createImageBitmap(behind), 0, 0);
        paper.globalAlpha = (onward + 1) / (over + 1);
        paper.drawImage(await createImageBitmap(shows), 0, 0);
      } else paper.putImageData(shows, 0, 0);
      images.push(canvas.transferToImageBitmap());
    }
    return images;
  } finally {
    await footage.close();
  }
}
