import { plate, type Slot } from '../slots';

export const upSlot = { key: 'up', title: 'take of the jump', dye: 'cochineal', open: true } as const;
export const downSlot = { key: 'down', title: 'take of the landing', dye: 'woad', open: true } as const;
export const leapSlots: readonly Slot[] = [plate, upSlot, downSlot];

/** The instant on which the performer is gone, where they also land. */
export const leavesPin = 'leaves';

/** The works: when somebody is in the air, who is cut out of that picture, or of every one of a raised jump. */
export const flightOfSlot = (slot: string): string => `${slot}-flight`;
export const cutoutOfSlot = (slot: string): string => `${slot}-cutout`;
export const raisedWork = `${upSlot.key}-raised`;
