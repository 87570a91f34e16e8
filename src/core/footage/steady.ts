import type { Placement } from '../geometry/placement';
import type { Size } from '../geometry/size';
import { fewestKeyframes } from '../motion/keyframes';
import type { Transform } from '../picture/node';
import { cameraAt, type CameraPath } from './camera-path';
import { meanStep, type PictureTimes } from './picture-times';

/** how closely keyframes follow a movement that a join must not show: pixels, degrees, share of the size */
const [along, turned, grown] = [0.03, 0.002, 2e-5];

/**
 * A movement that says where a picture lies on each frame, in as few keyframes as follow it closely.
 * @param placements one a frame, in pixels of `size`
 * @param undone whether the picture is put back from there
 * @param coarse so many times as far off as where a join must not show
 */
export function moveThrough(
  size: Size,
  placements: readonly Placement[],
  from: number,
  undone: boolean,
  coarse = 1,
): Transform {
  const track = (key: 'dx' | 'dy' | 'rotation' | 'scale', tolerance: number) =>
    fewestKeyframes(
      placements.map((placement) => placement[key]),
      from,
      coarse * tolerance,
    );
  return {
    is: 'move',
    size,
    x: track('dx', along),
    y: track('dy', along),
    rotation: track('rotation', turned),
    scale: track('scale', grown),
    undone,
  };
}

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
  return moveThrough(size, frames, from, true);
}
