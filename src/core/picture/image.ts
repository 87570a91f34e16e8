import { refuse } from '../error';
import type { Bounds, Point, Size } from '../geometry/size';

/** One value a pixel, 0..255 full range, row-major. The centre of pixel (0, 0) is at (0.5, 0.5). */
export type GrayImage = {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray | Float32Array;
};
/** sRGB with alpha, 4 values a pixel, row-major. */
export type RgbaImage = { width: number; height: number; data: Uint8Array | Uint8ClampedArray };

/** Luma of full-range colours. Source: ITU-R BT.709. */
export const lumaOfRgb = ([red, green, blue]: readonly [number, number, number]): number =>
  0.2126 * red + 0.7152 * green + 0.0722 * blue;

/** BT.709 luma (code values) of a full-range picture. */
export function lumaOf(image: RgbaImage): GrayImage & { data: Float32Array } {
  const count = image.width * image.height;
  const data = new Float32Array(count);
  for (let index = 0, at = 0; index < count; index++, at += 4) {
    data[index] = 0.2126 * image.data[at] + 0.7152 * image.data[at + 1] + 0.0722 * image.data[at + 2];
  }
  return { width: image.width, height: image.height, data };
}

/** A picture as a mirror shows it. */
export function mirrorImage({ width, height, data }: RgbaImage): RgbaImage {
  const out = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const from = 4 * (y * width + x);
      out.set(data.subarray(from, from + 4), 4 * (y * width + width - 1 - x));
    }
  return { width, height, data: out };
}

/**
 * The pixels of a picture that a box touches.
 * @param box in shares of the picture, inside it
 * @returns with the pixel that is the new picture's upper left one
 */
export function cropImage(image: RgbaImage, box: Bounds): { image: RgbaImage; corner: Point } {
  const [left, top] = [Math.floor(box.left * image.width), Math.floor(box.top * image.height)];
  const width = Math.max(1, Math.min(image.width, Math.ceil(box.right * image.width)) - left);
  const height = Math.max(1, Math.min(image.height, Math.ceil(box.bottom * image.height)) - top);
  return {
    image: cutImage(image, { left, top, right: left + width, bottom: top + height }),
    corner: [left, top],
  };
}

/** The light of a picture within bounds that lie inside it. */
export function cutGray(
  { width, data }: GrayImage,
  { left, top, right, bottom }: Bounds,
): GrayImage & { data: Uint8Array } {
  const out = new Uint8Array((right - left) * (bottom - top));
  for (let row = top; row < bottom; row++)
    for (let column = left; column < right; column++)
      out[(row - top) * (right - left) + column - left] = data[row * width + column];
  return { width: right - left, height: bottom - top, data: out };
}

/** The pixels of a picture within bounds that lie inside it. */
export function cutImage(image: RgbaImage, { left, top, right, bottom }: Bounds): RgbaImage {
  const [width, height] = [right - left, bottom - top];
  const data = new Uint8ClampedArray(width * height * 4);
  for (let row = 0; row < height; row++) {
    const from = ((top + row) * image.width + left) * 4;
    data.set(image.data.subarray(from, from + width * 4), row * width * 4);
  }
  return { width, height, data };
}

/** @throws CoreError `empty-picture` or `picture-data` where the picture cannot be read */
export function checkPicture(
  image: { width: number; height: number; data: ArrayLike<number> },
  perPixel: number,
): void {
  if (!(image.width > 0 && image.height > 0))
    refuse('empty-picture', 'This picture has no size. Choose another one.');
  if (image.data.length < image.width * image.height * perPixel) {
    refuse('picture-data', 'This picture is shorter than its size says. Import the file again.');
  }
}

/** @throws CoreError `sizes-differ` where two pictures that belong together differ in size */
export function checkSameSize(a: Size, b: Size): void {
  if (a.width !== b.width || a.height !== b.height) {
    refuse(
      'sizes-differ',
      `One picture is ${a.width} × ${a.height}, the other ${b.width} × ${b.height}. Bring them to one size first.`,
    );
  }
}
