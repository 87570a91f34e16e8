import type { GrayImage } from './image';
import type { Size } from '../geometry/size';
import type { Rings } from './node';

/** Mean over `width` neighbours along rows, edges repeated, so that the frame's own edge stays hard. */
function boxRows(
  source: Float32Array,
  width: number,
  height: number,
  reach: number,
  into: Float32Array,
): void {
  const whole = Math.floor(reach);
  const part = reach - whole;
  const span = 2 * reach + 1;
  for (let y = 0; y < height; y++) {
    const base = y * width;
    const at = (x: number) => source[base + (x < 0 ? 0 : x >= width ? width - 1 : x)];
    let sum = 0;
    for (let x = -whole; x <= whole; x++) sum += at(x);
    for (let x = 0; x < width; x++) {
      into[base + x] = (sum + part * (at(x - whole - 1) + at(x + whole + 1))) / span;
      sum += at(x + whole + 1) - at(x - whole);
    }
  }
}

function transpose(source: Float32Array, width: number, height: number): Float32Array {
  const out = new Float32Array(source.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) out[x * height + y] = source[y * width + x];
  return out;
}

/** Coverage 0..1 of rings that together are one shape: four lines a pixel down, exact across. Even-odd rule. */
export function coverOfRings(rings: Rings, { width, height }: Size): Float32Array {
  const out = new Float32Array(width * height);
  const lines = 4;
  for (let line = 0; line < height * lines; line++) {
    const y = (line + 0.5) / lines;
    const crossings: number[] = [];
    for (const points of rings) {
      for (let i = 0; i < points.length; i++) {
        const [x0, y0] = points[i];
        const [x1, y1] = points[(i + 1) % points.length];
        if (y0 <= y !== y1 <= y) crossings.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
      }
    }
    crossings.sort((a, b) => a - b);
    const base = Math.floor(line / lines) * width;
    for (let i = 0; i + 1 < crossings.length; i += 2) {
      const from = Math.max(0, crossings[i]);
      const to = Math.min(width, crossings[i + 1]);
      if (to <= from) continue;
      const first = Math.floor(from);
      const last = Math.min(width - 1, Math.floor(to));
      for (let x = first; x <= last; x++) out[base + x] += (Math.min(x + 1, to) - Math.max(x, from)) / lines;
    }
  }
  return out;
}

/** Coverage with a soft edge. @param feather its width in pixels, half of it on each side; up to 0.5 stays hard */
export function feathered(cover: Float32Array, { width, height }: Size, feather: number): Float32Array {
  if (feather <= 0.5) return cover;
  const reach = feather / 4;
  const [soft, spare] = [new Float32Array(cover.length), new Float32Array(cover.length)];
  boxRows(cover, width, height, reach, spare);
  boxRows(spare, width, height, reach, soft);
  const turned = transpose(soft, width, height);
  boxRows(turned, height, width, reach, spare);
  boxRows(spare, height, width, reach, turned);
  return transpose(turned, height, width);
}

/** Coverage 0..255 of a shape in pixels of `size`. @param feather as in {@link feathered} */
export function rasterMask(
  rings: Rings,
  feather: number,
  size: Size,
  inverted = false,
): GrayImage & { data: Uint8Array } {
  const cover = feathered(coverOfRings(rings, size), size, feather);
  const code = (value: number) => Math.min(255, (inverted ? 1 - value : value) * 255 + 0.5);
  return { width: size.width, height: size.height, data: Uint8Array.from(cover, code) };
}

/** Coverage at half size, for the chroma of 4:2:0 pictures. */
export function halveMask(mask: GrayImage): Uint8Array {
  const { width, height, data } = mask;
  const [cw, ch] = [(width + 1) >> 1, (height + 1) >> 1];
  const out = new Uint8Array(cw * ch);
  for (let y = 0; y < ch; y++) {
    const top = 2 * y * width;
    const bottom = Math.min(height - 1, 2 * y + 1) * width;
    for (let x = 0; x < cw; x++) {
      const right = Math.min(width - 1, 2 * x + 1);
      out[y * cw + x] =
        (data[top + 2 * x] + data[top + right] + data[bottom + 2 * x] + data[bottom + right] + 2) >> 2;
    }
  }
  return out;
}
