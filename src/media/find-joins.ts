import { refuse } from '@/core/error';
import { allowed } from '@/core/finding/allowed';
import { joinParts, type FoundJoin, type JoinsWanted } from '@/core/footage/found-joins';
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
import { acrossTrack, gone, graysOf, looked } from './task-pictures';

/** pixels across in which takes are held against each other, and pictures of each at the most: of a longer one every second, or fewer */
const [across, mostLooked] = [160, 700];
/** joins that are wanted */
const wantedJoins = 12;

/** Joins of two files, the pictures at which they lie, and of how many pictures of each one was looked at first. */
export type FoundJoins = { joins: FoundJoin[]; sheet: ShotSheet; pictures: Blob; steps: [number, number] };

/** Of takes that are too short nothing is shown. */
const noSheet: ShotSheet = { columns: 0, count: 0, width: 0, height: 0 };

type Gray = GrayImage & { data: Uint8Array };

/** A file's pictures that are looked at, and which of them each one is. */
type Seen = { pictures: Gray[]; step: number };

async function seenOf(footage: Footage, { media, times }: Source, onProgress: Progress): Promise<Seen> {
  const within = looked(times, 0, Infinity, mostLooked);
  const pictures: Gray[] = [];
  for await (const picture of graysOf(footage, media, within, across, onProgress))
    pictures.push(picture as Gray);
  return { pictures, step: Math.max(1, Math.ceil(times.length / mostLooked)) };
}

/** Pictures of a file from one to another, as far as there are some, and the first one's index. */
async function roundOf(
  footage: Footage,
  { media, times }: Source,
  from: number,
  until: number,
): Promise<{ pictures: Gray[]; first: number }> {
  const first = Math.max(0, from);
  const within = [...times.subarray(first, until + 1)];
  const pictures: Gray[] = [];
  for await (const picture of graysOf(footage, media, within, across, () => undefined))
    pictures.push(picture as Gray);
  return { pictures, first };
}

/** How a file's picture moves to the next one, or where there is none as near as can be told. */
function panAt(pictures: readonly Gray[], at: number) {
  const from = Math.max(0, Math.min(at, pictures.length - 2));
  return panBetween(pictures[from], pictures[from + 1]);
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
  { over, part, moving }: JoinsWanted,
  onProgress: Progress,
): Promise<FoundJoins> {
  const [one, other] = sources;
  const footage = footageOf(sources);
  try {
    const isOne = one.media === other.media;
    const first = await seenOf(footage, one, (share) => onProgress((isOne ? 0.8 : 0.4) * share));
    const second = isOne ? first : await seenOf(footage, other, (share) => onProgress(0.4 + 0.4 * share));
    const [{ width, height }] = first.pictures;
    const [next] = second.pictures;
    if (next.width !== width || next.height !== height)
      refuse(
        'shapes-differ',
        'These two takes have different shapes. Choose two of one shape, or cut one of them to the other’s and bring it in again.',
      );
    const { x, y, width: wide, height: tall } = joinParts[part];
    const region = { x: x * width, y: y * height, width: wide * width, height: tall * height };
    const rough = joinsOf(first.pictures, second.pictures, {
      region,
      moving,
      // Where pictures are left out, those that are looked at lie further apart.
      over: Math.max(1, Math.round(over / Math.max(first.step, second.step))),
      limit: wantedJoins,
    });
    const all: FoundJoin[] = [];
    for (const [index, join] of rough.entries()) {
      const found =
        first.step === 1 && second.step === 1
          ? placed(sources, join, pansAt(first.pictures, second.pictures, join))
          : await exactly(footage, sources, [first, second], join, { region, over });
      all.push({ ...found, off: await setOff(footage, sources, found) });
      onProgress(0.8 + (0.15 * (index + 1)) / rough.length);
    }
    // Looked at exactly, two of them may come to lie beside each other.
    const joins = distinctJoins(all.sort((a, b) => a.cost - b.cost));
    const steps: FoundJoins['steps'] = [first.step, second.step];
    if (joins.length === 0) return { joins, sheet: noSheet, pictures: new Blob(), steps };
    const drawn = await drawSheet(2 * joins.length, 2, async (index) => {
      footage.release();
      const side = index % 2;
      const picture = await footage.at(sources[side].media, joins[index >> 1].seconds[side] + 1e-6);
      return picture ?? gone();
    });
    return { joins, ...drawn, steps };
  } finally {
    await footage.close();
  }
}

/** The best join near one of pictures of which some were left out, looked for in all of them. */
async function exactly(
  footage: Footage,
  sources: readonly [Source, Source],
  seen: readonly [Seen, Seen],
  join: Join,
  how: { region: { x: number; y: number; width: number; height: number }; over: number },
): Promise<Placed> {
  const reach = Math.max(...seen.map(({ step }) => step));
  const round = (side: 0 | 1, index: number) => {
    const at = index * seen[side].step;
    return roundOf(footage, sources[side], at - reach, at + reach + how.over);
  };
  const [a, b] = [await round(0, join.a), await round(1, join.b)];
  const [near] = joinsOf(a.pictures, b.pictures, { ...how, limit: 1 });
  const pans = pansAt(a.pictures, b.pictures, near);
  return placed(sources, { ...near, a: a.first + near.a, b: b.first + near.b }, pans);
}

/** A join as far as it is told by pictures that were looked at. */
type Placed = Omit<FoundJoin, 'off'>;
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
  const pictures: Gray[] = [];
  for (const [side, { media }] of sources.entries())
    for await (const picture of graysOf(footage, media, [seconds[side]], acrossTrack, () => undefined))
      pictures.push(picture as Gray);
  const [one, other] = pictures;
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
    for (let step = -Math.min(each, a); step < last; step++) {
      const shows = step < 0 ? await imageAt(0, a + step) : await imageAt(1, b + step);
      const isMixed = over > 1 && step >= 0 && step < over && a + step < sources[0].times.length;
      const behind = isMixed ? await imageAt(0, a + step) : null;
      const canvas = new OffscreenCanvas(shows.width, shows.height);
      const paper = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
      if (behind) {
        paper.drawImage(await createImageBitmap(behind), 0, 0);
        paper.globalAlpha = (step + 1) / (over + 1);
        paper.drawImage(await createImageBitmap(shows), 0, 0);
      } else paper.putImageData(shows, 0, 0);
      images.push(canvas.transferToImageBitmap());
    }
    return images;
  } finally {
    await footage.close();
  }
}
