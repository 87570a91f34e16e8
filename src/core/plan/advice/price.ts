import type { Finding } from '../../finding/finding';
import type { PlannedMoment } from '../shots';

/** Frames of a moment that will need work by hand, before anything is filmed. */
export type Price = { frames: number; mask: number; mend: number; because: string[]; saving: string };

/** How zones that are not clear add to the price, as shares of a moment. Common practice, no published source. */
const extra: Record<string, { mask: number; mend: number; because: string; saving: string }> = {
  'zone.overlap': {
    mask: 0.3,
    mend: 0.3,
    because: 'the copies stand in each other’s place',
    saving: 'Move the marks apart until the zones no longer overlap.',
  },
  'zone.reach': {
    mask: 0.2,
    mend: 0.05,
    because: 'a zone reaches over the join',
    saving: 'Move the join or the mark, so that hands stay on their side.',
  },
  'zone.moving': {
    mask: 0.5,
    mend: 0,
    because: 'something moves under the join',
    saving: 'Tie down what moves, or run the join elsewhere.',
  },
  'zone.shadow': {
    mask: 0.5,
    mend: 0,
    because: 'a shadow falls across the join',
    saving: 'Move the lamp so that the shadow falls away from the join, or soften it.',
  },
};

/** What a moment will cost afterwards; `zones` are the findings of the setup it is filmed in. */
export function priceOf({ filming, frames }: PlannedMoment, zones: readonly Finding[]): Price {
  const joined = filming.joins.length > 0 && filming.shots.some((shot) => shot.share);
  const added = joined
    ? [...new Set(zones.map(({ code }) => code))].flatMap((code) => extra[code] ?? [])
    : [];
  const total = (part: 'mask' | 'mend') =>
    Math.round(
      Math.min(
        1,
        added.reduce((sum, one) => sum + one[part], filming[part]),
      ) * frames,
    );
  return {
    frames,
    mask: total('mask'),
    mend: total('mend'),
    because: added.map((one) => one.because),
    saving: added[0]?.saving ?? filming.saving,
  };
}
