import type { Point } from '../geometry/size';
import { headNear, type Head } from '../people/head';
import type { GrayImage } from '../picture/image';
import type { VeilPlace } from '../picture/veil';
import { pictureAt } from './picture-times';
import { followPatch } from './track/patch';
import { trackThrough, type Followed, type TrackPoint } from './track/track';

/** Somebody who is to be hidden, followed from where they were tapped. */
export type VeilTask = {
  is: 'veil';
  media: string;
  /** seconds of the take between which they are followed */
  from: number;
  until: number;
  /** on their head, in shares of the take's picture */
  taps: TrackPoint[];
  /** how far the head reaches to each side where it was tapped, as a share of the picture's width */
  reach: number;
};

/** Looks for heads near where one should be, in the pictures of some indices. */
export type HeadFinder = {
  indices: readonly number[];
  /** @param reach of the head that is looked for */
  heads: (index: number, at: Point, reach: number) => Promise<readonly Head[]>;
};

/** Where a hidden head is, and how far that can be believed. Seconds of the take. */
export type VeilTrack = {
  /** rising */
  places: VeilPlace[];
  /** from when on it was not found for a while, though it was last seen inside the picture */
  lost: number[];
  /** pictures in which people were looked for; null where what finds them is not here */
  looks: number | null;
  /** of those, the ones in which the head was found under the veil */
  met: number;
  /** when another head was found close to the veil: it may be the one that is hidden, or may take the veil along */
  beside: number[];
  /** when a head was found after it was lost, that may be another one's */
  again: number[];
};

/** seconds for which a head may go unfound without a word: the veil grows as long */
const unsaid = 0.5;
/** of the veil's reach: how far off a head found may lie that is the one followed, once it was lost, and what is close */
const [under, near, close] = [0.6, 2, 2.5];

/** What is followed from a tap, and what is seen on the way. */
type Way = {
  pictures: readonly GrayImage[];
  times: ArrayLike<number>;
  reach: number;
  looks: HeadFinder;
  /** heads by the picture that they were found in */
  seen: Map<number, readonly Head[]>;
  again: number[];
};
type HeadTap = TrackPoint & { reach: number };
type Begin = { index: number; at: Point };

/** The head that was tapped; null where none is found there: what else is found on the way is then another one. */
async function tappedHead({ pictures, reach, looks, seen }: Way, { index, at }: Begin): Promise<Head | null> {
  if (!looks.indices.includes(index)) return null;
  const heads = seen.get(index) ?? (await looks.heads(index, at, reach));
  seen.set(index, heads);
  return headNear(heads, at, under * reach, pictures[index].width / pictures[index].height);
}

/** Further taps on a way through the pictures: where a head was found close to where the followed one should be. */
async function headsOnTheWay(way: Way, begin: Begin, end: number): Promise<HeadTap[]> {
  const { pictures, times, reach, looks, seen, again } = way;
  const { width, height } = pictures[0];
  const step = end < begin.index ? -1 : 1;
  const around = Math.max(6, reach * width);
  const found: HeadTap[] = [];
  const followFrom = (index: number, [x, y]: Point) =>
    followPatch(pictures[index], [x * width, y * height], around);
  const isKnown = (await tappedHead(way, begin)) !== null;
  let [at, isHere, follow] = [begin.at, true, followFrom(begin.index, begin.at)];
  for (let index = begin.index + step; step * (end - index) > 0; index += step) {
    const place = isHere ? follow(pictures[index]) : null;
    isHere = place !== null;
    if (place) at = [place.x / width, place.y / height];
    if (!looks.indices.includes(index)) continue;
    const heads = await looks.heads(index, at, reach);
    seen.set(index, heads);
    const head = isKnown && headNear(heads, at, reach * (isHere ? under : near), width / height);
    if (!head) continue;
    if (!isHere) again.push(times[index]);
    found.push({ time: times[index], at: head.at, reach: head.reach });
    [at, isHere, follow] = [head.at, true, followFrom(index, head.at)];
  }
  return found;
}

