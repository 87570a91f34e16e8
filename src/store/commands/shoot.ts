import { refuse } from '@/core/error';
import { slotOfShot } from '@/core/recipes/slots';
import {
  longestNote,
  longestVariation,
  type Log,
  type LogTag,
  type Move,
  type Pickup,
  type Rating,
} from '@/core/model/shoot-records';
import { nextNumber, type Board } from '@/core/shoot/board';
import type { FilePair } from '@/core/shoot/match-log';
import { readArranged, type Arranged } from '../arrange';
import { change, type Edit } from '../change';
import type { Store } from '../db';
import { newRecord } from './projects';

/** A log line as it is now. @throws CoreError `gone` */
export function logOf({ logs }: Pick<Arranged, 'logs'>, id: string): Log {
  const found = logs.find((log) => log.id === id);
  return found ?? refuse('gone', 'This take is no longer in the log. Undo brings it back.');
}

/**
 * Begins a take of a shot.
 * @throws CoreError `log.running` while another take of this setup runs
 */
export async function startLog(
  store: Store,
  project: string,
  setup: string,
  shot: string,
  given: Pick<Log, 'variation' | 'draft' | 'passage'>,
  id?: string,
): Promise<Log> {
  const log: Log = {
    ...newRecord(project, id),
    kind: 'log',
    setup,
    shot,
    number: 1,
    started: Date.now(),
    length: null,
    rating: null,
    tags: {},
    variation: given.variation,
    notes: '',
    take: null,
    ...(given.draft ? { draft: true } : {}),
    ...(given.passage ? { passage: given.passage } : {}),
    seen: [],
  };
  await change(store, project, 'A take', ({ logs }) => {
    const mine = logs.filter((one) => one.setup === setup);
    if (mine.some(({ length }) => length === null))
      return refuse('log.running', 'A take of this setup is still running. Stop it first.');
    log.number = nextNumber({ logs: mine.filter((one) => one.shot === shot) });
    return [{ create: log }];
  });
  return log;
}

/** A step that changes fields of a log line as it is. */
const setLog = (
  store: Store,
  { id, project }: Log,
  label: string,
  set: (now: Log) => Record<string, unknown>,
) => change(store, project, label, (records) => [{ record: id, set: set(logOf(records, id)) }]);

/** Ends a take. @param length seconds by a clock that does not jump */
export const stopLog = (store: Store, log: Log, length: number, seen: Log['seen'] = []) =>
  setLog(store, log, `Stop take ${log.number}`, () => ({
    length: Math.max(0, Number(length.toFixed(2))),
    ...(seen.length > 0 ? { seen } : {}),
  }));

/** Rates a take; the rating that it has already is taken off. */
export const rateLog = (store: Store, log: Log, rating: Rating) =>
  setLog(store, log, `Take ${log.number}: ${rating}`, (now) => ({
    rating: now.rating === rating ? null : rating,
  }));
/** Puts a tag on, or off where it is on. */
export const tagLog = (store: Store, log: Log, tag: LogTag) =>
  setLog(store, log, `Tag: ${tag}`, (now) => ({ [`tags.${tag}`]: !now.tags[tag] }));
/** Names the variation; the one that it has already is taken off. */
export const varyLog = (store: Store, log: Log, variation: string) =>
  setLog(store, log, 'Variation', (now) => ({
    variation: now.variation === variation ? '' : variation.slice(0, longestVariation),
  }));
export const noteLog = (store: Store, log: Log, notes: string) =>
  setLog(store, log, 'Note', () => ({ notes: notes.slice(0, longestNote) }));
export const removeLog = (store: Store, log: Log) =>
  change(store, log.project, `Remove take ${log.number}`, [{ remove: log.id }]);

/**
 * Rates the take of a shot that ended last, as the log stands now. Nothing while a take of its setup runs.
 * @returns the take that was rated, or null
 */
export async function rateLast(
  store: Store,
  project: string,
  { setup, shot }: { setup: string; shot: string },
  rating: Rating,
): Promise<Log | null> {
  const { logs } = await readArranged(store, project);
  const mine = logs.filter((log) => log.setup === setup);
  const last = mine.findLast((log) => log.shot === shot && log.length !== null);
  if (!last || mine.some(({ length }) => length === null)) return null;
  await rateLog(store, last, rating);
  return last;
}

/** Ties a log line to the take that its recording became, and gives that its name and role. */
export const linkTake = (
  store: Store,
  project: string,
  board: Board,
  links: readonly { log: string; take: string }[],
  automatic = false,
) =>
  change(
    store,
    project,
    links.length === 1 ? 'File of a take' : 'Files of takes',
    ({ takes, setups }) =>
      links.flatMap(({ log, take }): Edit[] => {
        const row = board.rows.find(({ logs }) => logs.some(({ id }) => id === log));
        const line = row?.logs.find(({ id }) => id === log);
        if (!row || !line) return [];
        const known = takes.find(({ id }) => id === take);
        const slot = slotOfShot(row.shot);
        const place =
          setups.length > 1 ? setups.flatMap((one) => (one.id === line.setup ? one.name : [])) : [];
        return [
          { record: log, set: { take } },
          {
            record: take,
            set: {
              name: [`${row.title}, take ${line.number}`, ...place].join(', '),
              ...(slot !== null && known?.slot !== slot ? { slot } : {}),
            },
          },
        ];
      }),
    automatic,
  );

/** Takes over which file belongs to which line. */
export const acceptPairs = (store: Store, project: string, board: Board, pairs: readonly FilePair[]) =>
  linkTake(
    store,
    project,
    board,
    pairs.map(({ file, log }) => ({ take: file, log })),
  );

/** Strikes a set. @param given shots that are given up */
export const strikeSetup = (store: Store, project: string, setup: string, given: readonly string[]) =>
  change(store, project, 'Strike the set', async (): Promise<Edit[]> => {
    const id = `strike-${setup}`;
    const fields = { at: Date.now(), given: [...given], alive: true };
    const known = await store.records.get(id);
    return [
      known
        ? { record: id, set: fields }
        : { create: { ...newRecord(project, id), kind: 'strike', setup, ...fields } },
    ];
  });

/** The set stands again. */
export const restoreSetup = (store: Store, project: string, setup: string) =>
  change(store, project, 'The set stands again', [{ remove: `strike-${setup}` }]);

/** Writes shots down that were found missing. */
export const addPickups = (
  store: Store,
  project: string,
  pickups: readonly Pick<Pickup, 'setup' | 'shot' | 'moment' | 'title' | 'why'>[],
) =>
  change(
    store,
    project,
    pickups.length === 1 ? 'A pick-up' : 'Pick-ups',
    pickups.map((pickup) => ({ create: { ...newRecord(project), kind: 'pickup' as const, ...pickup } })),
  );
export const removePickup = (store: Store, project: string, pickup: string) =>
  change(store, project, 'Not this pick-up', [{ remove: pickup }]);

/** Marks and length of a setup's repeated move. */
export const setMove = (
  store: Store,
  project: string,
  setup: string,
  set: Partial<Pick<Move, 'from' | 'to' | 'seconds'>>,
) =>
  change(store, project, 'The move', ({ moves }) => {
    const known = moves.find((move) => move.setup === setup);
    const start = { from: 'first mark', to: 'last mark', seconds: 4 };
    return [
      known
        ? { record: known.id, set }
        : { create: { ...newRecord(project, `move-${setup}`), kind: 'move', setup, ...start, ...set } },
    ];
  });
