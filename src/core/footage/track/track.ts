import type { Point } from '../../geometry/size';
import type { GrayImage } from '../../picture/image';
import { pictureAt } from '../picture-times';
import { followPatch } from './patch';

/** Where something is at a second of a take; shares of the picture. */
export type TrackPoint = { time: number; at: Point };

/** What is followed, found in a picture: where it is, and how it grew and turned since the tap that led there. */
export type Followed = TrackPoint & {
  /** of the taps, counted from 0 */
  tap: number;
  scale: number;
  /** degrees, clockwise */
  rotation: number;
};

/** A point of a take that is followed from where it was tapped. */
export type TrackTask = {
  is: 'track';
  media: string;
  /** seconds of the take between which it is followed */
  from: number;
  until: number;
  taps: TrackPoint[];
  /** share of the picture's width that belongs to it, to each side */
  reach: number;
};

/** Where a point was found, picture by picture, and the seconds at which it was lost. */
export type Track = { points: Followed[]; lost: number[] };

/** What belongs to a point that was tapped. @see TrackTask */
export const pointReach = 0.04;

/**
 * Follows a point through pictures: from each tap to the next one, where it arrives as it was tapped, and from the first
 * tap back. Where it is lost on the way, nothing is said until the next tap.
 * @param pictures one after the other, of one size
 * @param times of each, in seconds, rising
 * @param taps in order, within those times
 * @param reach share of the width that belongs to it, to each side
 */
export function trackThrough(
  pictures: readonly GrayImage[],
  times: ArrayLike<number>,
  taps: readonly TrackPoint[],
  reach = pointReach,
): Track {
  if (pictures.length === 0 || taps.length === 0) return { points: [], lost: [] };
  const [{ width, height }] = pictures;
  const around = Math.max(6, reach * width);
  const found = new Map<number, Followed>();
  const lost: number[] = [];
  /** Follows from one picture towards another, which it does not have to reach. */
  const walk = (start: number, end: number, tap: number): Followed[] => {
    const { at } = taps[tap];
    const step = end < start ? -1 : 1;
    const follow = followPatch(pictures[start], [at[0] * width, at[1] * height], around);
    const path: Followed[] = [{ time: times[start], at, tap, scale: 1, rotation: 0 }];
    for (let index = start + step; step * (end - index) >= 0; index += step) {
      const place = follow(pictures[index]);
      if (!place) {
        lost.push(times[index]);
        break;
      }
      const { x, y, scale, rotation } = place;
      path.push({ time: times[index], at: [x / width, y / height], tap, scale, rotation });
    }
    return path;
  };
  const shown = Float64Array.from(times);
  const indices = taps.map(({ time }) => pictureAt(shown, time));
  taps.forEach((_, tap) => {
    const start = indices[tap];
    const next = taps[tap + 1];
    const end = next ? indices[tap + 1] : pictures.length - 1;
    const path = walk(start, end, tap);
    const arrives = next !== undefined && start + path.length - 1 === end && path.length > 1;
    const [left, down] = arrives
      ? [next.at[0] - path[path.length - 1].at[0], next.at[1] - path[path.length - 1].at[1]]
      : [0, 0];
    path.forEach((one, step) => {
      const share = arrives ? step / (path.length - 1) : 0;
      const [x, y] = one.at;
      found.set(start + step, { ...one, at: [x + share * left, y + share * down] });
    });
  });
  walk(indices[0], 0, 0).forEach((one, step) => found.set(indices[0] - step, one));
  return {
    points: [...found].sort(([one], [other]) => one - other).map(([, one]) => one),
    lost: lost.sort((one, other) => one - other),
  };
}
