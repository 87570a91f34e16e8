import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { frameOfTime, timeOfFrame } from '@/core/time/rate';
import { cameraAt, canvasAt, expose, filmRate, filmSize } from '@/core/practice/camera';
import type { Canvas } from '@/core/practice/canvas';
import { drawMechanic } from '@/core/practice/mechanic';
import type { Scene } from './scenes';
import { drawBench, drawWorkshop } from '@/core/practice/workshop';

/** Raw pictures into an H.264 file, tagged BT.709, as a phone that is set up well would write it. */
function encoder(path: string) {
  const args = [
    ...[
      '-y',
      '-loglevel',
      'error',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgb24',
      '-s',
      `${filmSize.width}x${filmSize.height}`,
    ],
    ...[
      '-r',
      `${filmRate.num}/${filmRate.den}`,
      '-i',
      '-',
      '-vf',
      'scale=out_color_matrix=bt709:out_range=tv',
    ],
    ...['-c:v', 'libx264', '-preset', 'slow', '-crf', '22', '-g', '24', '-pix_fmt', 'yuv420p'],
    ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'],
    ...['-movflags', '+faststart', '-fflags', '+bitexact', '-flags:v', '+bitexact', path],
  ];
  return spawn('ffmpeg', args, { stdio: ['pipe', 'inherit', 'inherit'] });
}

/** Films one scene. The empty room is drawn once for each way the camera stands. */
export async function filmScene(scene: Scene, path: string, seed: number): Promise<void> {
  const process = encoder(path);
  const rooms = new Map<string, Canvas>();
  const frames = frameOfTime(filmRate, scene.seconds);
  for (let frame = 0; frame < frames; frame++) {
    const time = timeOfFrame(filmRate, frame);
    const placement = cameraAt(scene.faults, time);
    const key = JSON.stringify(placement);
    let room = rooms.get(key);
    if (!room) {
      room = canvasAt(placement);
      drawWorkshop(room);
      if (rooms.size > 2) rooms.clear();
      rooms.set(key, room);
    }
    const canvas = canvasAt(placement, room);
    if (scene.pose) drawMechanic(canvas, scene.pose(time));
    drawBench(canvas);
    if (!process.stdin.write(expose(canvas, scene.faults, frame, seed))) await once(process.stdin, 'drain');
  }
  process.stdin.end();
  const [code] = await once(process, 'close');
  if (code !== 0) throw new Error(`Encoding ${path} failed with code ${code}.`);
}
