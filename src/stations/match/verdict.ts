import { allowed } from '@/core/finding/allowed';
import { goesElsewhere } from '@/core/footage/repeats/loose';
import { partKey } from '@/core/footage/take-parts';
import type { Moment, Take } from '@/core/model/records';
import { plateFor, plateOfMoment } from '@/store/plates';
import { comparisonOf, plateKey, takeMeasure, type Snapshot } from '@/store/snapshot';

/** The plate that a take is judged by here: the moment's, else that of its own setup. */
export const plateHere = (snapshot: Snapshot, moment: Moment | null, take: Take): Take | null =>
  moment ? plateOfMoment(snapshot, moment) : plateFor(snapshot, take);

/** A word about a take for its swatch: how far it moved, or how its light differs. */
export function verdict(
  snapshot: Snapshot,
  moment: Moment | null,
  take: Take,
): { text: string; good: boolean } | null {
  const measure = takeMeasure(snapshot, take);
  const comparison = comparisonOf(snapshot, take, plateHere(snapshot, moment, take));
  if (!measure) {
    if (snapshot.halted.has(plateKey(take))) return { text: 'not made', good: false };
    const ended = snapshot.halted.get(partKey('pictures', take))?.reason;
    return ended ? { text: 'not measured', good: false } : { text: 'measuring', good: true };
  }
  if (!comparison) return null;
  const factor = snapshot.project.width / measure.size.width;
  const move = comparison.path.furthest.move * factor;
  const stops = comparison.colour?.stops ?? 0;
  if (comparison.agreement < allowed.agreement) return { text: 'other view', good: false };
  if (goesElsewhere(comparison, measure.size)) return { text: 'other move', good: false };
  if (move > allowed.move && !take.steady) return { text: `${move.toFixed(1)} px`, good: false };
  if (Math.abs(stops) > allowed.stops && !take.match)
    return { text: `${stops > 0 ? '+' : '−'}${Math.abs(stops).toFixed(2)} stop`, good: false };
  return { text: take.steady || take.match ? 'mended' : 'still', good: true };
}
