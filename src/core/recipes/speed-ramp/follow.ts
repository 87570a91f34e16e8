import { invertAffine, mapPoint } from '../../geometry/affine';
import type { Framed, Point } from '../../geometry/size';
import type { Track, TrackPoint } from '../../footage/track/track';
import { fillOf, inOrder, tappedAt, tapsOf, type Tap } from '../../model/slots';
import { fewestKeyframes, still } from '../../motion/keyframes';
import { fillFrame, type Transform } from '../../picture/node';
import type { Material } from '../material';
import { passSlot } from './slots';

/** delivery pixels that a followed point may lie beside where it is held */
const tolerance = 0.2;
/** the most that following enlarges; a point that goes further is held as far as that allows */
const mostEnlarged = 3;

type Filled = Parameters<typeof fillOf>[0];

/** The taps on the followed point, by their seconds; in shares of the frame. */
export const tapsToFollow = (moment: Filled): Tap[] => inOrder(tapsOf(fillOf(moment, passSlot.key)));

/** The work that follows a tapped point through the take. */
export const trackWork = 'track';

/** The frame of the film as shares of the take's picture, and the way back: a picture of another shape is cut off. */
function pictureIn({ takes }: Material, frame: Framed) {
  const source = takes[passSlot.key]?.measure?.size ?? frame;
  const { matrix } = fillFrame(source, frame);
  const back = invertAffine(matrix);
  return {
    toPicture: ([x, y]: Point): Point => {
      const [px, py] = mapPoint(back, [x * frame.width, y * frame.height]);
      return [px / source.width, py / source.height];
    },
    toFrame: ([x, y]: Point): Point => {
      const [px, py] = mapPoint(matrix, [x * source.width, y * source.height]);
      return [px / frame.width, py / frame.height];
    },
  };
}

/** The taps, in shares of the take's picture. */
export const tapsInPicture = (moment: Filled, material: Material, frame: Framed): TrackPoint[] =>
  tapsToFollow(moment).map(({ time, at }) => ({ time, at: pictureIn(material, frame).toPicture(at) }));

/** Where the point was found, in shares of the take's picture; null while nobody looked. */
export const trackIn = (solved: Material['solved']): Track | null => {
  const answer = solved[trackWork];
  return answer?.method === 'track-2' ? answer.track : null;
};

/** Where the followed point is in the take: where it was found between the taps, else where it was tapped. */
export const followedPoints = (moment: Filled, material: Material, frame: Framed): TrackPoint[] => {
  const taps = tapsToFollow(moment);
  const found = taps.length > 0 ? (trackIn(material.solved)?.points ?? []) : [];
  if (found.length < 2) return taps;
  const { toFrame } = pictureIn(material, frame);
  return found.map(({ time, at }) => ({ time, at: toFrame(at) }));
};

/** True where a point is followed: it is known where it is on two pictures at least. */
export const isFollowing = (moment: Filled, material: Material, frame: Framed): boolean =>
  followedPoints(moment, material, frame).length > 1;

/** The middle of what a coordinate reaches over. */
const middleOf = (values: readonly number[]): number => (Math.min(...values) + Math.max(...values)) / 2;

/**
 * What holds a followed point still: the picture is pushed against its movement, and enlarged so that no edge shows.
 * @param seconds of the take at each frame from `from` on
 * @returns nothing where no point is followed
 */
export function following(
  moment: Filled,
  material: Material,
  seconds: readonly number[],
  from: number,
  frame: Framed,
): { step: Transform[]; enlarged: number } {
  const points = followedPoints(moment, material, frame);
  const { width, height } = frame;
  if (points.length < 2) return { step: [], enlarged: 1 };
  const at = seconds.map((one) => tappedAt(points, one));
  const off = ([0, 1] as const).map((axis) => {
    const held = middleOf(at.map((point) => point[axis]));
    const most = (1 - 1 / mostEnlarged) / 2;
    return at.map((point) => Math.min(most, Math.max(-most, held - point[axis])));
  });
  // A point half a frame off the middle would need a picture that is infinitely large.
  const furthest = Math.max(...off.flat().map(Math.abs));
  const enlarged = (1 / (1 - 2 * furthest)) * (1 + (4 * tolerance) / Math.min(width, height));
  const [x, y] = [width, height].map((side, axis) =>
    fewestKeyframes(
      off[axis].map((share) => share * side * enlarged),
      from,
      tolerance,
    ),
  );
  const size = { width, height };
  return {
    step: [{ is: 'move', size, x, y, rotation: still(0), scale: still(enlarged), undone: false }],
    enlarged,
  };
}
