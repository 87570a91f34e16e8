import { refuse } from '../error';
import { checkSameSize, lumaOf, type GrayImage, type RgbaImage } from '../picture/image';
import { pyramidOf, type Level } from './pyramid';

/** Places of a level that carry position, with what a small move does to each. */
export type Anchors = {
  level: Level;
  x: Float32Array;
  y: Float32Array;
  value: Float32Array;
  slope: Float32Array;
};
/** A picture to hold others against; `pictures` are those in colour that it was made from. */
export type Reference = {
  width: number;
  height: number;
  gray: GrayImage;
  anchors: Anchors[];
  pictures: RgbaImage[];
};

/** places that are kept of a level at most */
export const mostAnchors = 8_000;

/** Chooses the strongest slopes of every part of the picture, so that no single object decides. */
function anchorsOf(level: Level): Anchors {
  const { width, height, data } = level;
  const cells = Math.max(1, Math.round(Math.min(width, height) / 24));
  const columns = Math.max(1, Math.round((cells * width) / height));
  const perCell = Math.ceil(Math.min(mostAnchors, width * height * 0.5) / (cells * columns));
  const chosen: number[] = [];
  const strength = new Float32Array(width * height);
  for (let row = 1; row < height - 1; row++) {
    for (let column = 1; column < width - 1; column++) {
      const at = row * width + column;
      const across = data[at + 1] - data[at - 1];
      const down = data[at + width] - data[at - width];
      strength[at] = Math.sqrt(across * across + down * down) / 2;
    }
  }
  for (let cellY = 0; cellY < cells; cellY++) {
    for (let cellX = 0; cellX < columns; cellX++) {
      const places: number[] = [];
      const bottom = Math.min(height - 2, Math.floor(((cellY + 1) * height) / cells));
      const right = Math.min(width - 2, Math.floor(((cellX + 1) * width) / columns));
      for (let row = Math.max(2, Math.floor((cellY * height) / cells)); row < bottom; row++) {
        for (let column = Math.max(2, Math.floor((cellX * width) / columns)); column < right; column++) {
          // Strength before the point, place after it, so that plain numbers sort by strength.
          const at = row * width + column;
          if (strength[at] > 1) places.push(Math.round(strength[at] * 8) + at / (width * height));
        }
      }
      const sorted = Float64Array.from(places).sort().reverse().subarray(0, perCell);
      for (const value of sorted) chosen.push(Math.round((value % 1) * width * height));
    }
  }
  const count = chosen.length;
  const anchors: Anchors = {
    level,
    x: new Float32Array(count),
    y: new Float32Array(count),
    value: new Float32Array(count),
    slope: new Float32Array(count * 4),
  };
  chosen.forEach((at, index) => {
    const x = (at % width) + 0.5 - width / 2;
    const y = Math.floor(at / width) + 0.5 - height / 2;
    const gx = (data[at + 1] - data[at - 1]) / 2;
    const gy = (data[at + width] - data[at - width]) / 2;
    anchors.x[index] = x;
    anchors.y[index] = y;
    anchors.value[index] = data[at];
    anchors.slope.set([gx, gy, gy * x - gx * y, gx * x + gy * y], index * 4);
  });
  return anchors;
}

/** The places of a level as indices of its pixels. */
export const pixelsOf = ({ level: { width, height }, x, y }: Anchors): Int32Array<ArrayBuffer> =>
  Int32Array.from(x, (_, at) => Math.round((y[at] + height / 2 - 0.5) * width + x[at] + width / 2 - 0.5));

/** Prepares a reference once for many frames. An RGBA picture is taken by its luma, several as their mean. */
export function prepareReference(image: GrayImage | RgbaImage | RgbaImage[]): Reference {
  const list = Array.isArray(image) ? image : [image];
  if (list.length === 0) refuse('no-reference', 'There is no reference picture. Choose a clean plate first.');
  const grays = list.map((one) => (isRgba(one) ? lumaOf(one) : one));
  const [first] = grays;
  for (const other of grays) checkSameSize(first, other);
  const data = new Float32Array(first.width * first.height);
  for (const gray of grays) for (let at = 0; at < data.length; at++) data[at] += gray.data[at] / grays.length;
  const gray = { width: first.width, height: first.height, data };
  return {
    width: first.width,
    height: first.height,
    gray,
    anchors: pyramidOf(gray).map(anchorsOf),
    pictures: list.filter(isRgba),
  };
}

const isRgba = (image: GrayImage | RgbaImage): image is RgbaImage =>
  image.data.length === image.width * image.height * 4;
