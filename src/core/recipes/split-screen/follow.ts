import { mapPoint, type Affine } from '../../geometry/affine';
import type { Size } from '../../geometry/size';
import { fillOf, tappedAt } from '../../model/slots';
import { fewestKeyframes, still } from '../../motion/keyframes';
import type { Transform } from '../../picture/node';
import { perSecond, timeOfFrame } from '../../time/rate';
import { followedInPicture } from '../follow-point';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import type { SplitMoment } from './build';
import type { Panel } from './panels';

/** delivery pixels that a picture may lie beside where it is pushed to */
const tolerance = 0.3;
/** seconds to each side over which a push is evened out, as a hand on a tripod head would: no jerk, a little late, a little early */
const evenedOver = 0.25;

/** Means over so many values to each side; beyond the ends they go on as they came. */
function evened(values: readonly number[], reach: number): number[] {
  const last = values.length - 1;
  const within = (index: number) => values[Math.min(last, Math.max(0, index))];
  const at = (index: number) => {
    if (index < 0) return 2 * values[0] - within(-index);
    return index > last ? 2 * values[last] - within(2 * last - index) : values[index];
  };
  return values.map((_, index) => {
    let sum = 0;
    for (let step = -reach; step <= reach; step++) sum += at(index + step);
    return sum / (2 * reach + 1);
  });
}

/** A panel's take as it lies in the panel before anything is followed: its file's pixels to delivery pixels. */
type Placed = { slot: string; panel: Panel; source: Size; into: Affine; from: number; until: number };

/**
 * How far the picture of a panel is pushed in each frame, so that the followed point stays in the panel's middle as far
 * as the picture reaches, and in which frames that point is outside of the panel all the same.
 * @returns null where no point is followed
 */
export function followingIn(
  { slot, panel, source, into, from, until }: Placed,
  moment: SplitMoment,
  { project }: Ruler,
  material: Material,
): { pushes: [x: number[], y: number[]]; outside: number } | null {
  const points = followedInPicture(moment, material, slot, project);
  if (points.length < 2) return null;
  const { at: begins } = fillOf(moment, slot);
  const seen = Array.from({ length: until - from }, (_, index) => {
    const [x, y] = tappedAt(points, begins + timeOfFrame(project.rate, index));
    return mapPoint(into, [x * source.width, y * source.height]);
  });
  const reach = Math.round(evenedOver * perSecond(project.rate));
  const { left, top, right, bottom } = panel.box;
  const [end, foot] = mapPoint(into, [source.width, source.height]);
  const push = (axis: 0 | 1, low: number, high: number, furthest: number) => {
    const wanted = seen.map((point) => (low + high) / 2 - point[axis]);
    // Further than its own edges the picture does not reach.
    const [least, most] = [high - furthest, low - into[4 + axis]];
    return evened(evened(wanted, reach), reach).map((by) => Math.min(most, Math.max(least, by)));
  };
  const pushes: [number[], number[]] = [push(0, left, right, end), push(1, top, bottom, foot)];
  const outside = seen.filter(([x, y], index) => {
    const [across, down] = [x + pushes[0][index], y + pushes[1][index]];
    return across < left || across > right || down < top || down > bottom;
  }).length;
  return { pushes, outside };
}

/** What pushes the picture of a panel in the film; nothing where no point is followed. */
export function pushedBy(
  following: ReturnType<typeof followingIn>,
  from: number,
  { width, height }: Size,
): Transform[] {
  if (!following) return [];
  const [x, y] = following.pushes.map((values) => fewestKeyframes(values, from, tolerance));
  return [{ is: 'move', size: { width, height }, x, y, rotation: still(0), scale: still(1), undone: false }];
}
