import type { RgbaImage } from './image';
import type { Bounds, Size } from '../geometry/size';

/** How the numbers of a video picture became light: its matrix, and whether black is 0 or 16. */
export type YuvKind = { matrix: YuvMatrix; fullRange: boolean };
export type YuvMatrix = 'bt709' | 'bt601';

/** A 4:2:0 picture: luma at full size, two chroma planes at half size (rounded up), tightly packed. */
export type YuvImage = Size & YuvKind & { y: Uint8Array; u: Uint8Array; v: Uint8Array };

/** What deliveries are made of. */
export const bt709: YuvKind = { matrix: 'bt709', fullRange: false };

/** Samples of a chroma plane along a side of so many pixels. */
export const chromaSide = (value: number): number => (value + 1) >> 1;

/** Bytes of a picture's planes, which follow one another. */
export const planesLength = ({ width, height }: Size): number =>
  width * height + 2 * chromaSide(width) * chromaSide(height);

/** A picture whose planes follow one another in memory. @param bytes at least {@link planesLength} of them */
export function packedYuv(
  bytes: Uint8Array<ArrayBuffer>,
  { width, height }: Size,
  kind: YuvKind = bt709,
): YuvImage {
  const { matrix, fullRange } = kind;
  const luma = width * height;
  const end = planesLength({ width, height });
  const middle = (luma + end) / 2;
  return {
    width,
    height,
    matrix,
    fullRange,
    y: bytes.subarray(0, luma),
    u: bytes.subarray(luma, middle),
    v: bytes.subarray(middle, end),
  };
}

/** An empty (black) picture, packed. */
export function blankYuv(size: Size, kind: YuvKind = bt709): YuvImage {
  const image = packedYuv(new Uint8Array(planesLength(size)), size, kind);
  image.y.fill(kind.fullRange ? 0 : 16);
  image.u.fill(128);
  image.v.fill(128);
  return image;
}

/** The factors of a kind of picture. @see ITU-R BT.709 and BT.601, section 3 */
export function factorsOf(kind: YuvKind) {
  const [kr, kb] = kind.matrix === 'bt709' ? [0.2126, 0.0722] : [0.299, 0.114];
  const kg = 1 - kr - kb;
  const luma = kind.fullRange ? 1 : 255 / 219;
  const chroma = kind.fullRange ? 1 : 255 / 224;
  return {
    kr,
    kg,
    kb,
    luma,
    chroma,
    black: kind.fullRange ? 0 : 16,
    redFromV: 2 * (1 - kr) * chroma,
    blueFromU: 2 * (1 - kb) * chroma,
    greenFromU: (-2 * kb * (1 - kb) * chroma) / kg,
    greenFromV: (-2 * kr * (1 - kr) * chroma) / kg,
  };
}

/** Full-range RGBA of a video picture; chroma is held over its two by two pixels. */
export function yuvToRgba(
  image: YuvImage,
  into?: Uint8ClampedArray,
): RgbaImage & { data: Uint8ClampedArray } {
  const { width, height, y, u, v } = image;
  const f = factorsOf(image);
  const data = into ?? new Uint8ClampedArray(width * height * 4);
  const chromaWidth = chromaSide(width);
  for (let row = 0, at = 0; row < height; row++) {
    const chromaRow = (row >> 1) * chromaWidth;
    for (let column = 0; column < width; column++, at += 4) {
      const luma = (y[row * width + column] - f.black) * f.luma;
      const cu = u[chromaRow + (column >> 1)] - 128;
      const cv = v[chromaRow + (column >> 1)] - 128;
      data[at] = luma + f.redFromV * cv;
      data[at + 1] = luma + f.greenFromU * cu + f.greenFromV * cv;
      data[at + 2] = luma + f.blueFromU * cu;
      data[at + 3] = 255;
    }
  }
  return { width, height, data };
}

