import type { Finding } from '../finding/finding';
import type { Telling } from '../finding/words';
import { meanStep } from '../footage/picture-times';
import type { TakeMeasure } from '../model/measures';
import type { Moment } from '../model/records';
import { fillOf } from '../model/slots';
import { frameOfTime, type Rate } from '../time/rate';
import type { ChosenTake } from './material';

/** Delivery frames that a take still has from some seconds on, its last picture lasting as long as the others. */
const framesLeft = ({ times }: TakeMeasure, from: number, rate: Rate): number =>
  frameOfTime(rate, times.last + meanStep(times) - from);

/**
 * What is to be said of a take that ends before the moment does; nothing where it is long enough or not measured yet.
 * @param needed delivery frames that it has to show
 * @param at the second that it begins with, where that is not as it was set
 */
export function tooShort<Code extends string>(
  code: Code,
  moment: Moment,
  slot: string,
  chosen: ChosenTake | null,
  needed: number,
  rate: Rate,
  at: number = fillOf(moment, slot).at,
): Finding<Code>[] {
  const left = chosen?.measure ? framesLeft(chosen.measure, at, rate) : needed;
  if (left >= needed) return [];
  return [
    {
      code,
      severity: 'stop',
      measured: { value: left, unit: 'frames' },
      allowed: { value: needed, unit: 'frames' },
      where: { moment: moment.id },
      facts: { slot, earlier: at > 0 ? 1 : 0 },
      // Where nothing lies before the in-point there is nothing to start earlier from.
      ...(at > 0
        ? { fix: { command: 'startEarlier', args: { moment: moment.id, slot, frames: needed - left } } }
        : {}),
    },
  ];
}

/** What can be done where a take ends too soon. */
export const lengthen = ({ facts }: Pick<Telling, 'facts'>): string =>
  facts.earlier ? 'Start it earlier, or end sooner.' : 'End the moment sooner, or choose a longer take.';

/** What makes a movement as short as there is room for. @param set settings and the delivery frames that there are */
export const shorter = (moment: { id: string }, set: Record<string, number>) => ({
  command: 'fitMoment' as const,
  args: { moment: moment.id, set },
});
