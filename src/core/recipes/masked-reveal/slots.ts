import { plate, type Slot } from '../slots';

export const beforeSlot = {
  key: 'before',
  title: 'take before the change',
  dye: 'cochineal',
  open: true,
} as const;
export const afterSlot = { key: 'after', title: 'take after the change', dye: 'woad', open: true } as const;
export const fallSlot = { key: 'fall', title: 'take of what falls', dye: 'woad', open: true } as const;

export const revealSlots: readonly Slot[] = [plate, beforeSlot, afterSlot, fallSlot];

/** The setting that marks where a take begins to fall. */
export const fallsField = (slot: string): string => `falls.${slot}`;

/** The slot whose take is revealed: where something falls, the take in which it does. */
export const revealedSlot = ({ edge }: { edge: string }) => (edge === 'falling' ? fallSlot : afterSlot);