/** A video picture of full-range RGBA; chroma is the mean of its two by two pixels. Alpha is left out. */
export function rgbaToYuv(image: RgbaImage, kind: YuvKind = bt709): YuvImage {
  const out = blankYuv(image, kind);
  const { width, height, data } = image;
  const f = factorsOf(kind);
  const code = (value: number) => Math.min(255, Math.max(0, Math.round(value)));
  const chromaWidth = chromaSide(width);
  for (let row = 0; row < height; row += 2) {
    for (let column = 0; column < width; column += 2) {
      let [red, green, blue, count] = [0, 0, 0, 0];
      for (let dy = 0; dy < 2 && row + dy < height; dy++) {
        for (let dx = 0; dx < 2 && column + dx < width; dx++) {
          const pixel = (row + dy) * width + column + dx;
          const [r, g, b] = [data[pixel * 4], data[pixel * 4 + 1], data[pixel * 4 + 2]];
          out.y[pixel] = code((f.kr * r + f.kg * g + f.kb * b) / f.luma + f.black);
          red += r;
          green += g;
          blue += b;
          count++;
        }
      }
      const luma = f.kr * red + f.kg * green + f.kb * blue;
      const chroma = (row >> 1) * chromaWidth + (column >> 1);
      out.u[chroma] = code((blue - luma) / count / (2 * (1 - f.kb) * f.chroma) + 128);
      out.v[chroma] = code((red - luma) / count / (2 * (1 - f.kr) * f.chroma) + 128);
    }
  }
  return out;
}

/** True where two pictures' codes mean the same light. */
export const sameKind = (a: YuvKind, b: YuvKind): boolean =>
  a.matrix === b.matrix && a.fullRange === b.fullRange;

/** The even or the odd bytes of a word of four. */
const everyOther = 0x00ff00ff;

/** The means of the four pixels around each corner of two words, one above the other: in the lowest and the third byte. */
const meansOf = (upper: number, lower: number): number =>
  ((upper & everyOther) +
    ((upper >>> 8) & everyOther) +
    (lower & everyOther) +
    ((lower >>> 8) & everyOther) +
    0x00020002) >>>
  2;

/** A plane shrunk to half by plain means, sixteen pixels at once; planes begin at whole words. */
function shrinkHalf(source: Uint8Array, width: number, out: Uint8Array, part: Bounds): void {
  const words = new Int32Array(source.buffer, source.byteOffset, source.length >> 2);
  const wordsOut = new Int32Array(out.buffer, out.byteOffset, out.length >> 2);
  const across = width >> 2;
  const [first, end] = [part.left >> 2, (part.right + 3) >> 2];
  for (let row = part.top; row < part.bottom; row++) {
    let upper = 2 * (row * across + first);
    let lower = upper + across;
    for (let at = (row * across) / 2 + first; at < (row * across) / 2 + end; at++, upper += 2, lower += 2) {
      const one = meansOf(words[upper], words[lower]);
      const two = meansOf(words[upper + 1], words[lower + 1]);
      wordsOut[at] = (one & 0xff) | ((one >>> 8) & 0xff00) | ((two & 0xff) << 16) | ((two & 0xff0000) << 8);
    }
  }
}

