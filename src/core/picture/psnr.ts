import type { RgbaImage } from './image';

/** Peak signal-to-noise ratio of two pictures of one size in decibels, over red, green and blue. */
export function psnr(one: RgbaImage, two: RgbaImage): number {
  let sum = 0;
  const count = one.width * one.height;
  for (let pixel = 0; pixel < count; pixel++) {
    for (let channel = 0; channel < 3; channel++)
      sum += (one.data[pixel * 4 + channel] - two.data[pixel * 4 + channel]) ** 2;
  }
  return sum === 0 ? Infinity : 10 * Math.log10((255 * 255) / (sum / count / 3));
}
