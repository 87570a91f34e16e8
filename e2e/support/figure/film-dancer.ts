import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Size } from '@/core/geometry/size';
import { ffmpeg } from '../ffmpeg';
import { drawFigure } from './draw-figure';
import { dancing } from './stance';

/** pictures of the two steps that the dancer repeats */
const steps = 25;

/**
 * Films a modelled figure that dances before a photograph, which moves: every limb goes its own way, and how much of each
 * pixel is figure is known. With noise of 3/255, really encoded.
 * @returns how much of each pixel the figure covers in a picture, 0..255
 */
export function filmDancer(
  path: string,
  ground: string,
  { size, perSecond, seconds }: { size: Size; perSecond: number; seconds: number },
): (picture: number) => Uint8Array {
  const camera = { at: [0, 1, 4], tall: 1.9 } as const;
  const drawn = Array.from({ length: steps }, (_, step) => drawFigure(dancing(step / steps), camera, size));
  const place = mkdtempSync(join(tmpdir(), 'dancer-'));
  try {
    writeFileSync(join(place, 'dancer.rgba'), Buffer.concat(drawn.map((one) => Buffer.from(one))));
    ffmpeg(
      ...['-loop', '1', '-framerate', `${perSecond}`, '-t', `${seconds}`, '-i', ground],
      ...['-stream_loop', '-1', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-framerate', `${perSecond}`],
      ...['-video_size', `${size.width}x${size.height}`, '-i', join(place, 'dancer.rgba')],
      '-filter_complex',
      `[0]scale=${size.width * 1.25}:-2,crop=${size.width}:${size.height}:x='60+40*sin(t)':y='40+20*cos(t)'[ground];[ground][1]overlay=shortest=1,noise=alls=5:allf=t,format=yuv420p`,
      ...['-t', `${seconds}`, '-c:v', 'libx264', '-crf', '18', path],
    );
  } finally {
    rmSync(place, { recursive: true });
  }
  return (picture) =>
    Uint8Array.from(
      { length: size.width * size.height },
      (_, pixel) => drawn[picture % steps][4 * pixel + 3],
    );
}
