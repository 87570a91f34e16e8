import { invertAffine } from '../geometry/affine';
import { blendOver } from './blend';
import { gradeColour } from './grade';
import { checkPicture, type RgbaImage } from './image';
import { type Size } from '../geometry/size';
import type { DrawItem } from './layers';
import { rasterMask } from './mask';
import { cubicWeights } from './resample';

/** Four channels at a point of a picture, cubic, edges repeated. */
function sampleRgb(image: RgbaImage, px: number, py: number): [number, number, number] {
  const ix = Math.floor(px - 0.5);
  const iy = Math.floor(py - 0.5);
  const wx = cubicWeights(px - 0.5 - ix);
  const wy = cubicWeights(py - 0.5 - iy);
  const out: [number, number, number] = [0, 0, 0];
  for (let row = 0; row < 4; row++) {
    const y = Math.min(image.height - 1, Math.max(0, iy + row - 1));
    for (let column = 0; column < 4; column++) {
      const x = Math.min(image.width - 1, Math.max(0, ix + column - 1));
      const weight = wx[column] * wy[row];
      const at = (y * image.width + x) * 4;
      for (let channel = 0; channel < 3; channel++) out[channel] += weight * image.data[at + channel];
    }
  }
  return out;
}

/**
 * The reference painter: slow, exact, every blend mode. Other painters are compared with it.
 * @param pictures full-range picture for each item, of the item's own size
 * @returns an opaque picture of `size`
 */
export function paintFrame(
  items: readonly DrawItem[],
  pictures: readonly RgbaImage[],
  size: Size,
): RgbaImage {
  const canvas = new Float64Array(size.width * size.height * 3);
  items.forEach((item, index) => {
    const picture = pictures[index];
    checkPicture(picture, 4);
    const [a, b, c, d, e, f] = invertAffine(item.matrix);
    const mask = item.mask && rasterMask(item.mask.points, item.mask.feather, size);
    for (let y = 0; y < size.height; y++) {
      for (let x = 0; x < size.width; x++) {
        const pixel = y * size.width + x;
        const cover = (mask ? mask.data[pixel] / 255 : 1) * item.opacity;
        if (cover <= 0) continue;
        const px = a * (x + 0.5) + c * (y + 0.5) + e;
        const py = b * (x + 0.5) + d * (y + 0.5) + f;
        if (px < 0 || py < 0 || px > picture.width || py > picture.height) continue;
        let rgb = sampleRgb(picture, px, py);
        if (item.grade) rgb = gradeColour(item.grade, rgb);
        for (let channel = 0; channel < 3; channel++) {
          const at = pixel * 3 + channel;
          const value = Math.min(1, Math.max(0, rgb[channel] / 255));
          canvas[at] = blendOver(item.blend, canvas[at], value, cover);
        }
      }
    }
  });
  const data = new Uint8ClampedArray(size.width * size.height * 4);
  for (let pixel = 0; pixel < size.width * size.height; pixel++) {
    for (let channel = 0; channel < 3; channel++)
      data[pixel * 4 + channel] = canvas[pixel * 3 + channel] * 255;
    data[pixel * 4 + 3] = 255;
  }
  return { ...size, data };
}

/** Peak signal-to-noise ratio of two pictures in decibels, over red, green and blue. */
export function psnr(one: RgbaImage, two: RgbaImage): number {
  let sum = 0;
  const count = one.width * one.height;
  for (let pixel = 0; pixel < count; pixel++) {
    for (let channel = 0; channel < 3; channel++)
      sum += (one.data[pixel * 4 + channel] - two.data[pixel * 4 + channel]) ** 2;
  }
  return sum === 0 ? Infinity : 10 * Math.log10((255 * 255) / (sum / count / 3));
}
