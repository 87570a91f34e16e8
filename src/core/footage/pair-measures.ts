import type { Comparison, TakeMeasure } from '../model/measures';
import type { Take } from '../model/records';
import type { TakeMeasures } from './pairs';
import { coveredCells, unpackCells } from './presence';

/** seconds between two looks at who stands where: what is kept of a take of usual length is no closer */
const every = 0.5;
/** width of the frame in which camera moves are told */
const toldAt = 1920;

/** What ranking is told of a take that was held against its plate. A fix that is on counts as done. */
export function pairMeasures(take: Take, measure: TakeMeasure, comparison: Comparison): TakeMeasures {
  const { path, left, colour, standing } = comparison;
  const factor = toldAt / measure.size.width;
  const cells = coveredCells.width * coveredCells.height;
  const masks = standing.packed.map((packed) => unpackCells(packed, cells));
  const nearest = (seconds: number) => {
    let best = 0;
    standing.times.forEach((time, index) => {
      if (Math.abs(time - seconds) < Math.abs(standing.times[best] - seconds)) best = index;
    });
    return masks[best];
  };
  const looks = Math.max(1, Math.round(measure.times.last / every));
  return {
    id: take.id,
    lock: (take.steady ? left : path.furthest.move) * factor,
    light: take.match || !colour ? (colour ? 0 : null) : colour.stops,
    eyes: null,
    presence:
      masks.length > 0
        ? {
            ...coveredCells,
            every,
            frames: Array.from({ length: looks }, (_, index) => nearest(index * every)),
          }
        : null,
  };
}
