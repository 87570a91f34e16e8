import { seeded } from '../random';
import type { Track } from './keyframes';

/** A picture pushed aside by pixels, frame by frame, until it stands again. */
export type Shake = { x: Track; y: Track };

/** How much of a shake is left after each frame: it falls to nothing over so many single frames. */
const frames = 11;

/**
 * A shake after each of some hits: full on the frame of the hit, less on each frame after it, every one in another
 * direction, gone after eleven. 10 to 12 single-frame keyframes: common practice, no published source.
 * @param hits frames, in any order
 * @param strength pixels at the hit
 * @param seed another one gives other directions; the same the same ones
 */
export function shakeAfter(hits: readonly number[], strength: number, seed: number): Shake {
  const random = seeded(seed);
  const pushed = new Map<number, [number, number]>();
  for (const hit of hits) {
    let turn = random() * 2 * Math.PI;
    for (let step = 0; step < frames; step++) {
      // Nearly the other way each time, so that no two frames lean the same way.
      turn += Math.PI + (random() - 0.5);
      const amount = strength * (1 - step / frames);
      const [x, y] = pushed.get(hit + step) ?? [0, 0];
      pushed.set(hit + step, [x + amount * Math.cos(turn), y + amount * Math.sin(turn)]);
    }
    if (!pushed.has(hit + frames)) pushed.set(hit + frames, [0, 0]);
  }
  const keys = [...pushed].sort(([one], [other]) => one - other);
  const track = (axis: 0 | 1): Track => [
    { frame: (keys[0]?.[0] ?? 1) - 1, value: 0, ease: 'hold' },
    ...keys.map(([frame, push]) => ({ frame, value: push[axis], ease: 'hold' as const })),
  ];
  return { x: track(0), y: track(1) };
}
