import { plate, type Slot } from '../slots';

export const moveSlot = { key: 'move', title: 'take of the movement', dye: 'woad', open: true } as const;

export const ghostSlots: readonly Slot[] = [plate, moveSlot];

/** The work that cuts the performer out of every picture of the trail, and the layer that shows them so. */
export const figuresWorkName = 'figures';
export const inFront = `${moveSlot.key}-front`;

/** The layer of a copy. @param copy 1 for the one that follows first */
export const copyLayer = (copy: number): string => `${moveSlot.key}-copy-${copy}`;
