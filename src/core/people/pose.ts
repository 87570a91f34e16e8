/** A point of somebody's body in a picture: shares of its width and height, and how surely it is seen, 0..1. */
export type Joint = { x: number; y: number; seen: number };

/**
 * Where somebody's body is in a picture: 33 joints in the order of the BlazePose model (Bazarevsky and others 2020),
 * left and right being the person's own.
 */
export type Pose = readonly Joint[];

/** Parts of a body as people name them, by the joints that show where they are. */
export const bodyParts = {
  head: [0, 2, 5, 7, 8],
  'left shoulder': [11],
  'right shoulder': [12],
  'left elbow': [13],
  'right elbow': [14],
  'left hand': [15, 17, 19, 21],
  'right hand': [16, 18, 20, 22],
  'left hip': [23],
  'right hip': [24],
  'left knee': [25],
  'right knee': [26],
  'left foot': [27, 29, 31],
  'right foot': [28, 30, 32],
} as const;
export type BodyPart = keyof typeof bodyParts;

/** Pairs of joints with a bone between them, as shares of the stature that it takes. */
const bones: readonly { joints: readonly [number, number]; share: number }[] = [
  { joints: [11, 13], share: 0.186 },
  { joints: [12, 14], share: 0.186 },
  { joints: [13, 15], share: 0.146 },
  { joints: [14, 16], share: 0.146 },
  { joints: [11, 23], share: 0.288 },
  { joints: [12, 24], share: 0.288 },
  { joints: [23, 25], share: 0.245 },
  { joints: [24, 26], share: 0.245 },
  { joints: [25, 27], share: 0.246 },
  { joints: [26, 28], share: 0.246 },
];

/** Lines that draw a body: its bones, and what joins them. */
export const bodyLines: readonly (readonly [number, number])[] = [
  ...bones.map(({ joints }) => joints),
  [11, 12],
  [23, 24],
  [27, 31],
  [28, 32],
];

/** From here on a joint is believed to be where it is said to be. */
const surelySeen = 0.5;
export const isSeen = ({ x, y, seen }: Joint): boolean =>
  seen >= surelySeen && x >= 0 && x <= 1 && y >= 0 && y <= 1;

/** The middle of a part's joints; null where one of them is not seen, or lies outside the picture. */
export function partAt(pose: Pose, part: BodyPart): Joint | null {
  const joints = bodyParts[part].map((joint) => pose[joint]);
  if (!joints.every(isSeen)) return null;
  const mean = (of: (joint: Joint) => number) =>
    joints.reduce((sum, one) => sum + of(one), 0) / joints.length;
  return { x: mean(({ x }) => x), y: mean(({ y }) => y), seen: Math.min(...joints.map(({ seen }) => seen)) };
}

/** Height of the eyes over the ankles as a share of the stature. */
const eyesOverAnkles = 0.936 - 0.039;

/**
 * How tall somebody would be in the picture if they stood upright, as a share of its height: as the second longest of
 * their bones for its kind has it, or their whole length where that is more, since what is bent or points at the lens
 * is only ever drawn shorter, and one bone alone may be wrong. Shares of the stature: Drillis and Contini 1966 (from
 * memory).
 * @param ratio the picture's width by its height
 * @returns null where too little is seen
 */
export function statureIn(pose: Pose, ratio: number): number | null {
  const apart = (a: Joint, b: Joint) => Math.hypot((a.x - b.x) * ratio, a.y - b.y);
  const said = bones
    .filter(({ joints }) => joints.every((joint) => isSeen(pose[joint])))
    .map(({ joints: [a, b], share }) => apart(pose[a], pose[b]) / share)
    .sort((a, b) => b - a);
  if (said.length < 2) return null;
  const whole = (
    [
      [2, 27],
      [5, 28],
    ] as const
  )
    .filter((ends) => ends.every((joint) => isSeen(pose[joint])))
    .map(([eye, ankle]) => apart(pose[eye], pose[ankle]) / eyesOverAnkles);
  return Math.max(said[1], ...whole);
}

/** What somebody stands on: ankles, heels and toes. */
const feet = [27, 28, 29, 30, 31, 32];

/**
 * How low the feet reach of whoever is the tallest of some people in a picture.
 * @returns share of the picture's height, downwards; NaN where none of their feet is seen
 */
export function feetOf(poses: readonly Pose[]): number {
  const tall = poses.map((pose) => {
    const heights = pose.filter(isSeen).map(({ y }) => y);
    return { pose, height: Math.max(...heights) - Math.min(...heights) };
  });
  const [tallest] = tall.sort((a, b) => b.height - a.height);
  const seen = tallest ? feet.map((joint) => tallest.pose[joint]).filter(isSeen) : [];
  return seen.length > 0 ? Math.max(...seen.map(({ y }) => y)) : NaN;
}
