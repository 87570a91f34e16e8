import { allowed } from '../finding/allowed';
import { coveredCells } from '../footage/presence';
import type { Comparison, TakeMeasure } from '../model/measures';
import { plateSlot } from '../model/slots';
import { usualRecipe } from './built';

/** Why it cannot be told what a take was filmed for. */
export type Doubt =
  'dark' | 'blown' | 'one-picture' | 'no-plate' | 'other-size' | 'other-place' | 'everywhere';

/** share of the frame that may change in a take in which nobody is. By trial */
const empty = 0.004;
/** share of what somebody covers that has to lie on one side of the frame. By trial */
const oneSided = 0.7;

/** Where somebody ever stands: how much of the frame that covers, and how far across its middle lies, 0..1 both. */
function standing({ covered }: Comparison): { share: number; across: number } {
  let [count, sum] = [0, 0];
  covered.forEach((there, cell) => {
    count += there;
    sum += there * (((cell % coveredCells.width) + 0.5) / coveredCells.width);
  });
  return { share: count / covered.length, across: count > 0 ? sum / count : 0.5 };
}

/** Share of what is covered that lies on the side on which most of it lies. */
function onOneSide({ covered }: Comparison): number {
  const half = coveredCells.width / 2;
  let [left, all] = [0, 0];
  covered.forEach((there, cell) => {
    all += there;
    if (cell % coveredCells.width < half) left += there;
  });
  return all > 0 ? Math.max(left, all - left) / all : 0;
}

/**
 * What a take was filmed for, by what is in it: empty ones of the plate's place are plates, and who stands on one side
 * is of that side. Nothing is guessed: a take of another place, or one in which somebody walks everywhere, is left open.
 * @param plate what is known of the plate that holds for it; null where there is none
 * @param comparison the take held against that plate; null until it was
 * @returns the slot, or why it is open; null until enough was measured
 */
export function sortTake(
  measure: TakeMeasure,
  plate: TakeMeasure | null,
  comparison: Comparison | null,
): { slot: string } | { doubt: Doubt } | null {
  const { light, motion, size, times } = measure;
  if (!light || !motion) return null;
  if (light.dark > allowed.dark) return { doubt: 'dark' };
  if (light.blown > allowed.graveBlown) return { doubt: 'blown' };
  if (!plate) {
    // Of a single picture nobody can say whether anything in it would have moved.
    if (times.count < 2) return { doubt: 'one-picture' };
    return motion.share < empty ? { slot: plateSlot } : { doubt: 'no-plate' };
  }
  if (plate.size.width !== size.width || plate.size.height !== size.height) return { doubt: 'other-size' };
  if (!comparison) return null;
  if (comparison.agreement < allowed.agreement) return { doubt: 'other-place' };
  const { share, across } = standing(comparison);
  if (share < empty) return { slot: plateSlot };
  if (onOneSide(comparison) < oneSided) return { doubt: 'everywhere' };
  return { slot: usualRecipe.suggests({ across }) };
}
