import type { Bezier } from './easing';

/**
 * How a move leaves a keyframe, and how it comes to the next: over which share of the time between them that end is
 * felt (0..1), and the speed there, 1 being the mean speed between the two.
 */
export type Influence = { share: number; speed: number };
export type Influences = { leaves: Influence; arrives: Influence };

/** A share of nothing says nothing of the speed. */
const speedOf = (rise: number, run: number): number => (run === 0 ? 0 : rise / run);

/**
 * The influences and speeds of a timing curve; a curve and its influences say the same.
 * @see CSS Easing Functions Level 1, cubic-bezier(): the two handles of the curve
 */
export const influencesOf = ([x1, y1, x2, y2]: Bezier): Influences => ({
  leaves: { share: x1, speed: speedOf(y1, x1) },
  arrives: { share: 1 - x2, speed: speedOf(1 - y2, 1 - x2) },
});

/** The timing curve with some influences and speeds. @see influencesOf */
export const curveOf = ({ leaves, arrives }: Influences): Bezier => [
  leaves.share,
  leaves.share * leaves.speed,
  1 - arrives.share,
  1 - arrives.share * arrives.speed,
];