/** A plane shrunk to a third of its sides by plain means, twelve pixels at once; it begins at a whole word. */
function shrinkThird(source: Uint8Array, width: number, out: Uint8Array, part: Bounds): void {
  const words = new Int32Array(source.buffer, source.byteOffset, source.length >> 2);
  const across = width >> 2;
  const [first, end] = [part.left >> 2, (part.right + 3) >> 2];
  const scale = 1 / 9;
  for (let row = part.top; row < part.bottom; row++) {
    let to = (row * width) / 3 + 4 * first;
    for (let four = first, at = 3 * (row * across + first); four < end; four++, at += 3, to += 4) {
      // Sums of three lines: of the first and third, then of the second and last pixel of each word.
      let [one, other, two, next, three, last] = [0, 0, 0, 0, 0, 0];
      for (let line = 0, word = at; line < 3; line++, word += across) {
        one += words[word] & everyOther;
        other += (words[word] >>> 8) & everyOther;
        two += words[word + 1] & everyOther;
        next += (words[word + 1] >>> 8) & everyOther;
        three += words[word + 2] & everyOther;
        last += (words[word + 2] >>> 8) & everyOther;
      }
      out[to] = ((one & 0xffff) + (other & 0xffff) + (one >>> 16)) * scale + 0.5;
      out[to + 1] = ((other >>> 16) + (two & 0xffff) + (next & 0xffff)) * scale + 0.5;
      out[to + 2] = ((two >>> 16) + (next >>> 16) + (three & 0xffff)) * scale + 0.5;
      out[to + 3] = ((last & 0xffff) + (three >>> 16) + (last >>> 16)) * scale + 0.5;
    }
  }
}

/** A plane shrunk to a quarter of its sides by plain means, four pixels at once; it begins at a whole word. */
function shrinkQuarter(source: Uint8Array, width: number, out: Uint8Array, part: Bounds): void {
  const words = new Int32Array(source.buffer, source.byteOffset, source.length >> 2);
  const across = width >> 2;
  for (let row = part.top; row < part.bottom; row++)
    for (let x = part.left, at = 4 * row * across + x; x < part.right; x++, at++) {
      let pairs = 0;
      for (let line = 0, word = at; line < 4; line++, word += across)
        pairs += (words[word] & everyOther) + ((words[word] >>> 8) & everyOther);
      out[row * across + x] = ((pairs & 0xffff) + (pairs >>> 16) + 8) >> 4;
    }
}

const atWords = (plane: Uint8Array) => plane.byteOffset % 4 === 0;

/** A plane shrunk by a whole factor, by plain means. */
function shrinkWhole(
  source: Uint8Array,
  width: number,
  factor: number,
  to: Size,
  out: Uint8Array,
  part: Bounds,
): void {
  if (factor === 2 && width % 8 === 0 && atWords(source) && atWords(out))
    return shrinkHalf(source, width, out, part);
  if (factor === 3 && width % 12 === 0 && atWords(source)) return shrinkThird(source, width, out, part);
  if (factor === 4 && width % 4 === 0 && to.width === width >> 2 && atWords(source))
    return shrinkQuarter(source, width, out, part);
  const { left, right } = part;
  const scale = 1 / (factor * factor);
  const sums = new Uint16Array(to.width);
  for (let row = part.top; row < part.bottom; row++) {
    sums.fill(0);
    for (let line = row * factor; line < (row + 1) * factor; line++) {
      let at = line * width + left * factor;
      for (let x = left; x < right; x++) {
        let sum = 0;
        for (let step = 0; step < factor; step++) sum += source[at++];
        sums[x] += sum;
      }
    }
    const base = row * to.width;
    for (let x = left; x < right; x++) out[base + x] = sums[x] * scale + 0.5;
  }
}

/** A plane grown by a whole factor: each pixel that many times each way. */
function growWhole(source: Uint8Array, width: number, times: number, out: Uint8Array, part: Bounds): void {
  for (let row = part.top; row < part.bottom; row++) {
    const line = Math.floor(row / times) * width;
    const base = row * times * width;
    for (let x = part.left; x < part.right; x++) out[base + x] = source[line + Math.floor(x / times)];
  }
}

/**
 * A plane shrunk (or grown) by the mean of what each new pixel covers.
 * @param out painted over and returned; its length is that of the new plane
 * @param part of the new plane that is needed; what lies outside may be left as it was
 */
