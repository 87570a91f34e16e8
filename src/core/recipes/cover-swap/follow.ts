import type { Point } from '../../geometry/size';
import { fillOf, tappedAt } from '../../model/slots';
import { timeOfFrame } from '../../time/rate';
import { fewestShapes } from '../../shapes/carried';
import type { ShapeKey } from '../../shapes/keyed';
import { followedPoints } from '../follow-point';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { swapSlot } from './slots';

/** delivery pixels that a corner of the patch may lie beside where it is carried to */
const tolerance = 0.2;

type Covering = Parameters<typeof fillOf>[0];

/**
 * A patch that goes along with the point that is followed: it lies as it was drawn on the picture that was tapped first.
 * @param patch in shares of the frame
 * @param span frames of the film, of which the first shows where the take begins
 * @returns its shapes by frames after the first, in shares of the frame; the patch alone where nothing is followed
 */
export function patchAlong(
  moment: Covering,
  patch: readonly Point[],
  { project }: Ruler,
  material: Material,
  span: { from: number; until: number },
): ShapeKey[] {
  const ring = [...patch];
  const { at: begins, taps } = fillOf(moment, swapSlot.key);
  const points = followedPoints(moment, material, swapSlot.key, project);
  if (points.length < 2 || taps.length === 0) return [{ after: 0, ring }];
  const first = tappedAt(points, taps[0].time);
  const shapes = Array.from({ length: Math.max(1, span.until - span.from) }, (_, after) => {
    const now = tappedAt(points, begins + timeOfFrame(project.rate, after));
    return ring.map(([x, y]): Point => [x + now[0] - first[0], y + now[1] - first[1]]);
  });
  return fewestShapes(shapes, 0, tolerance, project);
}
