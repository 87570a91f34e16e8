import type { Shadows } from '../../footage/seam-task';
import type { SeamMeasure } from '../../model/measures';
import type { MomentOf } from '../../model/records';
import { plateSlot } from '../../model/slots';
import type { ChosenTake, Material } from '../material';

export type CloneMoment = MomentOf<'clone'>;

/** The two performers, by the slots of their takes. */
export const sides = ['left', 'right'] as const;
export type Side = (typeof sides)[number];
/** The side that is not this one. */
export const otherSide = (side: Side): Side => (side === 'left' ? 'right' : 'left');

/** What becomes of the shadows that they throw. */
export const shadowsOf = ({ settings }: Pick<CloneMoment, 'settings'>): Shadows => settings.shadows ?? 'kept';

/** The work of a clone: where one performer ends and the other begins. */
export const seamWork = 'seam';

/** What a clone is built from. Anything may still be missing. */
export type CloneMaterial = {
  plate: ChosenTake | null;
  left: ChosenTake | null;
  right: ChosenTake | null;
  seam: SeamMeasure | null;
};

/** The join of two performers, where it was solved. */
export const seamIn = (solved: Material['solved']): SeamMeasure | null => {
  const answer = solved[seamWork];
  return answer?.method === 'seam-7' ? answer.seam : null;
};

/** What was chosen and solved for a clone, by its own names. */
export const cloneMaterial = ({ takes, solved }: Material): CloneMaterial => ({
  plate: takes[plateSlot] ?? null,
  left: takes.left ?? null,
  right: takes.right ?? null,
  seam: seamIn(solved),
});

/** The seam of a moment until it is solved: straight, in the middle; shares of the frame. */
export const straightSeam: [number, number][] = [
  [0.5, 0],
  [1, 0],
  [1, 1],
  [0.5, 1],
];
