import type { Size } from '../geometry/size';
import { refuse } from '../error';
import { mostShown } from './most-shown';
import { median } from '../statistics';
import type { YuvImage } from '../picture/planes';
import { checkSameSize, lumaOf, type GrayImage, type RgbaImage } from '../picture/image';

/** A picture of a set without anybody, put together from pictures with somebody. */
export type BuiltPlate = {
  picture: RgbaImage;
  /** how far each pixel can be trusted, 0..255: the share of the pictures asked that show it so */
  trust: GrayImage & { data: Uint8Array };
};

/** a pixel that fewer of the pictures show so is in doubt: somebody may have stood there for half of the time. By trial */
const doubtful = 0.6;
/** pictures that are needed at least before a majority says anything */
const leastPictures = 3;

/**
 * The set as most pictures show it, pixel by pixel. Whoever stands somewhere for more than half of the pictures stays in
 * it; where that may be, it says so.
 * @param pictures from one place, in one light, of one size; the more they are apart in time the better
 * @param shown which of them show the set at a pixel; null for all of them
 * @throws CoreError `few-pictures`, `sizes-differ`
 */
export function emptySetFrom(
  pictures: readonly RgbaImage[],
  shown: (pixel: number) => readonly number[] | null = () => null,
): BuiltPlate {
  if (pictures.length < leastPictures)
    refuse(
      'few-pictures',
      'An empty set cannot be told from so few pictures. Choose a longer take, or more of them.',
    );
  for (const picture of pictures) checkSameSize(pictures[0], picture);
  const { width, height } = pictures[0];
  const size: Size = { width, height };
  const lights = pictures.map((picture) => lumaOf(picture).data);
  const data = new Uint8ClampedArray(4 * width * height);
  const trust = new Uint8Array(width * height);
  const all = pictures.map((_, index) => index);
  const colours = [0, 1, 2].map(() => new Uint8Array(pictures.length));
  for (let pixel = 0; pixel < trust.length; pixel++) {
    const asked = shown(pixel) ?? all;
    const values = Uint8Array.from(asked, (index) => lights[index][pixel]).sort();
    const { from, count } = mostShown(values);
    const [low, high] = [values[from], values[from + count - 1]];
    let found = 0;
    for (const index of asked) {
      const light = Math.floor(lights[index][pixel]);
      if (light < low || light > high) continue;
      const seen = pictures[index].data;
      for (let channel = 0; channel < 3; channel++) colours[channel][found] = seen[4 * pixel + channel];
      found++;
    }
    // Somebody of another colour may be as light as the set.
    for (let channel = 0; channel < 3; channel++)
      data[4 * pixel + channel] = colours[channel].subarray(0, found).sort()[found >> 1];
    data[4 * pixel + 3] = 255;
    trust[pixel] = Math.round((255 * count) / asked.length);
  }
  return { picture: { ...size, data }, trust: { ...size, data: trust } };
}

/** every how manieth pixel tells how light a picture is */
const sampled = 37;
/** codes between which light can be told, below and above which it is lost */
const [dim, bright] = [40, 225];

/**
 * What brings each of some pictures to the first one's light, as most of both show the same set.
 * @returns for each a function that changes such a picture, or a part of it, in place
 */
export function sameLight(pictures: readonly YuvImage[]): ((picture: RgbaImage) => RgbaImage)[] {
  const black = (picture: YuvImage) => (picture.fullRange ? 0 : 16);
  const [first] = pictures;
  return pictures.map((picture) => {
    const ratios: number[] = [];
    for (let at = 0; at < picture.y.length; at += sampled) {
      const [one, own] = [first.y[at], picture.y[at]];
      if (one > dim && one < bright && own > dim && own < bright)
        ratios.push((one - black(first)) / (own - black(picture)));
    }
    const factor = ratios.length > 0 ? median(ratios) : 1;
    return (part) => {
      if (Math.abs(factor - 1) < 0.005) return part;
      const { data } = part;
      for (let at = 0; at < data.length; at += 4)
        for (let channel = 0; channel < 3; channel++)
          data[at + channel] = Math.min(255, Math.round(data[at + channel] * factor));
      return part;
    };
  });
}

/** Share of a built plate that is in doubt. */
export const doubtIn = ({ trust: { data } }: BuiltPlate): number =>
  data.reduce((sum, value) => sum + (value < 255 * doubtful ? 1 : 0), 0) / data.length;
