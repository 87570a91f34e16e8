import type { Point } from '../geometry/size';
import { isSeen, statureIn, type Pose } from './pose';

/** A head in a picture: its middle in shares of it, and how far it reaches to each side, as a share of the width. */
export type Head = { at: Point; reach: number };

/** Nose, eyes, ears and mouth; what of them is not seen is left out. */
const face = Array.from({ length: 11 }, (_, joint) => joint);
const [ears, eyesAndMouth] = [
  [7, 8],
  [1, 2, 3, 4, 5, 6, 9, 10],
];

/** Height of a head as a share of the stature. Drillis & Contini 1966 (from memory). */
const headOfStature = 0.13;
/** hair, chin and neck lie round what is found of a face: so many times as far from its middle. Common practice, no published source */
const room = 1.5;
/** a face as wide as from one of its outermost found points to the middle is this many times as tall */
const roundFace = 1.6;

/**
 * Where somebody's head is.
 * @param ratio the picture's width by its height
 * @returns null where nothing of a face is found in the picture
 */
export function headOf(pose: Pose, ratio: number): Head | null {
  const found = face.map((joint) => pose[joint]).filter(isSeen);
  if (found.length < 3) return null;
  // Between both ears lies the middle of a head; of a face from the side, and where one ear is made up, that of all.
  const sides = ears.map((joint) => pose[joint]).filter(isSeen);
  const whole = sides.length === 2 ? sides : found;
  const mean = (of: (joint: { x: number; y: number }) => number) =>
    whole.reduce((sum, one) => sum + of(one), 0) / whole.length;
  const at: Point = [mean(({ x }) => x), mean(({ y }) => y)];
  const far = (joint: { x: number; y: number }) => Math.hypot((joint.x - at[0]) * ratio, joint.y - at[1]);
  const features = eyesAndMouth.map((joint) => pose[joint]).filter(isSeen);
  const reach = Math.max(
    (headOfStature / 2) * (statureIn(pose, ratio) ?? 0),
    (roundFace / room) * Math.max(...features.map(far), ...sides.map(far), 0),
  );
  return { at, reach: (room * reach) / ratio };
}

/** The heads of some people. @param ratio the picture's width by its height */
export const headsOf = (poses: readonly Pose[], ratio: number): Head[] =>
  poses.flatMap((pose) => headOf(pose, ratio) ?? []);

const apartOf = (head: Head, [x, y]: Point, ratio: number) =>
  Math.hypot(head.at[0] - x, (head.at[1] - y) / ratio);

/** The head that lies under a point; null where none does. @param ratio the picture's width by its height */
export function headUnder(heads: readonly Head[], at: Point, ratio: number): Head | null {
  const under = heads.filter((head) => apartOf(head, at, ratio) <= head.reach);
  return under.length === 0
    ? null
    : under.reduce((one, other) => (apartOf(other, at, ratio) < apartOf(one, at, ratio) ? other : one));
}

/**
 * The head that is meant by a point; null where none lies near enough, or two lie about as near.
 * @param within how far it may lie off, as a share of the picture's width
 * @param ratio the picture's width by its height
 */
export function headNear(heads: readonly Head[], at: Point, within: number, ratio: number): Head | null {
  const near = heads
    .map((head) => ({ head, apart: apartOf(head, at, ratio) }))
    .filter(({ apart }) => apart <= within)
    .sort((one, other) => one.apart - other.apart);
  const [first, second] = near;
  if (!first || (second && second.apart < 2 * first.apart)) return null;
  return first.head;
}
