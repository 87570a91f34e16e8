import { invertAffine } from '../geometry/affine';
import { placementMatrix } from '../geometry/placement';
import { refuse } from '../error';
import type { Size } from '../geometry/size';

/** How a picture lies at an instant: moved by pixels, turned clockwise by degrees, scaled, about its middle. */
export type Move = { x: number; y: number; rotation: number; scale: number };

/** By how much one move has to be enlarged more, so that its picture reaches every corner of the frame. */
function needed({ x, y, rotation, scale }: Move, { width, height }: Size): number {
  const back = invertAffine(
    placementMatrix({ dx: x, dy: y, rotation, scale, agreement: 1 }, { width, height }),
  );
  const [a, b, c, d, e, f] = back;
  const corners = [
    [0, 0],
    [width, 0],
    [0, height],
    [width, height],
  ];
  return Math.max(
    ...corners.map(([px, py]) =>
      Math.max(
        Math.abs((a * px + c * py + e - width / 2) / (width / 2)),
        Math.abs((b * px + d * py + f - height / 2) / (height / 2)),
      ),
    ),
  );
}

/**
 * The smallest factor by which every one of some moves has to be enlarged so that none shows an edge. The moves are
 * taken to be enlarged about the frame's middle in the picture's own scale: `scale` is multiplied, `x` and `y` stay.
 * @param frame delivery pixels; the picture fills it where nothing moves
 * @returns at least 1; 1.05 is 105 %
 * @throws CoreError `edge-cover` where a scale is not above 0 or a number is none
 */
export function coverScale(moves: readonly Move[], frame: Size): number {
  for (const move of moves)
    if (!(move.scale > 0) || !Object.values(move).every(Number.isFinite))
      refuse(
        'edge-cover',
        'A picture that is scaled to nothing cannot fill the frame. Give it a size above 0.',
      );
  return Math.max(1, ...moves.map((move) => needed(move, frame)));
}
