import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { multiplyAffine, type Affine } from '@/core/geometry/affine';
import { placementMatrix } from '@/core/geometry/placement';
import { cameraAt, expose, filmSize } from '@/core/practice/camera';
import { Canvas } from '@/core/practice/canvas';
import { frameOfTime, timeOfFrame } from '@/core/time/rate';
import { formOf, type Scene } from './scenes';

/** Raw pictures into an H.264 file, tagged BT.709, as a phone that is set up well would write it. */
function encoder(scene: Scene, path: string) {
  const { size, rate } = formOf(scene);
  const tagged = 'scale=out_color_matrix=bt709:out_range=tv';
  const filter = scene.loses ? `select='mod(n,${scene.loses})',${tagged}` : tagged;
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
      `${size.width}x${size.height}`,
    ],
    ...['-r', `${rate.num}/${rate.den}`, '-i', '-', '-vf', filter],
    ...(scene.loses ? ['-fps_mode', 'vfr'] : []),
    ...['-c:v', 'libx264', '-preset', 'slow', '-crf', '22', '-g', '24', '-pix_fmt', 'yuv420p'],
    ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'],
    ...['-movflags', '+faststart', '-fflags', '+bitexact', '-flags:v', '+bitexact', path],
  ];
  return spawn('ffmpeg', args, { stdio: ['pipe', 'inherit', 'inherit'] });
}

/** Stage units to pixels of a scene's picture while the camera is a little out of its place. */
function cameraOf({ closer, faults }: Scene, time: number): Affine {
  const placed = placementMatrix(cameraAt(faults, time), filmSize);
  if (!closer) return placed;
  const { left, top, scale } = closer;
  return multiplyAffine([scale, 0, 0, scale, -left * scale, -top * scale], placed);
}

/** Films one scene. The empty place is drawn once for each way the camera stands. */
export async function filmScene(scene: Scene, path: string, seed: number): Promise<void> {
  const process = encoder(scene, path);
  const { size, rate } = formOf(scene);
  const places = new Map<string, Canvas>();
  const frames = frameOfTime(rate, scene.seconds);
  for (let frame = 0; frame < frames; frame++) {
    const time = timeOfFrame(rate, frame);
    const camera = cameraOf(scene, time);
    const key = camera.join();
    let place = places.get(key);
    if (!place) {
      place = new Canvas(size.width, size.height, camera);
      scene.place(place);
      if (places.size > 2) places.clear();
      places.set(key, place);
    }
    const canvas = new Canvas(size.width, size.height, camera, place.data.slice());
    scene.action(canvas, time);
    if (!process.stdin.write(expose(canvas, scene.faults, frame, seed))) await once(process.stdin, 'drain');
  }
  process.stdin.end();
  const [code] = await once(process, 'close');
  if (code !== 0) throw new Error(`Encoding ${path} failed with code ${code}.`);
}
