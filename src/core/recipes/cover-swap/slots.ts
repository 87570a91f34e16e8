import { plate, type Slot } from '../slots';

export const swapSlot = { key: 'swap', title: 'take of the swap', dye: 'woad', open: true } as const;
/** The picture with the object untouched: filmed for the purpose, else the clean plate. */
export const patchSlot = { key: 'patch', title: 'patch', dye: 'cochineal', open: true } as const;

export const coverSlots: readonly Slot[] = [plate, swapSlot, patchSlot];
