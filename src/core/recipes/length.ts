import type { TakeMeasure } from '../model/measures';
import { frameOfTime, type Rate } from '../time/rate';

/** Delivery frames that a take still has from some seconds on, its last picture lasting as long as the others. */
export function framesLeft({ times }: TakeMeasure, from: number, rate: Rate): number {
  const last = times[times.length - 1];
  const tick = times.length > 1 ? last / (times.length - 1) : 0;
  return frameOfTime(rate, last + tick - from);
}
