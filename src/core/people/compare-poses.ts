import type { Point } from '../geometry/size';
import { median } from '../statistics';
import { bodyParts, partAt, statureIn, type BodyPart, type Pose } from './pose';

/** Where something of a body is and where it was before, in shares of the picture; and how far that is, in metres. */
export type Step = { from: Point; to: Point; right: number; down: number };
export type PartStep = Step & { part: BodyPart };

/** What is to be done to stand as before. */
export type PoseMatch = {
  /** everything together; null where it is in place */
  whole: Step | null;
  /** how many times as large the body was before; 1 where the distance is the same */
  size: number;
  /** parts that are elsewhere once the whole is in place, the furthest first */
  parts: PartStep[];
  /** parts that are not seen in both pictures */
  unseen: BodyPart[];
};

/** Metres from which on something is elsewhere: what the model itself is unsure of (measured: e2e/pose). */
const elsewhere = { whole: 0.03, part: 0.04 };
/** Share from which on a body is of another size. */
const anotherSize = 0.05;

const names = Object.keys(bodyParts) as BodyPart[];

/**
 * What tells a pose from one before it: the whole body's place and distance first, then what is elsewhere besides.
 * @param ratio width by height of both pictures
 * @param stature metres that the person is tall; lengths follow from it, in the plane that the body was in before
 * @returns null where fewer than three parts are seen in both
 */
export function comparePoses(earlier: Pose, now: Pose, ratio: number, stature: number): PoseMatch | null {
  const there = statureIn(earlier, ratio);
  const here = statureIn(now, ratio);
  const both = names.flatMap((part) => {
    const [to, from] = [partAt(earlier, part), partAt(now, part)];
    return to && from ? [{ part, to, from }] : [];
  });
  if (there === null || here === null || both.length < 3) return null;
  const grown = there / here;
  const size = Math.abs(grown - 1) < anotherSize ? 1 : grown;
  const middle = (of: (one: (typeof both)[number]) => number) => median(both.map(of));
  const centre: Point = [middle(({ from }) => from.x), middle(({ from }) => from.y)];
  // Where everything is to go: whatever one part did, the middle one of all parts does not follow it.
  const goal: Point = [
    middle(({ from, to }) => to.x - size * (from.x - centre[0])),
    middle(({ from, to }) => to.y - size * (from.y - centre[1])),
  ];
  const metres = stature / there;
  const step = (from: Point, to: Point): Step => ({
    from,
    to,
    right: (to[0] - from[0]) * ratio * metres,
    down: (to[1] - from[1]) * metres,
  });
  const whole = step(centre, goal);
  const parts = both.map(({ part, from, to }) => {
    const moved: Point = [goal[0] + size * (from.x - centre[0]), goal[1] + size * (from.y - centre[1])];
    return { part, ...step(moved, [to.x, to.y]) };
  });
  const far = ({ right, down }: Step) => Math.hypot(right, down);
  return {
    whole: far(whole) < elsewhere.whole ? null : whole,
    size,
    parts: parts.filter((one) => far(one) >= elsewhere.part).sort((a, b) => far(b) - far(a)),
    unseen: names.filter((part) => !both.some((one) => one.part === part)),
  };
}

/** The one of several poses that is nearest to a pose, by where their middles are; null for none. */
export function nearestPose(earlier: Pose, poses: readonly Pose[]): Pose | null {
  const middle = (pose: Pose): Point => [median(pose.map(({ x }) => x)), median(pose.map(({ y }) => y))];
  const [x, y] = middle(earlier);
  const away = (pose: Pose) => {
    const [px, py] = middle(pose);
    return Math.hypot(px - x, py - y);
  };
  return poses.length === 0 ? null : poses.reduce((best, one) => (away(one) < away(best) ? one : best));
}
