import { plate, type Slot } from '../slots';

export const poseSlot = { key: 'pose', title: 'take of the pose', dye: 'woad', open: true } as const;

export const freezeSlots: readonly Slot[] = [plate, poseSlot];

/** The setting that holds which picture of the take is frozen. */
export const instantField = 'frozen';

/** The instant on which a piece lands: the last one where the moment lands. @param piece 1 for the first */
export const pieceAnchor = (piece: number, pieces: number): string =>
  piece === pieces ? 'lands' : `piece-${piece}`;
