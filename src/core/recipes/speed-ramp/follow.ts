import type { Framed } from '../../geometry/size';
import { tappedAt } from '../../model/slots';
import { fewestKeyframes, still } from '../../motion/keyframes';
import type { Transform } from '../../picture/node';
import { followedPoints } from '../follow-point';
import type { Material } from '../material';
import { passSlot } from './slots';

/** delivery pixels that a followed point may lie beside where it is held */
const tolerance = 0.2;
/** the most that following enlarges; a point that goes further is held as far as that allows */
const mostEnlarged = 3;

type Filled = Parameters<typeof followedPoints>[0];

/** True where a point is followed: it is known where it is on two pictures at least. */
export const isFollowing = (moment: Filled, material: Material, frame: Framed): boolean =>
  followedPoints(moment, material, passSlot.key, frame).length > 1;

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
  const points = followedPoints(moment, material, passSlot.key, frame);
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
