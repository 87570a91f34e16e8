import { allowed } from '../../finding/allowed';
import type { Size } from '../../geometry/size';
import type { Comparison } from '../../model/measures';

/** share of the plate's way by which a take may lie beside it, and of the width by which it may in any case. By trial */
const [ofWay, inAnyCase] = [0.15, 0.015];

/** How far beside the plate's move a take may lie and still repeat it, in pixels of its picture; null where it repeats none. */
export function mostBeside({ repeat }: Comparison, { width }: Size): number | null {
  if (!repeat) return null;
  return Math.min(allowed.passAside * width, Math.max(inAnyCase * width, ofWay * repeat.travels.lead));
}

/** True where a take was held against a plate whose camera moves, and its own camera stood or went elsewhere. */
export function goesElsewhere(comparison: Comparison, size: Size): boolean {
  const most = mostBeside(comparison, size);
  return most !== null && comparison.path.furthest.move > most;
}
