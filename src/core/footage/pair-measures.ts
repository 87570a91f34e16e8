import { allowed } from '../finding/allowed';
import type { Comparison, TakeMeasure } from '../model/measures';
import type { Take } from '../model/records';
import { usualBody, type Bodies } from '../people/bodies';
import type { TakeMatch } from './colour-match';
import type { TakeMeasures } from './pairs';
import { goesElsewhere } from './repeats/loose';
import { coveredCells, unpackCells } from './presence';

/** seconds between two looks at who stands where: what is kept of a take of usual length is no closer */
const every = 0.5;
/** width of the frame in which camera moves are told */
const toldAt = 1920;

/** CIEDE2000 that a stop of light makes. Measured on the demo's darker take: 5.1 for a third of a stop */
const perStop = 15;

/** Stops that a take's light is off, colour casts counted as stops that are as visible; what a match leaves where it is on. */
function lightOff({ stops, before, after }: TakeMatch, matched: boolean): number {
  const seen = matched ? after : before;
  const cast = seen > allowed.difference ? seen / perStop : 0;
  return (stops < 0 ? -1 : 1) * Math.max(matched ? 0 : Math.abs(stops), cast);
}

/**
 * What ranking is told of a take that was held against its plate. A fix that is on counts as done.
 * @param bodies who was found in it; null where nobody was looked for
 */
export function pairMeasures(
  take: Take,
  measure: TakeMeasure,
  comparison: Comparison,
  bodies: Bodies | null,
): TakeMeasures {
  const { path, left, colour, standing, repeat } = comparison;
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
    lock: (take.steady && !goesElsewhere(comparison, measure.size) ? left : path.furthest.move) * factor,
    light: colour && lightOff(colour, take.match),
    body: bodies && usualBody(bodies),
    ...(repeat && { late: repeat.late }),
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
