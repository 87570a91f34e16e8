import type { Size } from '../../geometry/size';
import { blendOver, type BlendMode } from '../blend';
import type { RgbaImage } from '../image';

/** Red, green, blue and coverage of every pixel, 0..1, colours multiplied by the coverage; row-major. */
export type Surface = Size & { data: Float64Array };

/** Nothing, anywhere. */
export const clear = ({ width, height }: Size): Surface => ({
  width,
  height,
  data: new Float64Array(width * height * 4),
});

/** One colour (0..1) everywhere. */
export function filled(size: Size, [red, green, blue]: readonly number[]): Surface {
  const out = clear(size);
  for (let at = 0; at < out.data.length; at += 4) out.data.set([red, green, blue, 1], at);
  return out;
}

/** Lays one surface over another of the same size, in place. */
export function layOver(back: Surface, front: Surface, mode: BlendMode): void {
  const [under, over] = [back.data, front.data];
  for (let at = 0; at < under.length; at += 4) {
    const [behind, cover] = [under[at + 3], over[at + 3]];
    if (cover <= 0) continue;
    for (let channel = at; channel < at + 3; channel++)
      under[channel] = blendOver(mode, under[channel], behind, over[channel], cover);
    under[at + 3] = behind + cover - behind * cover;
  }
}

/** Multiplies a surface by a coverage (0..1 a pixel, or one for all), in place. */
export function coverBy({ data }: Surface, cover: Float32Array | number): void {
  for (let at = 0; at < data.length; at++) data[at] *= typeof cover === 'number' ? cover : cover[at >> 2];
}

/** Adds a share of a surface to another of the same size, in place. */
export function addTo(sum: Surface, { data }: Surface, share: number): void {
  for (let at = 0; at < data.length; at++) sum.data[at] += data[at] * share;
}

/** An opaque picture as a surface. */
export function surfaceOf({ width, height, data }: RgbaImage): Surface {
  const out = clear({ width, height });
  for (let at = 0; at < out.data.length; at++) out.data[at] = (at & 3) === 3 ? 1 : data[at] / 255;
  return out;
}

/** What is seen of a surface that covers everything. */
export function opaque({ width, height, data }: Surface): RgbaImage {
  const out = new Uint8ClampedArray(data.length);
  for (let at = 0; at < data.length; at++) out[at] = (at & 3) === 3 ? 255 : data[at] * 255;
  return { width, height, data: out };
}
