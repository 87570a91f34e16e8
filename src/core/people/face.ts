import type { Size } from '../geometry/size';
import type { RgbaImage } from '../picture/image';
import { isSeen, type Pose } from './pose';

/** A square round a face: its middle and its side in pixels of the picture, and by how much the head leans, radians clockwise. */
export type FaceBox = { x: number; y: number; side: number; lean: number };

/** Pixels of the square in which a face's points are looked for: those that the model was taught with. */
export const faceSide = 192;

/** What the model tells of a square: points of a face as x, y, depth, of its lips as x, y, and how likely it is one (above 0: rather). */
export type FaceTold = { points: ArrayLike<number>; lips: ArrayLike<number>; likely: number };

/** A face that was found: where to look for it in the next picture, and how far its mouth is open, as a share of the distance between the eyes' outer corners. */
export type FaceFound = { next: FaceBox; open: number };

const [leftEye, rightEye, mouth] = [[2], [5], [9, 10]];
/** The square as a multiple of the distance from eyes to mouth, and how far below the eyes its middle lies in such lengths. Measured at a photographed face with the square that follows from its points. */
const [sideOfFace, belowEyes] = [4.2, 0.33];
/** between the eyes is so much of the way from them to the mouth; of whoever looks aside it is less */
const acrossOfDown = 0.95;
/** The square is so many times as large as what the points of a face cover (Kartynnik and others 2019, from memory). */
const roomRound = 1.5;

/**
 * Where somebody's face is by their body.
 * @param size of the picture in pixels
 * @returns null where an eye or the mouth is not seen
 */
export function faceBoxOf(pose: Pose, { width, height }: Size): FaceBox | null {
  const parts = [leftEye, rightEye, mouth].map((joints) => joints.map((joint) => pose[joint]));
  if (!parts.flat().every(isSeen)) return null;
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [left, right, lips] = parts.map((joints) => ({
    x: width * mean(joints.map(({ x }) => x)),
    y: height * mean(joints.map(({ y }) => y)),
  }));
  const eyes = { x: (left.x + right.x) / 2, y: (left.y + right.y) / 2 };
  const down = { x: lips.x - eyes.x, y: lips.y - eyes.y };
  const length = Math.max(
    Math.hypot(down.x, down.y),
    Math.hypot(left.x - right.x, left.y - right.y) / acrossOfDown,
  );
  return {
    x: eyes.x + belowEyes * down.x,
    y: eyes.y + belowEyes * down.y,
    side: sideOfFace * length,
    lean: Math.atan2(-down.x, down.y),
  };
}

/** The square round a face, upright and {@link faceSide} pixels wide; what lies outside the picture is black. */
export function cutFace({ width, height, data }: RgbaImage, { x, y, side, lean }: FaceBox): RgbaImage {
  const out = new Uint8ClampedArray(4 * faceSide * faceSide);
  const step = side / faceSide;
  const [across, down] = [step * Math.cos(lean), step * Math.sin(lean)];
  const half = (faceSide - 1) / 2;
  for (let row = 0, to = 0; row < faceSide; row++)
    for (let column = 0; column < faceSide; column++, to += 4) {
      const px = x + across * (column - half) - down * (row - half);
      const py = y + down * (column - half) + across * (row - half);
      out[to + 3] = 255;
      const [left, top] = [Math.floor(px), Math.floor(py)];
      if (left < 0 || top < 0 || left + 1 >= width || top + 1 >= height) continue;
      const [fx, fy] = [px - left, py - top];
      const at = 4 * (top * width + left);
      const below = at + 4 * width;
      for (let channel = 0; channel < 3; channel++) {
        const upper = data[at + channel] * (1 - fx) + data[at + 4 + channel] * fx;
        const lower = data[below + channel] * (1 - fx) + data[below + 4 + channel] * fx;
        out[to + channel] = upper * (1 - fy) + lower * fy;
      }
    }
  return { width: faceSide, height: faceSide, data: out };
}

/** The outer corners of the eyes among the face's points, and the inner edges of both lips among those of the lips, side by side. */
const corners = [33, 263];
const [lowerLip, upperLip] = [
  [21, 22, 23, 24, 25, 26, 27, 28, 29],
  [31, 32, 33, 34, 35, 36, 37, 38, 39],
];

/**
 * Reads what the model told of a square.
 * @param box the square, in the picture
 * @returns null where it shows no face
 */
export function readFace({ points, lips, likely }: FaceTold, box: FaceBox): FaceFound | null {
  if (!(likely > 0)) return null;
  const [one, other] = corners.map((corner) => [points[3 * corner], points[3 * corner + 1]]);
  const eyes = Math.hypot(other[0] - one[0], other[1] - one[1]);
  if (!(eyes > 0)) return null;
  const gap = lowerLip.reduce((sum, lower, at) => sum + lips[2 * lower + 1] - lips[2 * upperLip[at] + 1], 0);
  const range = (axis: number) => {
    let [least, most] = [Infinity, -Infinity];
    for (let at = axis; at < points.length; at += 3) {
      least = Math.min(least, points[at]);
      most = Math.max(most, points[at]);
    }
    return { middle: (least + most) / 2 - faceSide / 2, length: most - least };
  };
  const [across, down] = [range(0), range(1)];
  const step = box.side / faceSide;
  const [cos, sin] = [step * Math.cos(box.lean), step * Math.sin(box.lean)];
  return {
    next: {
      x: box.x + cos * across.middle - sin * down.middle,
      y: box.y + sin * across.middle + cos * down.middle,
      side: step * roomRound * Math.max(across.length, down.length),
      lean: box.lean + Math.atan2(other[1] - one[1], other[0] - one[0]),
    },
    open: gap / lowerLip.length / eyes,
  };
}
