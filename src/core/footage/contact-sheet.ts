import type { Severity } from '../finding/finding';

/** What a sheet of takes is searched, filtered and put in order by. Null is what is not known, or does not apply. */
export type SheetRow = {
  id: string;
  name: string;
  slot: string | null;
  /** as they were brought in */
  order: number;
  seconds: number | null;
  /** pixels of the delivery that its camera moved off the plate at most */
  move: number | null;
  /** stops by which it is brighter than the plate */
  stops: number | null;
  /** share of the frame in which something moves */
  moves: number | null;
  sound: boolean;
  /** the gravest that was found about it */
  worst: Severity | null;
};

/** What a sheet is put in order by: the first ones are those that one looks for. */
export const sheetOrders = {
  order: 'as they came',
  name: 'by name',
  seconds: 'the longest first',
  move: 'the camera that moved most first',
  stops: 'the light that is off most first',
  moves: 'the one in which most moves first',
} as const;
export type SheetOrder = keyof typeof sheetOrders;

/** Which takes a sheet shows, besides those of one slot. */
export const sheetFilters = {
  all: 'all takes',
  open: 'those that nobody sorted',
  faulty: 'those with something to put right',
  sound: 'those with sound',
} as const;

const inNumbers = new Intl.Collator('en', { numeric: true });

/** How much of what is looked for a take has; the more, the earlier it stands. */
const amounts: Partial<Record<SheetOrder, (row: SheetRow) => number | null>> = {
  seconds: ({ seconds }) => seconds,
  move: ({ move }) => move,
  stops: ({ stops }) => stops && Math.abs(stops),
  moves: ({ moves }) => moves,
};

function isShown({ slot, worst, sound }: SheetRow, filter: string): boolean {
  switch (filter) {
    case 'all':
      return true;
    case 'open':
      return slot === null;
    case 'faulty':
      return worst === 'stop' || worst === 'fix';
    case 'sound':
      return sound;
    default:
      return slot === filter;
  }
}

/**
 * The takes that a sheet shows, in order. What is not known of a take puts it last.
 * @param text every word of it has to be in a take's name, in whatever letters
 * @param filter one of {@link sheetFilters}, or a slot
 */
export function sheetOf(
  rows: readonly SheetRow[],
  { text, filter, by }: { text: string; filter: string; by: SheetOrder },
): SheetRow[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = rows.filter(
    (row) => isShown(row, filter) && words.every((word) => row.name.toLowerCase().includes(word)),
  );
  const amount = amounts[by];
  return shown.sort((one, other) => {
    if (by === 'name') return inNumbers.compare(one.name, other.name) || one.order - other.order;
    const off = amount ? (amount(other) ?? -1) - (amount(one) ?? -1) : 0;
    return off || one.order - other.order;
  });
}
