import { ease, linear, type Bezier } from './easing';

/** A value at a frame. `ease` leads to the next keyframe; 'hold' keeps the value until it comes. */
type Keyframe = { frame: number; value: number; ease: Bezier | 'hold' };

/** One number that changes over frames, as keyframes in rising order of frame. */
export type Track = readonly Keyframe[];

/** A track that never changes. */
export const still = (value: number): Track => [{ frame: 0, value, ease: 'hold' }];

/** The value of a track at a frame; before the first and after the last keyframe it stands. */
export function valueAt(track: Track, frame: number): number {
  let low = 0;
  let high = track.length - 1;
  if (frame <= track[0].frame) return track[0].value;
  if (frame >= track[high].frame) return track[high].value;
  while (high - low > 1) {
    const between = (low + high) >> 1;
    if (track[between].frame <= frame) low = between;
    else high = between;
  }
  const from = track[low];
  const to = track[high];
  if (from.ease === 'hold') return from.value;
  const share = ease(from.ease, (frame - from.frame) / (to.frame - from.frame));
  return from.value + (to.value - from.value) * share;
}

/** Frames between two keyframes at which a curve turns back, so that the value goes beyond both. */
function turnsBetween(from: Keyframe, to: Keyframe): number[] {
  if (from.ease === 'hold') return [];
  const [x1, y1, x2, y2] = from.ease;
  // Where the curve's value stands: the derivative of a cubic Bézier curve is a quadratic in its parameter.
  const [square, plain] = [1 + 3 * y1 - 3 * y2, 2 * y2 - 4 * y1];
  const root = Math.sqrt(plain * plain - 4 * square * y1);
  const parameters =
    Math.abs(square) < 1e-9
      ? [-y1 / plain]
      : [(-plain + root) / (2 * square), (-plain - root) / (2 * square)];
  return parameters
    .filter((t) => t > 0 && t < 1)
    .map((t) => {
      const share = 3 * (1 - t) ** 2 * t * x1 + 3 * (1 - t) * t ** 2 * x2 + t ** 3;
      return from.frame + share * (to.frame - from.frame);
    });
}

/** The frames at which a track is furthest one way or the other: its keys, and where its curves turn back. */
export const turnsOf = (track: Track): number[] =>
  track.flatMap((key, index) => [
    key.frame,
    ...(track[index + 1] ? turnsBetween(key, track[index + 1]) : []),
  ]);

/** The fewest keyframes that give back `values` (one a frame from `start`) within `tolerance`. */
export function fewestKeyframes(values: readonly number[], start: number, tolerance: number): Keyframe[] {
  const keep = new Set<number>();
  const split = (from: number, to: number) => {
    keep.add(from).add(to);
    let worst = tolerance;
    let at = -1;
    for (let index = from + 1; index < to; index++) {
      const line = values[from] + ((values[to] - values[from]) * (index - from)) / (to - from);
      const off = Math.abs(values[index] - line);
      if (off > worst) [worst, at] = [off, index];
    }
    if (at > 0) {
      split(from, at);
      split(at, to);
    }
  };
  if (values.length > 0) split(0, values.length - 1);
  const frames = [...keep].sort((a, b) => a - b);
  const flat = frames.every((index) => Math.abs(values[index] - values[0]) <= tolerance);
  return (flat ? frames.slice(0, 1) : frames).map((index) => ({
    frame: start + index,
    value: values[index],
    ease: linear,
  }));
}