export function resizePlane(
  source: Uint8Array,
  from: Size,
  to: Size,
  out: Uint8Array = new Uint8Array(to.width * to.height),
  part: Bounds = { left: 0, top: 0, right: to.width, bottom: to.height },
): Uint8Array {
  if (from.width === to.width && from.height === to.height) {
    out.set(source.subarray(0, out.length));
    return out;
  }
  const stepX = from.width / to.width;
  const stepY = from.height / to.height;
  // Sixteen bits hold the sum of 16 × 16 pixels.
  if (stepX === stepY && Number.isInteger(stepX) && stepX <= 16) {
    shrinkWhole(source, from.width, stepX, to, out, part);
    return out;
  }
  const times = to.width / from.width;
  if (Number.isInteger(times) && times === to.height / from.height) {
    growWhole(source, from.width, times, out, part);
    return out;
  }
  const sums = new Float64Array(from.width + 1);
  const before = new Float64Array(from.width + 2);
  for (let row = part.top; row < part.bottom; row++) {
    const top = row * stepY;
    const bottom = Math.min(from.height, top + stepY);
    sums.fill(0);
    for (let line = Math.floor(top); line < bottom; line++) {
      const share = Math.min(line + 1, bottom) - Math.max(line, top);
      const offset = line * from.width;
      for (let x = 0; x < from.width; x++) sums[x] += share * source[offset + x];
    }
    // Running sums along the line give the mean over any stretch from its two ends.
    for (let x = 0; x <= from.width; x++) before[x + 1] = before[x] + sums[x];
    const scale = 1 / (stepX * (bottom - top));
    let left = 0;
    for (let x = 0; x < to.width; x++) {
      const end = Math.min(from.width, (x + 1) * stepX);
      const whole = Math.floor(end);
      const right = before[whole] + (end - whole) * sums[whole];
      out[row * to.width + x] = (right - left) * scale + 0.5;
      left = right;
    }
  }
  return out;
}

/** The same part of a chroma plane. */
export const halved = (bounds: Bounds): Bounds => ({
  left: bounds.left >> 1,
  top: bounds.top >> 1,
  right: chromaSide(bounds.right),
  bottom: chromaSide(bounds.bottom),
});

type Resizing = {
  /** the luma plane, where it was shrunk already */
  luma?: Uint8Array;
  /** a picture of the new size to paint over */
  into?: YuvImage;
  /** the part of the new picture that is needed */
  part?: Bounds;
};

/** A video picture at another size. */
export function resizeYuv(image: YuvImage, to: Size, { luma, into, part }: Resizing = {}): YuvImage {
  const from = { width: chromaSide(image.width), height: chromaSide(image.height) };
  const chroma = { width: chromaSide(to.width), height: chromaSide(to.height) };
  const small = part && halved(part);
  return {
    ...image,
    width: to.width,
    height: to.height,
    y: luma ?? resizePlane(image.y, image, to, into?.y, part),
    u: resizePlane(image.u, from, chroma, into?.u, small),
    v: resizePlane(image.v, from, chroma, into?.v, small),
  };
}

function turnPlane(source: Uint8Array, width: number, height: number, degrees: number): Uint8Array {
  const out = new Uint8Array(width * height);
  const wide = degrees === 180 ? width : height;
  for (let row = 0; row < height; row++) {
    for (let column = 0; column < width; column++) {
      const x = degrees === 90 ? height - 1 - row : degrees === 180 ? width - 1 - column : row;
      const y = degrees === 90 ? column : degrees === 180 ? height - 1 - row : width - 1 - column;
      out[y * wide + x] = source[row * width + column];
    }
  }
  return out;
}

/** A video picture turned clockwise, as its container asks for. */
export function turnYuv(image: YuvImage, degrees: 0 | 90 | 180 | 270): YuvImage {
  if (degrees === 0) return image;
  const upright = degrees === 180;
  const [cw, ch] = [chromaSide(image.width), chromaSide(image.height)];
  return {
    ...image,
    width: upright ? image.width : image.height,
    height: upright ? image.height : image.width,
    y: turnPlane(image.y, image.width, image.height, degrees),
    u: turnPlane(image.u, cw, ch, degrees),
    v: turnPlane(image.v, cw, ch, degrees),
  };
}
