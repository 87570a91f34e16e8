import { bodyParts, type BodyPart, type Joint, type Pose } from '../pose';

/** Width by height of the pictures. */
export const ratio = 16 / 9;
/** Metres that a picture is high where the body of these tests stands, and that it is tall. */
export const [high, stature] = [3.4, 1.7];

/**
 * Somebody upright who fills half the picture's height, the arms hanging: heights and lengths as shares of the stature,
 * Drillis and Contini 1966 (from memory).
 */
export const upright: Record<BodyPart, [number, number]> = {
  head: [0, 0.93],
  'left shoulder': [0.1, 0.818],
  'right shoulder': [-0.1, 0.818],
  'left elbow': [0.1, 0.632],
  'right elbow': [-0.1, 0.632],
  'left hand': [0.1, 0.486],
  'right hand': [-0.1, 0.486],
  'left hip': [0.1, 0.53],
  'right hip': [-0.1, 0.53],
  'left knee': [0.1, 0.285],
  'right knee': [-0.1, 0.285],
  'left foot': [0.1, 0.039],
  'right foot': [-0.1, 0.039],
};

type Moved = Partial<Record<BodyPart, [right: number, down: number]>>;

/** That body moved as a whole and in parts, metres to the right and down, and drawn so many times as large. */
export function body({ by = [0, 0], size = 1, parts = {} as Moved, hidden = [] as BodyPart[] } = {}): Pose {
  const pose: Joint[] = [];
  for (const [part, joints] of Object.entries(bodyParts) as [BodyPart, readonly number[]][]) {
    const [aside, up] = upright[part];
    const [right, down] = parts[part] ?? [0, 0];
    const x = aside * stature + by[0] + right;
    const y = 0.9 - up * stature + by[1] + down;
    for (const joint of joints)
      pose[joint] = {
        x: 0.5 + (size * x) / high / ratio,
        y: 0.5 + (size * y) / high,
        seen: hidden.includes(part) ? 0.2 : 0.95,
      };
  }
  // Joints that no part is told by lie in the face.
  for (let joint = 0; joint < 33; joint++) pose[joint] ??= pose[0];
  return pose;
}
