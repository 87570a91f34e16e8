import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Size } from '@/core/geometry/size';
import { ffmpeg } from '../ffmpeg';
import { drawFigure } from './draw-figure';
import { dancing } from './stance';

/** pictures of the two steps that the dancer repeats */
const steps = 25;

/** A film of a photograph: its size, and what happens in it. */
export type DancerFilm = {
  size: Size;
  perSecond: number;
  seconds: number;
  /** the photograph moves, as before a moving camera; or it stands, and a bush sways beside the dancer */
  ground: 'moves' | 'bush';
};

/** ffmpeg's words for what is behind: the first input is the photograph. */
const groundOf = ({ size: { width, height }, ground }: DancerFilm): string => {
  const cut = (x: string, y: string) =>
    `[0]scale=${width * 1.25}:-2,crop=${width}:${height}:x='${x}':y='${y}'`;
  if (ground === 'moves') return `${cut('60+40*sin(t)', '40+20*cos(t)')}[ground]`;
  const bush = `crop=${width / 5}:${height / 2}:0:0[bush]`;
  return `${cut('60', '40')},split[set][other];[other]${bush};[set][bush]overlay=x='${width * 0.68}+16*sin(7*t+1)':y=${height * 0.3}[ground]`;
};

/** Films the set of a dancer with nobody in it. */
export function filmEmptySet(path: string, photograph: string, how: DancerFilm): void {
  ffmpeg(
    ...['-loop', '1', '-framerate', `${how.perSecond}`, '-t', `${how.seconds}`, '-i', photograph],
    ...['-filter_complex', `${groundOf(how)};[ground]noise=alls=5:allf=t,format=yuv420p`],
    ...['-t', `${how.seconds}`, '-c:v', 'libx264', '-crf', '18', path],
  );
}

/** Drawing takes its time: films of one size share their dancer. */
const dancers = new Map<string, Uint8ClampedArray[]>();

function drawDancer(size: Size): Uint8ClampedArray[] {
  const key = `${size.width} ${size.height}`;
  const camera = { at: [0, 1, 4], tall: 1.9 } as const;
  const drawn =
    dancers.get(key) ??
    Array.from({ length: steps }, (_, step) => drawFigure(dancing(step / steps), camera, size));
  dancers.set(key, drawn);
  return drawn;
}

/**
 * Films a modelled figure that dances before a photograph: every limb goes its own way, and how much of each pixel is
 * figure is known. With noise of 3/255, really encoded.
 * @returns how much of each pixel the figure covers in a picture, 0..255
 */
export function filmDancer(
  path: string,
  photograph: string,
  how: DancerFilm,
): (picture: number) => Uint8Array {
  const { size, perSecond, seconds } = how;
  const drawn = drawDancer(size);
  const place = mkdtempSync(join(tmpdir(), 'dancer-'));
  try {
    writeFileSync(join(place, 'dancer.rgba'), Buffer.concat(drawn.map((one) => Buffer.from(one))));
    ffmpeg(
      ...['-loop', '1', '-framerate', `${perSecond}`, '-t', `${seconds}`, '-i', photograph],
      ...['-stream_loop', '-1', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-framerate', `${perSecond}`],
      ...['-video_size', `${size.width}x${size.height}`, '-i', join(place, 'dancer.rgba')],
      '-filter_complex',
      `${groundOf(how)};[ground][1]overlay=shortest=1,noise=alls=5:allf=t,format=yuv420p`,
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
