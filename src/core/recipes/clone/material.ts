import type { Comparison, SeamMeasure, TakeMeasure } from '../../model/measures';
import type { Take } from '../../model/records';

/** A chosen take with what is known of it; `measure` is null until it was measured. */
export type ChosenTake = { take: Take; measure: TakeMeasure | null; comparison: Comparison | null };

/** The two performers, by the slots of their takes. */
export const sides = ['left', 'right'] as const;
export type Side = (typeof sides)[number];
export const otherSide = (side: Side): Side => (side === 'left' ? 'right' : 'left');

/** What a clone is built from. Anything may still be missing. */
export type CloneMaterial = {
  plate: ChosenTake | null;
  left: ChosenTake | null;
  right: ChosenTake | null;
  seam: SeamMeasure | null;
};

/** The seam of a moment until it is solved: straight, in the middle; shares of the frame. */
export const straightSeam: [number, number][] = [
  [0.5, 0],
  [1, 0],
  [1, 1],
  [0.5, 1],
];
