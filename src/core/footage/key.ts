import { feathered } from '../picture/mask';
import type { GrayImage, RgbaImage } from '../picture/image';
import { chromaOf, pixelOf, strengthOf, type Rgb } from '../picture/spill';

/**
 * How much of each pixel shows what stands before a backdrop of one colour: where a pixel has less of that colour, more
 * is there.
 * @param key the backdrop's colour, 0..255
 * @param options.tolerance share of the key's strength that a backdrop in shadow may lack; 0..1
 * @param options.softness pixels over which the edge is softened further
 * @param options.spill share of the key's strength that is light of the backdrop on what stands before it; 0..1
 * @returns 0..255 a pixel; all of it where the key is a grey, which tells nothing apart
 * @see Vlahos 1964, colour difference matte, US patent 3,158,477
 */
export function keyMatte(
  frame: RgbaImage,
  key: Rgb,
  {
    tolerance = 0.35,
    softness = 0,
    spill = 0.12,
  }: { tolerance?: number; softness?: number; spill?: number } = {},
): GrayImage & { data: Uint8Array } {
  const { width, height } = frame;
  const of = chromaOf(key);
  const reach = Math.max(0.01, 1 - tolerance - spill);
  const cover = Float32Array.from({ length: width * height }, (_, pixel) => {
    const strength = strengthOf(chromaOf(pixelOf(frame, pixel)), of);
    return 1 - Math.min(1, Math.max(0, (strength - spill) / reach));
  });
  const soft = softness > 0 ? feathered(cover, { width, height }, softness) : cover;
  return { width, height, data: Uint8Array.from(soft, (value) => Math.round(255 * value)) };
}

/** how colourful a backdrop is at least, how far its hues lie apart, and how much of the frame's rim shows it */
const [leastColour, hueReach, leastRim] = [18, 15, 0.3];

/**
 * The colour of the backdrop that most of the frame's rim shows; null where it shows none of one colour. The limits
 * are set by trial, no published source.
 */
export function backdropOf(frame: RgbaImage): Rgb | null {
  const { width, height } = frame;
  const deep = Math.max(1, Math.round(Math.min(width, height) / 20));
  const rim: { rgb: Rgb; hue: number }[] = [];
  let count = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      // What stands before a backdrop stands on the lower edge.
      if (x >= deep && x < width - deep && y >= deep) continue;
      count++;
      const rgb = pixelOf(frame, y * width + x);
      const [blue, red] = chromaOf(rgb);
      if (Math.hypot(blue, red) >= leastColour)
        rim.push({ rgb, hue: (Math.atan2(red, blue) * 180) / Math.PI });
    }
  const apart = (one: number, other: number) => Math.abs(((one - other + 540) % 360) - 180);
  const bins = Array.from({ length: 36 }, (_, bin) => {
    const middle = 10 * bin - 175;
    return rim.filter(({ hue }) => apart(hue, middle) <= hueReach);
  });
  const most = bins.reduce((best, one) => (one.length > best.length ? one : best));
  if (most.length < leastRim * count) return null;
  const mean = (channel: 0 | 1 | 2) => most.reduce((sum, { rgb }) => sum + rgb[channel], 0) / most.length;
  return [mean(0), mean(1), mean(2)];
}
