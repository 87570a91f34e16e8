import { plus, type Vector } from './vector';

/** Where the joints of a figure of 1.78 m are, in metres: its feet on the ground below [0, 0, 0], its face towards the camera. */
export type Stance = Record<
  `shoulder${Side}` | `elbow${Side}` | `wrist${Side}` | `hip${Side}` | `knee${Side}` | `ankle${Side}`,
  Vector
> & {
  /** where the whole figure is */
  at: Vector;
};

/** as the camera sees it */
type Side = 'Left' | 'Right';

/** Stands at ease, the hands beside it. */
export const standing: Stance = {
  at: [0, 0, 0],
  shoulderLeft: [-0.17, 1.42, 0],
  shoulderRight: [0.17, 1.42, 0],
  elbowLeft: [-0.26, 1.15, 0],
  elbowRight: [0.26, 1.15, 0],
  wristLeft: [-0.29, 0.9, 0.08],
  wristRight: [0.29, 0.9, 0.08],
  hipLeft: [-0.09, 0.92, 0],
  hipRight: [0.09, 0.92, 0],
  kneeLeft: [-0.11, 0.5, 0.03],
  kneeRight: [0.11, 0.5, 0.03],
  ankleLeft: [-0.12, 0.08, -0.02],
  ankleRight: [0.12, 0.08, -0.02],
};

/** One arm stretched out to the right, the hand at the height of the eyes. */
export const reaching: Stance = {
  ...standing,
  elbowRight: [0.43, 1.46, 0.04],
  wristRight: [0.65, 1.6, 0.08],
};

/** Dances on the spot, so far through its two steps (0..1): the weight from foot to foot, one arm up while the other goes down. */
export function dancing(share: number): Stance {
  const swing = Math.sin(2 * Math.PI * share);
  const joints = (side: -1 | 1) => {
    const turn = side * swing;
    const lifted = 0.12 * Math.max(0, turn);
    const across = (metres: number) => side * metres;
    return {
      elbow: [across(0.42), 1.28 + 0.16 * turn, 0.05] as Vector,
      wrist: [across(0.52 + 0.08 * turn), 1.3 + 0.36 * turn, 0.12] as Vector,
      knee: [across(0.15 + 0.05 * turn), 0.5 + lifted / 2, 0.06 + lifted] as Vector,
      ankle: [across(0.18 + 0.06 * turn), 0.08 + lifted, -0.02] as Vector,
    };
  };
  const [left, right] = [joints(-1), joints(1)];
  return {
    ...standing,
    at: [0.06 * swing, 0, 0],
    elbowLeft: left.elbow,
    wristLeft: left.wrist,
    kneeLeft: left.knee,
    ankleLeft: left.ankle,
    elbowRight: right.elbow,
    wristRight: right.wrist,
    kneeRight: right.knee,
    ankleRight: right.ankle,
  };
}

/** The same stance elsewhere. */
export const standingAt = (stance: Stance, at: Vector): Stance => ({ ...stance, at: plus(stance.at, at) });
