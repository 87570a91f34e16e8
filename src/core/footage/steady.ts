import type { Size } from '../geometry/size';
import { fewestKeyframes } from '../motion/keyframes';
import type { Transform } from '../picture/node';
import { cameraAt, type CameraPath } from './camera-path';
import { meanStep, type PictureTimes } from './picture-times';

/**
 * What undoes a take's movement over delivery frames.
 * @param path how its camera stood, in pixels of `size`
 * @param seconds of the take at a frame of the film
 */
export function steadying(
  size: Size,
  path: CameraPath,
  times: PictureTimes,
  { from, until }: { from: number; until: number },
  seconds: (frame: number) => number,
): Transform {
  const camera = cameraAt(path);
  const grace = meanStep(times) / 2;
  const frames = Array.from({ length: Math.max(1, until - from) }, (_, index) =>
    camera(seconds(from + index) + grace),
  );
  const track = (key: 'dx' | 'dy' | 'rotation' | 'scale', tolerance: number) =>
    fewestKeyframes(
      frames.map((placement) => placement[key]),
      from,
      tolerance,
    );
  return {
    is: 'move',
    size,
    x: track('dx', 0.03),
    y: track('dy', 0.03),
    rotation: track('rotation', 0.002),
    scale: track('scale', 2e-5),
    undone: true,
  };
}
