import type { Slot } from '../slots';

/** The two places. Any take shows one of them, also one and the same. */
export const whipSlots: readonly (Slot & { key: 'out' | 'in' })[] = [
  { key: 'out', title: 'first place', dye: 'cochineal', open: true },
  { key: 'in', title: 'second place', dye: 'woad', open: true },
];
