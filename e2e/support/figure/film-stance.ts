import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Size } from '@/core/geometry/size';
import { ffmpeg } from '../ffmpeg';
import { drawFigure, type Camera } from './draw-figure';
import type { Stance } from './stance';

/**
 * Films a modelled figure that stands still before an empty set.
 * @param plate a film of the empty set, as large as `size`
 * @param coded how it is encoded, in ffmpeg's words
 */
export function filmStance(
  path: string,
  stance: Stance,
  { plate, camera, size, seconds }: { plate: string; camera: Camera; size: Size; seconds: number },
  ...coded: string[]
): void {
  const place = mkdtempSync(join(tmpdir(), 'stance-'));
  try {
    writeFileSync(join(place, 'figure.rgba'), drawFigure(stance, camera, size));
    ffmpeg(
      ...['-stream_loop', '-1', '-i', plate, '-f', 'rawvideo', '-pix_fmt', 'rgba'],
      ...['-video_size', `${size.width}x${size.height}`, '-i', join(place, 'figure.rgba')],
      ...['-filter_complex', '[0][1]overlay=eof_action=repeat,format=yuv420p', '-an'],
      ...['-t', `${seconds}`, ...coded, path],
    );
  } finally {
    rmSync(place, { recursive: true });
  }
}
