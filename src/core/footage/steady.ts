import type { Size } from '../geometry/size';
import { fewestKeyframes } from '../motion/keyframes';
import type { Transform } from '../picture/node';
import { timeOfFrame, type Rate } from '../time/rate';
import type { Placement } from '../geometry/placement';

/** A locked camera either stands or moves: stretches that stand get their mean, so that noise does not shake them. */
export function calmTrack(placements: readonly Placement[], limit = 0.15): Placement[] {
  const out: Placement[] = [];
  let start = 0;
  const mean = (from: number, to: number, key: keyof Placement) => {
    let sum = 0;
    for (let index = from; index < to; index++) sum += placements[index][key];
    return sum / (to - from);
  };
  const near = (a: Placement, b: { dx: number; dy: number; rotation: number }) =>
    Math.hypot(a.dx - b.dx, a.dy - b.dy) < limit && Math.abs(a.rotation - b.rotation) < 0.03;
  while (start < placements.length) {
    let end = start + 1;
    const anchor = { ...placements[start] };
    while (end < placements.length && near(placements[end], anchor)) {
      anchor.dx += (placements[end].dx - anchor.dx) / (end - start + 1);
      anchor.dy += (placements[end].dy - anchor.dy) / (end - start + 1);
      anchor.rotation += (placements[end].rotation - anchor.rotation) / (end - start + 1);
      end++;
    }
    const calm = {
      dx: mean(start, end, 'dx'),
      dy: mean(start, end, 'dy'),
      rotation: mean(start, end, 'rotation'),
      scale: mean(start, end, 'scale'),
      agreement: mean(start, end, 'agreement'),
    };
    for (let index = start; index < end; index++) out.push(calm);
    start = end;
  }
  return out;
}

/** Index of the picture that shows at a time: the last that has begun, with half a picture's grace. */
export function pictureAt(times: Float64Array, seconds: number): number {
  const tick = times.length > 1 ? (times[times.length - 1] - times[0]) / (times.length - 1) : 0;
  let low = 0;
  let high = times.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (times[middle] <= seconds + tick / 2) low = middle;
    else high = middle - 1;
  }
  return low;
}

/**
 * What undoes a take's movement over delivery frames.
 * @param placements each picture of the take against its reference, in pixels of `size`
 * @param times seconds at which each picture begins to show
 * @param at seconds of the take at frame `from`
 */
export function steadying(
  size: Size,
  placements: readonly Placement[],
  times: Float64Array,
  at: number,
  from: number,
  until: number,
  rate: Rate,
): Transform {
  const calm = calmTrack(placements);
  const frames = Array.from({ length: Math.max(1, until - from) }, (_, index) => {
    return calm[Math.min(calm.length - 1, pictureAt(times, at + timeOfFrame(rate, index)))];
  });
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
