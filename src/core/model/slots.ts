import type { Point } from '../geometry/size';
import type { Fill, Slots, Tap } from './slots-schema';

export type { Fill, Slots, Tap };

/** The slot of clean plates, whatever the kind: one plate serves all moments of its setup. */
export const plateSlot = 'plate';

/** The slot of a take that a person keeps out of every moment. */
export const noSlot = 'none';

/** The slot of a finished film that is taken apart, and fills no moment. */
export const filmSlot = 'film';

const empty: Fill = { take: null, at: 0, taps: [] };

/** What fills a slot; nothing, from the take's beginning, where nobody said. */
export const fillOf = ({ slots }: { slots?: Slots }, slot: string): Fill => ({ ...empty, ...slots?.[slot] });

/** Taps on the take that fills a slot now; those on another take wait until it is back. */
export const tapsOf = ({ take, taps }: Fill): Tap[] => taps.filter((tap) => !tap.take || tap.take === take);

/**
 * Where a point is that was tapped on several pictures: evenly between two taps, standing before the first and after
 * the last.
 * @param taps by their time, rising; one at least
 * @param seconds of the take
 */
export function tappedAt(taps: readonly Pick<Tap, 'time' | 'at'>[], seconds: number): Point {
  const after = taps.findIndex(({ time }) => time > seconds);
  if (after === 0) return taps[0].at;
  if (after < 0) return taps[taps.length - 1].at;
  const [one, other] = [taps[after - 1], taps[after]];
  const share = (seconds - one.time) / (other.time - one.time);
  return [one.at[0] + (other.at[0] - one.at[0]) * share, one.at[1] + (other.at[1] - one.at[1]) * share];
}

/** Taps by their time. */
export const inOrder = (taps: readonly Tap[]): Tap[] => [...taps].sort((one, other) => one.time - other.time);
