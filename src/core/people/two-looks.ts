import { nearestPose } from './compare-poses';
import { statureIn, type Pose } from './pose';

/** Joints of the left side of a body and their partners of the right one; those in the middle are their own. */
const partner: readonly number[] = [
  0, 4, 5, 6, 1, 2, 3, 8, 7, 10, 9, 12, 11, 14, 13, 16, 15, 18, 17, 20, 19, 22, 21, 24, 23, 26, 25, 28, 27,
  30, 29, 32, 31,
];

/** A pose as a mirror shows it. */
export const mirroredPose = (pose: Pose): Pose =>
  partner.map((joint) => ({ ...pose[joint], x: 1 - pose[joint].x }));

/** Share of the stature from which on two looks at one joint say different things (measured: e2e/pose). */
const agreed = 0.03;

/**
 * Poses that two looks at one picture agree on, the second of them at its mirror image and turned back: each joint lies
 * midway, and counts as unseen where the looks differ. A model is as sure of a joint that it makes up, behind a prop or
 * below the picture's edge, as of one that it sees; made up twice, it lies elsewhere.
 * @param ratio the picture's width by its height
 */
export function agreeOn(first: readonly Pose[], second: readonly Pose[], ratio: number): Pose[] {
  return first.flatMap((pose) => {
    const other = nearestPose(pose, second);
    const stature = statureIn(pose, ratio);
    if (!other || stature === null) return [];
    return [
      pose.map((joint, index) => {
        const again = other[index];
        const apart = Math.hypot((joint.x - again.x) * ratio, joint.y - again.y);
        return {
          x: (joint.x + again.x) / 2,
          y: (joint.y + again.y) / 2,
          seen: apart <= agreed * stature ? Math.min(joint.seen, again.seen) : 0,
        };
      }),
    ];
  });
}