/** The widest of some places and those beside it, so that a veil does not breathe. */
const steadied = (places: readonly VeilPlace[]): VeilPlace[] =>
  places.map((place, index) => ({
    ...place,
    reach: Math.max(...places.slice(Math.max(0, index - 3), index + 4).map(({ reach }) => reach)),
  }));

/** When somebody was not found for a while who had not left the picture. */
function lostIn(places: readonly VeilPlace[], times: ArrayLike<number>, ratio: number): number[] {
  const leaves = ({ at: [x, y], reach }: VeilPlace) =>
    x < 1.5 * reach || x > 1 - 1.5 * reach || y < 1.5 * reach * ratio || y > 1 - 1.5 * reach * ratio;
  const [first, last] = [places[0], places[places.length - 1]];
  const [begin, end] = [times[0], times[times.length - 1]];
  const lost = places.flatMap((place, index) => {
    const next = places[index + 1];
    // Whoever leaves on one side may come back on the other.
    return next && next.time - place.time > unsaid && !(leaves(place) && leaves(next)) ? [place.time] : [];
  });
  return [
    ...(first.time - begin > unsaid && !leaves(first) ? [begin] : []),
    ...lost,
    ...(end - last.time > unsaid && !leaves(last) ? [last.time] : []),
  ];
}

/**
 * Follows a head that is to be hidden, by what it looks like and by the heads that are found now and then: it turns,
 * and comes back.
 * @param pictures one after the other, of one size
 * @param times of each, in seconds, rising
 * @param taps in order, within those times; one at least
 * @param looks null where nothing finds heads
 */
export async function followVeil(
  pictures: readonly GrayImage[],
  times: ArrayLike<number>,
  taps: readonly TrackPoint[],
  reach: number,
  looks: HeadFinder | null,
): Promise<VeilTrack> {
  if (pictures.length === 0 || taps.length === 0)
    return { places: [], lost: [], looks: looks && 0, met: 0, beside: [], again: [] };
  const ratio = pictures[0].width / pictures[0].height;
  const shown = Float64Array.from(times);
  const begins = taps.map(({ time, at }) => ({ index: pictureAt(shown, time), at }));
  const seen = new Map<number, readonly Head[]>();
  const again: number[] = [];
  const onTheWay: HeadTap[] = [];
  let isKnown = false;
  if (looks) {
    const way: Way = { pictures, times, reach, looks, seen, again };
    onTheWay.push(...(await headsOnTheWay(way, begins[0], -1)));
    for (const [tap, begin] of begins.entries())
      onTheWay.push(...(await headsOnTheWay(way, begin, begins[tap + 1]?.index ?? pictures.length)));
    // How large a veil was made by hand stays so as the head grows: so many times what is found of the head.
    const first = await tappedHead(way, begins[0]);
    isKnown = first !== null;
    if (first) for (const one of onTheWay) one.reach *= reach / first.reach;
  }
  const all = [...taps.map((tap): HeadTap => ({ ...tap, reach })), ...onTheWay].sort(
    (one, other) => one.time - other.time,
  );
  const { points } = trackThrough(pictures, times, all, reach);
  const placed = ({ time, at, tap, scale }: Followed): VeilPlace => ({
    time,
    at,
    reach: all[tap].reach * scale,
  });
  const places = steadied(points.map(placed));
  let met = 0;
  const beside: number[] = [];
  for (const [index, heads] of seen) {
    const place = places.find(({ time }) => time === times[index]);
    if (!place) continue;
    const apart = heads.map(
      ({ at }) => Math.hypot(at[0] - place.at[0], (at[1] - place.at[1]) / ratio) / place.reach,
    );
    const isMet = apart.some((one) => one <= under);
    // A head under the veil says something only of somebody whose head was tapped.
    if (isMet && isKnown) met++;
    if (apart.filter((one) => one <= close).length > (isMet ? 1 : 0)) beside.push(times[index]);
  }
  const rising = (seconds: number[]) => seconds.sort((one, other) => one - other);
  return {
    places,
    lost: lostIn(places, times, ratio),
    looks: looks && seen.size,
    met,
    beside: rising(beside),
    again: rising(again),
  };
}
