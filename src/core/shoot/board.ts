import type { Log, Pickup, Strike } from '../model/shoot-records';
import type { PlannedShot } from '../plan/shots';

/** A shot of a setup with what was filmed of it. */
export type BoardRow = {
  /** the planned shot's id, or `pickup/` and a pick-up's */
  id: string;
  title: string;
  note: string;
  /** null for a pick-up, or for a shot that is no longer planned */
  shot: PlannedShot | null;
  pickup: Pickup | null;
  logs: Log[];
  good: number;
  maybe: number;
  /** how many good takes each variation has; those that are asked for come first */
  variations: { name: string; good: number; asked: boolean }[];
  /** every need of this shot has a good take */
  done: boolean;
  /** it was filmed, but some variation or any good take is missing */
  begun: boolean;
};

export type Board = {
  setup: string;
  rows: BoardRow[];
  /** the row to film now: the first one in the planned order that is not done */
  next: BoardRow | null;
  missing: BoardRow[];
  /** every need has a good take: the set may be struck */
  ready: boolean;
  struck: Strike | null;
};

const byTime = (a: Log, b: Log) => a.started - b.started || (a.id < b.id ? -1 : 1);

/** How many good takes each variation of a shot has. */
function variationsOf(asked: readonly string[], logs: readonly Log[]): BoardRow['variations'] {
  const good = logs.filter((log) => log.rating === 'good' && log.variation !== '');
  const own = [...new Set(good.map(({ variation }) => variation))].filter((name) => !asked.includes(name));
  return [...asked, ...own].map((name) => ({
    name,
    good: good.filter(({ variation }) => variation === name).length,
    asked: asked.includes(name),
  }));
}

function rowOf(
  id: string,
  title: string,
  note: string,
  logs: readonly Log[],
  more: Pick<BoardRow, 'shot' | 'pickup'>,
): BoardRow {
  const mine = logs.filter((log) => log.shot === id).sort(byTime);
  const good = mine.filter(({ rating }) => rating === 'good').length;
  const variations = variationsOf(more.shot?.variations ?? [], mine);
  const done = good > 0 && variations.every((one) => !one.asked || one.good > 0);
  return {
    id,
    title,
    note,
    ...more,
    logs: mine,
    good,
    maybe: mine.filter(({ rating }) => rating === 'maybe').length,
    variations,
    done,
    begun: mine.length > 0 && !done,
  };
}

/**
 * What is done, what is next and what is missing in one setup.
 * @param shots the setup's shots in the planned order
 */
export function boardOf(
  setup: string,
  shots: readonly PlannedShot[],
  records: { logs: readonly Log[]; pickups: readonly Pickup[]; strikes: readonly Strike[] },
): Board {
  const logs = records.logs.filter((log) => log.setup === setup);
  const planned = shots.map((shot) => rowOf(shot.id, shot.title, shot.note, logs, { shot, pickup: null }));
  const pickups = records.pickups
    .filter((pickup) => pickup.setup === setup)
    .map((pickup) => rowOf(`pickup/${pickup.id}`, pickup.title, pickup.why, logs, { shot: null, pickup }));
  const rows = [...planned, ...pickups];
  const known = new Set(rows.map(({ id }) => id));
  // What was filmed stays on the board when its shot is no longer planned.
  const loose = [...new Set(logs.map(({ shot }) => shot))].filter((shot) => !known.has(shot));
  const extra = loose.map((shot) => ({
    ...rowOf(shot, 'No longer planned', 'Its moment was removed; what was filmed is kept.', logs, {
      shot: null,
      pickup: null,
    }),
    done: true,
    begun: false,
  }));
  const missing = rows.filter(({ done }) => !done);
  return {
    setup,
    rows: [...rows, ...extra],
    next: missing[0] ?? null,
    missing,
    ready: rows.length > 0 && missing.length === 0,
    struck: records.strikes.find((strike) => strike.setup === setup) ?? null,
  };
}

/** A take is much shorter than its shot from this share of what it needs. Common practice, no published source. */
const muchShorter = 0.6;

/** Good takes that are much shorter than what is to be recorded of their shot, handles included. */
export const shortTakes = ({ shot, logs }: Pick<BoardRow, 'shot' | 'logs'>): Log[] =>
  logs.filter(
    ({ rating, length }) =>
      rating === 'good' && shot !== null && (length ?? Infinity) < muchShorter * shot.seconds,
  );

/** The number that the next slate of a shot shows. */
export const nextNumber = ({ logs }: Pick<BoardRow, 'logs'>): number =>
  Math.max(0, ...logs.map(({ number }) => number)) + 1;

/** "3", or "3b" for the second take that some other phone slated as 3. */
export function takeLabel(log: Log, logs: readonly Log[]): string {
  const same = logs.filter((one) => one.shot === log.shot && one.number === log.number).sort(byTime);
  const at = same.findIndex(({ id }) => id === log.id);
  return `${log.number}${at > 0 ? String.fromCharCode(97 + Math.min(25, at)) : ''}`;
}

/** The take of a row to build with: the last good one, else the last maybe, that has a file. */
export function bestLog({ logs }: Pick<BoardRow, 'logs'>): Log | null {
  const filed = logs.filter(({ take }) => take !== null);
  return (
    filed.findLast(({ rating }) => rating === 'good') ??
    filed.findLast(({ rating }) => rating === 'maybe') ??
    null
  );
}
