import type { Point } from '../geometry/size';
import { cellGrid } from './cells';
import type { Reading } from './reading';

/** Where a performer or a shadow lies on a line of the frame: shares of its length, and which of the two it is. */
export function crossingOf(
  reading: Reading,
  from: Point,
  to: Point,
): { from: number; to: number; shadow: boolean } | null {
  const steps = 48;
  const hits: { share: number; shadow: boolean }[] = [];
  for (let step = 0; step < steps; step++) {
    const share = (step + 0.5) / steps;
    const x = Math.floor((from[0] + (to[0] - from[0]) * share) * cellGrid.width);
    const y = Math.floor((from[1] + (to[1] - from[1]) * share) * cellGrid.height);
    if (x < 0 || y < 0 || x >= cellGrid.width || y >= cellGrid.height) continue;
    const cell = y * cellGrid.width + x;
    if (reading.present[cell]) hits.push({ share, shadow: reading.shadow[cell] === 1 });
  }
  if (hits.length < 2) return null;
  const shadows = hits.filter(({ shadow }) => shadow).length;
  return { from: hits[0].share, to: hits[hits.length - 1].share, shadow: shadows * 2 > hits.length };
}
