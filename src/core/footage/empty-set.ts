import type { Size } from '../geometry/size';
import { refuse } from '../error';
import { checkSameSize, lumaOf, type GrayImage, type RgbaImage } from '../picture/image';

/** A picture of a set without anybody, put together from pictures with somebody. */
export type BuiltPlate = {
  picture: RgbaImage;
  /** how far each pixel can be trusted, 0..255: the share of the pictures that show it so */
  trust: GrayImage & { data: Uint8Array };
};

/** codes of light within which two pictures show the same: noise, and light that flickers a little */
const same = 10;
/** a pixel that fewer of the pictures show so is in doubt: somebody may have stood there for half of the time. By trial */
const doubtful = 0.6;
/** pictures that are needed at least before a majority says anything */
const leastPictures = 3;

/** Where the fullest stretch of some rising values begins, and how many lie in it. */
function fullest(values: Uint8Array): { from: number; count: number } {
  let best = { from: 0, count: 0 };
  for (let from = 0, until = 0; from < values.length; from++) {
    while (until < values.length && values[until] - values[from] <= same) until++;
    if (until - from > best.count) best = { from, count: until - from };
  }
  return best;
}

/**
 * The set as most pictures show it, pixel by pixel. Whoever stands somewhere for more than half of the pictures stays in
 * it; where that may be, it says so.
 * @param pictures from one place, in one light, of one size; the more they are apart in time the better
 * @throws CoreError `few-pictures`, `sizes-differ`
 */
export function emptySetFrom(pictures: readonly RgbaImage[]): BuiltPlate {
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
  const values = new Uint8Array(pictures.length);
  const colours = [0, 1, 2].map(() => new Uint8Array(pictures.length));
  for (let pixel = 0; pixel < trust.length; pixel++) {
    for (let index = 0; index < values.length; index++) values[index] = lights[index][pixel];
    values.sort();
    const { from, count } = fullest(values);
    const [low, high] = [values[from], values[from + count - 1]];
    let shown = 0;
    for (let index = 0; index < pictures.length; index++) {
      const light = Math.floor(lights[index][pixel]);
      if (light < low || light > high) continue;
      const seen = pictures[index].data;
      for (let channel = 0; channel < 3; channel++) colours[channel][shown] = seen[4 * pixel + channel];
      shown++;
    }
    // Somebody of another colour may be as light as the set.
    for (let channel = 0; channel < 3; channel++)
      data[4 * pixel + channel] = colours[channel].subarray(0, shown).sort()[shown >> 1];
    data[4 * pixel + 3] = 255;
    trust[pixel] = Math.round((255 * count) / pictures.length);
  }
  return { picture: { ...size, data }, trust: { ...size, data: trust } };
}

/** Share of a built plate that is in doubt. */
export const doubtIn = ({ trust: { data } }: BuiltPlate): number =>
  data.reduce((sum, value) => sum + (value < 255 * doubtful ? 1 : 0), 0) / data.length;
