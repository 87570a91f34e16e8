import { calmestLight, lightHolds } from '../../camera/sun';
import type { Day } from '../../model/plan-records';
import { instantOf } from '../../time/zone';

/** The sun's light over the day of filming; null while it is not said where that is. Minutes, milliseconds. */
export function lightOfDay(day: Day | null) {
  if (!day || day.latitude === null || day.longitude === null) return null;
  const spot = { latitude: day.latitude, longitude: day.longitude };
  const midnight = instantOf(day.date, '00:00', day.zone);
  const start = instantOf(day.date, day.start, day.zone);
  return {
    ...calmestLight(spot, midnight, instantOf(day.date, '00:00', day.zone, 1), day),
    holds: (lightHolds(spot, start, day) - start) / 60_000,
  };
}
