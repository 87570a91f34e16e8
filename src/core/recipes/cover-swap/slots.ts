import { plate, type Slot } from '../slots';

export const swapSlot = {
  key: 'swap',
  title: 'take of the swap',
  dye: 'woad',
  open: true,
  follows:
    'Where the object moves, tap it on one picture of “The swap”: the patch goes along with it, and lies on that picture as it was drawn. Where the bench loses it, tap it there again.',
} as const satisfies Slot;
/** The picture with the object untouched: filmed for the purpose, else the clean plate. */
export const patchSlot = { key: 'patch', title: 'patch', dye: 'cochineal', open: true } as const;

export const coverSlots: readonly Slot[] = [plate, swapSlot, patchSlot];
