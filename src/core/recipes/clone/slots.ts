import { besideParts } from '../../footage/pairs';
import type { Pairs } from '../recipe';
import type { Slot } from '../slots';
import type { Side } from './material';

/** The takes of both performers, by the keys of their shots. */
export const cloneSlots: readonly (Slot & { key: Side })[] = [
  { key: 'left', title: 'left', dye: 'cochineal', keeps: true },
  { key: 'right', title: 'right', dye: 'woad', keeps: true },
];

/** Each on the left with each on the right. */
export const clonePairs: Pairs = { slots: [cloneSlots[0], cloneSlots[1]], by: besideParts };

/** The slot of a side. */
export const slotOfSide = (side: Side): Slot => cloneSlots[side === 'left' ? 0 : 1];

/** Who stands in one half of the picture belongs there. */
export const suggestCloneSlot = ({ across }: { across: number }): Side => (across < 0.5 ? 'left' : 'right');
