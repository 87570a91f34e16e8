import type { Point } from '../../geometry/size';
import type { GrayImage } from '../../picture/image';
import { followPatch } from './patch';

/** Where something is at a second of a take; shares of the picture. */
export type TrackPoint = { time: number; at: Point };

/** A point of a take that is followed from where it was tapped. */
export type TrackTask = {
  is: 'track';
  media: string;
  /** seconds of the take between which it is followed */
  from: number;
  until: number;
  taps: TrackPoint[];
};

/** Where a point was found, picture by picture, and the seconds at which it was lost. */
export type Track = { points: TrackPoint[]; lost: number[] };

/** share of the picture's width that belongs to a followed point, to each side */
const reachShare = 0.04;

/**
 * Follows a point through pictures: from each tap to the next one, where it arrives as it was tapped, and from the first
 * tap back. Where it is lost on the way, nothing is said until the next tap.
 * @param pictures one after the other, of one size
 * @param times of each, in seconds, rising
 * @param taps in order, within those times
 */
export function trackThrough(
  pictures: readonly GrayImage[],
  times: ArrayLike<number>,
  taps: readonly TrackPoint[],
): Track {
  if (pictures.length === 0 || taps.length === 0) return { points: [], lost: [] };
  const [{ width, height }] = pictures;
  const reach = Math.max(6, reachShare * width);
  const found = new Map<number, Point>();
  const lost: number[] = [];
  const indexOf = (time: number) => {
    let index = 0;
    while (index + 1 < pictures.length && times[index + 1] <= time + 1e-6) index++;
    return index;
  };
  /** Follows from one picture towards another, which it does not have to reach. */
  const walk = (start: number, end: number, at: Point): Point[] => {
    const step = end < start ? -1 : 1;
    const follow = followPatch(pictures[start], [at[0] * width, at[1] * height], reach);
    const path: Point[] = [at];
    for (let index = start + step; step * (end - index) >= 0; index += step) {
      const place = follow(pictures[index]);
      if (!place) {
        lost.push(times[index]);
        break;
      }
      path.push([place.x / width, place.y / height]);
    }
    return path;
  };
  const indices = taps.map(({ time }) => indexOf(time));
  taps.forEach(({ at }, tap) => {
    const start = indices[tap];
    const next = taps[tap + 1];
    const end = next ? indices[tap + 1] : pictures.length - 1;
    const path = walk(start, end, at);
    const arrives = next !== undefined && start + path.length - 1 === end && path.length > 1;
    const [left, down] = arrives
      ? [next.at[0] - path[path.length - 1][0], next.at[1] - path[path.length - 1][1]]
      : [0, 0];
    path.forEach(([x, y], step) => {
      const share = arrives ? step / (path.length - 1) : 0;
      found.set(start + step, [x + share * left, y + share * down]);
    });
  });
  walk(indices[0], 0, taps[0].at).forEach((point, step) => found.set(indices[0] - step, point));
  const points = [...found].sort(([one], [other]) => one - other);
  return {
    points: points.map(([index, at]) => ({ time: times[index], at })),
    lost: lost.sort((one, other) => one - other),
  };
}
