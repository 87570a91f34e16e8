import { writeFileSync } from 'node:fs';
import { texture } from '@/core/__tests__/scene';
import type { RgbaImage } from '@/core/picture/image';
import { seeded } from '@/core/random';
import { ffmpeg } from './ffmpeg';

export const size = { width: 640, height: 360 };
export const rate = { num: 24000, den: 1001 };

/** Somebody of one colour who walks from one column to another, at the same pace all along. */
export type Walker = { rgb: [number, number, number]; from: number; to: number; top: number };

/** columns of a walker */
export const wide = 44;
const tall = 150;

/** The first column of a walker in a picture of a take of so many. */
export const columnOf = ({ from, to }: Walker, picture: number, pictures: number): number =>
  Math.round(from + ((to - from) * picture) / (pictures - 1));

/** A street with people walking in it, filmed with noise and encoded. */
export function filmWalkers(path: string, walkers: readonly Walker[], pictures: number, seed: number): void {
  const wall = texture(31, size);
  const still = Float64Array.from({ length: size.width * size.height }, (_, at) =>
    wall((at % size.width) + 0.5, Math.floor(at / size.width) + 0.5),
  );
  const next = seeded(seed);
  const grain = Float64Array.from({ length: 2 ** 16 }, () => (next() + next() + next() - 1.5) * 4);
  const area = size.width * size.height;
  const raw = Buffer.alloc(area * 3 * pictures);
  for (let picture = 0; picture < pictures; picture++) {
    const columns = walkers.map((walker) => columnOf(walker, picture, pictures));
    const shift = Math.floor(next() * grain.length);
    for (let pixel = 0; pixel < area; pixel++) {
      const [x, y] = [pixel % size.width, Math.floor(pixel / size.width)];
      let [red, green, blue] = [still[pixel], still[pixel] * 0.95, still[pixel] * 0.88];
      for (let index = 0; index < walkers.length; index++) {
        const { top, rgb } = walkers[index];
        if (y >= top && y < top + tall && x >= columns[index] && x < columns[index] + wide)
          [red, green, blue] = rgb;
      }
      const noise = grain[(pixel * 7 + shift) & 65_535];
      const at = (picture * area + pixel) * 3;
      raw[at] = Math.min(255, Math.max(0, red + noise));
      raw[at + 1] = Math.min(255, Math.max(0, green + noise));
      raw[at + 2] = Math.min(255, Math.max(0, blue + noise));
    }
  }
  writeFileSync(`${path}.rgb`, raw);
  const given = [
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgb24',
    '-s',
    `${size.width}x${size.height}`,
    '-r',
    '24000/1001',
  ];
  const tags = ['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709'];
  const coded = ['-vf', 'scale=out_color_matrix=bt709,format=yuv420p', ...tags, '-crf', '16', '-bf', '0'];
  ffmpeg(...given, '-i', `${path}.rgb`, ...coded, path);
}

/**
 * Share of a walker that a picture of the film shows where the take has them.
 * @param column their first one
 * @param before first columns of those who stand before them: what they hide does not count
 */
export function shownOf(film: RgbaImage, walker: Walker, column: number, before: readonly number[]): number {
  let [seen, all] = [0, 0];
  for (let y = walker.top + 3; y < walker.top + tall - 3; y++)
    for (let x = column + 3; x < column + wide - 3; x++) {
      if (before.some((left) => x > left - 3 && x < left + wide + 3)) continue;
      const at = (y * film.width + x) * 4;
      all++;
      if (walker.rgb.every((code, channel) => Math.abs(film.data[at + channel] - code) < 48)) seen++;
    }
  return all === 0 ? 1 : seen / all;
}
