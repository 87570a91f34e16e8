import type { GrayImage, RgbaImage } from '../picture/image';
import type { Pose } from './pose';

/**
 * The program that finds people ends with an error where somebody is found in a picture whose width is no multiple of
 * this: it takes the rows of its mattes for as long as 16 bytes have room for.
 */
const fours = 4;

/** A picture as wide as the program takes it: its last column stands again as often as there is need. */
export function inFours(image: RgbaImage): RgbaImage {
  const { width, height, data } = image;
  const wide = fours * Math.ceil(width / fours);
  if (wide === width) return image;
  const out = new Uint8ClampedArray(4 * wide * height);
  for (let row = 0; row < height; row++) {
    const end = 4 * width * (row + 1);
    out.set(data.subarray(end - 4 * width, end), 4 * wide * row);
    for (let column = width; column < wide; column++)
      out.set(data.subarray(end - 4, end), 4 * (wide * row + column));
  }
  return { width: wide, height, data: out };
}

/** What was found in a picture made wider, in the picture as it was. @param width that it had */
export function asWide(
  { matte, poses }: { matte: GrayImage & { data: Float32Array }; poses: readonly Pose[] },
  width: number,
): { matte: GrayImage & { data: Float32Array }; poses: Pose[] } {
  const { width: wide, height, data } = matte;
  if (wide === width) return { matte, poses: [...poses] };
  const narrow = new Float32Array(width * height);
  for (let row = 0; row < height; row++)
    narrow.set(data.subarray(row * wide, row * wide + width), row * width);
  return {
    matte: { width, height, data: narrow },
    poses: poses.map((pose) => pose.map((joint) => ({ ...joint, x: (joint.x * wide) / width }))),
  };
}
