import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { prepareReference, type RgbaImage } from '@/core';
import { seeded } from '@/core/random';
import { ffmpeg } from './ffmpeg';
import { portrait } from './photographs';

export const size = { width: 640, height: 360 };
const pixels = size.width * size.height;

/** How far a point lies outside a figure that walks, in pixels; less than nothing within it. */
export function outside(px: number, py: number, time: number): number {
  const [dx, dy] = [px - (200 + 8 * time), py - 180];
  const limb = (ax: number, ay: number, bx: number, by: number, reach: number) => {
    const [vx, vy] = [bx - ax, by - ay];
    const share = Math.min(1, Math.max(0, ((dx - ax) * vx + (dy - ay) * vy) / (vx * vx + vy * vy)));
    return Math.hypot(dx - ax - share * vx, dy - ay - share * vy) - reach;
  };
  const swing = Math.sin(time / 3);
  return Math.min(
    Math.hypot(dx, dy + 120) - 26,
    limb(0, -80, 0, 20, 36),
    limb(-10, 20, -20 - 30 * swing, 160, 17),
    limb(10, 20, 20 + 30 * swing, 160, 17),
    limb(-28, -80, -70, -20 + 40 * swing, 12),
    limb(28, -80, 75, -60 - 50 * swing, 12),
  );
}

/** A ground of waves, or the photograph upside down. */
export type Ground = 'waves' | 'photograph';

/**
 * A figure with the photograph's colours that walks before a ground, with noise of 3/255 and a shadow beside it, encoded
 * and decoded again.
 * @param times of the pictures, in the figure's own time; the empty set comes three times before them
 */
export function filmWalker(file: (name: string) => string, ground: Ground, times: readonly number[]) {
  const raw = file('photograph.raw');
  ffmpeg(
    '-i',
    portrait(),
    '-vf',
    'scale=640:640,crop=640:360:0:0',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgb24',
    raw,
  );
  const photograph = readFileSync(raw);
  const next = seeded(5);
  const noise = Float32Array.from(
    { length: 1 << 16 },
    () => 3 * Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  );
  const groundAt = (x: number, y: number, channel: number) =>
    ground === 'photograph'
      ? photograph[3 * (pixels - 1 - (y * size.width + x)) + channel]
      : 110 + 30 * Math.sin(x / 7) * Math.cos(y / 9) + 20 * Math.sin((x + y) / 23) - 8 * channel;
  const frame = (time: number | null): Buffer => {
    const out = Buffer.alloc(3 * pixels);
    let grain = Math.floor(next() * noise.length);
    for (let y = 0, p = 0; y < size.height; y++)
      for (let x = 0; x < size.width; x++, p++) {
        const cover = time === null ? 0 : Math.min(1, Math.max(0, 0.5 - outside(x + 0.5, y + 0.5, time)));
        const shade =
          time === null ? 0 : Math.min(1, Math.max(0, 0.5 - outside(x - 24.5, y - 5.5, time) / 14));
        const from = Math.floor(0.9 * y) * size.width + ((x - Math.round(8 * (time ?? 0)) + 640) % 640);
        for (let channel = 0; channel < 3; channel++) {
          const own = 0.8 * photograph[3 * from + channel] + [40, 10, 0][channel];
          const set = groundAt(x, y, channel) * (1 - 0.3 * shade);
          const value = set * (1 - cover) + own * cover + noise[grain++ % noise.length];
          out[3 * p + channel] = Math.min(255, Math.max(0, Math.round(value)));
        }
      }
    return out;
  };
  const shape = ['-f', 'rawvideo', '-s', `${size.width}x${size.height}`];
  writeFileSync(file('filmed.raw'), Buffer.concat([null, null, null, ...times].map(frame)));
  ffmpeg(
    ...[...shape, '-pix_fmt', 'rgb24', '-r', '24', '-i', file('filmed.raw')],
    ...['-c:v', 'libx264', '-crf', '20', '-pix_fmt', 'yuv420p', file('filmed.mp4')],
  );
  const seen = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', file('filmed.mp4'), '-f', 'rawvideo', '-pix_fmt', 'rgba', '-'],
    { maxBuffer: 2 ** 31 - 1 },
  );
  const pictures = [...Array(times.length + 3).keys()].map((index): RgbaImage => ({
    ...size,
    data: new Uint8ClampedArray(seen.subarray(4 * pixels * index, 4 * pixels * (index + 1))),
  }));
  const plates = pictures.slice(0, 3);
  return { plates, plate: prepareReference(plates), pictures: pictures.slice(3) };
}
