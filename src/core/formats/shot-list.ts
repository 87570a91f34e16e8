import type { Slot } from '../plan/order/schedule';
import { writeCsv } from './csv';

/** Columns of a shot list. */
const columns = [
  'Place',
  'From',
  'Until',
  'Setup',
  'Shot',
  'Kind',
  'For',
  'Seconds',
  'Takes',
  'Shown at %',
  'Clothes',
  'Kept equal',
  'How',
  'Why here',
] as const;

/** A shot list as CSV, one line a shot in the order of filming. @see RFC 4180 */
export function writeShotList(
  slots: readonly Slot[],
  words: {
    clock: (minutes: number) => string;
    setup: (id: string) => string;
    moment: (id: string) => string;
    reason: (slot: Slot) => string;
  },
): string {
  const data = slots.map((slot, index) => {
    const { shot } = slot;
    return [
      index + 1,
      words.clock(slot.from),
      words.clock(slot.until),
      words.setup(shot.setup),
      shot.title,
      shot.what,
      shot.moments.map(words.moment).join('; '),
      shot.seconds,
      shot.takes,
      Math.round(shot.speed * 100),
      shot.clothes ?? '',
      shot.same.join('; '),
      shot.note,
      words.reason(slot),
    ];
  });
  return writeCsv(columns, data);
}
