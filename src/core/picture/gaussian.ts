import type { GrayImage } from './image';
import { chromaSide, packedYuv, planesLength, type YuvImage } from './planes';

/** Gaussian weights out to four standard deviations, which add up to one. */
export function gaussianWeights(deviation: number): number[] {
  const reach = Math.max(1, Math.ceil(4 * deviation));
  const raw = Array.from({ length: 2 * reach + 1 }, (_, index) =>
    Math.exp(-((index - reach) ** 2) / (2 * deviation * deviation)),
  );
  const sum = raw.reduce((total, value) => total + value, 0);
  return raw.map((value) => value / sum);
}

/** Weighted means of a plane along its lines; what lies beyond the edge is the edge. @param step to the next of a line */
function means(
  data: ArrayLike<number>,
  weights: readonly number[],
  { lines, next, length, step }: { lines: number; next: number; length: number; step: number },
): Float32Array {
  const out = new Float32Array(lines * length);
  const reach = (weights.length - 1) / 2;
  for (let line = 0; line < lines; line++)
    for (let at = 0; at < length; at++) {
      let sum = 0;
      for (let tap = 0; tap < weights.length; tap++) {
        const from = at + tap - reach;
        sum += weights[tap] * data[line * next + (from < 0 ? 0 : from >= length ? length - 1 : from) * step];
      }
      out[line * next + at * step] = sum;
    }
  return out;
}

/** A picture softened by a Gaussian. @param deviation its standard deviation, in pixels above 0 */
export function gaussianBlur(
  { width, height, data }: GrayImage,
  deviation: number,
): GrayImage & { data: Float32Array } {
  const weights = gaussianWeights(deviation);
  const rows = means(data, weights, { lines: height, next: width, length: width, step: 1 });
  return {
    width,
    height,
    data: means(rows, weights, { lines: width, next: 1, length: height, step: width }),
  };
}

/** A video picture softened so. @param deviation in pixels of its luma, above 0 */
export function softenedYuv(picture: YuvImage, deviation: number): YuvImage {
  const { width, height } = picture;
  const out = packedYuv(new Uint8Array(planesLength(picture)), picture, picture);
  const chroma = { width: chromaSide(width), height: chromaSide(height) };
  const lay = (into: Uint8Array, image: GrayImage, by: number) => {
    const soft = gaussianBlur(image, by).data;
    for (let at = 0; at < into.length; at++) into[at] = Math.round(soft[at]);
  };
  lay(out.y, { width, height, data: picture.y }, deviation);
  lay(out.u, { ...chroma, data: picture.u }, deviation / 2);
  lay(out.v, { ...chroma, data: picture.v }, deviation / 2);
  return out;
}
