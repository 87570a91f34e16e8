import type { Fill, Slots, Tap } from './slots-schema';

export type { Fill, Slots, Tap };

/** The slot of clean plates, whatever the kind: one plate serves all moments of its setup. */
export const plateSlot = 'plate';

/** The slot of a take that a person keeps out of every moment. */
export const noSlot = 'none';

const empty: Fill = { take: null, at: 0, taps: [] };

/** What fills a slot; nothing, from the take's beginning, where nobody said. */
export const fillOf = ({ slots }: { slots?: Slots }, slot: string): Fill => ({ ...empty, ...slots?.[slot] });

/** Taps on the take that fills a slot now; those on another take wait until it is back. */
export const tapsOf = ({ take, taps }: Fill): Tap[] => taps.filter((tap) => !tap.take || tap.take === take);
