import { refuse } from '@/core/error';
import type { Role } from '@/core/model/records';
import type { Log, LogTag, Move, Pickup, Rating } from '@/core/model/shoot-records';
import type { PlannedShot } from '@/core/plan/shots';
import { nextNumber, type Board, type BoardRow } from '@/core/shoot/board';
import type { FilePair } from '@/core/shoot/match-log';
import { change, type Edit } from '../change';
import type { Store } from '../db';
import type { Snapshot } from '../snapshot';
import { newRecord } from './projects';

/** Which copy a shot's takes are for the pair. */
export function roleOf(shot: PlannedShot | null): Role {
  if (shot?.what === 'plate') return 'plate';
  return shot?.key === 'left' || shot?.key === 'right' ? shot.key : 'none';
}

/**
 * Begins a take of a shot.
 * @throws CoreError `log.running` while another take of this setup runs
 */
export async function startLog(
  store: Store,
  { project, logs }: Snapshot,
  board: Board,
  row: BoardRow,
  given: Pick<Log, 'variation' | 'draft' | 'passage'>,
): Promise<Log> {
  const running = logs.find((log) => log.length === null && log.setup === board.setup);
  if (running) refuse('log.running', 'A take of this setup is still running. Stop it first.');
  const log: Log = {
    ...newRecord(project.id),
    kind: 'log',
    setup: board.setup,
    shot: row.id,
    number: nextNumber(row),
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
  await change(store, project.id, `Take ${log.number}`, [{ create: log }]);
  return log;
}

const setLog = (store: Store, log: Log, label: string, set: Record<string, unknown>, automatic = false) =>
  change(store, log.project, label, [{ record: log.id, set }], automatic);

/** Ends a take. @param length seconds by a clock that does not jump */
export const stopLog = (store: Store, log: Log, length: number, seen: Log['seen'] = []) =>
  setLog(store, log, `Stop take ${log.number}`, {
    length: Math.max(0, Number(length.toFixed(2))),
    ...(seen.length > 0 ? { seen } : {}),
  });

export const rateLog = (store: Store, log: Log, rating: Rating | null) =>
  setLog(store, log, rating ? `Take ${log.number}: ${rating}` : `Take ${log.number}: not rated`, { rating });
export const tagLog = (store: Store, log: Log, tag: LogTag, on: boolean) =>
  setLog(store, log, on ? `Tag: ${tag}` : `No tag: ${tag}`, { [`tags.${tag}`]: on });
export const varyLog = (store: Store, log: Log, variation: string) =>
  setLog(store, log, 'Variation', { variation: variation.slice(0, 80) });
export const noteLog = (store: Store, log: Log, notes: string) =>
  setLog(store, log, 'Note', { notes: notes.slice(0, 4000) });
export const removeLog = (store: Store, log: Log) =>
  change(store, log.project, `Remove take ${log.number}`, [{ remove: log.id }]);

/** Ties a log line to the take that its recording became, and gives that its name and role. */
export async function linkTake(
  store: Store,
  { project, takes }: Pick<Snapshot, 'project' | 'takes'>,
  board: Board,
  links: readonly { log: string; take: string }[],
  automatic = false,
): Promise<void> {
  const edits = links.flatMap(({ log, take }): Edit[] => {
    const row = board.rows.find(({ logs }) => logs.some(({ id }) => id === log));
    const line = row?.logs.find(({ id }) => id === log);
    if (!row || !line) return [];
    const known = takes.find(({ id }) => id === take);
    const role = roleOf(row.shot);
    return [
      { record: log, set: { take } },
      {
        record: take,
        set: {
          name: `${row.title}, take ${line.number}`,
          ...(role !== 'none' && known?.role !== role ? { role } : {}),
        },
      },
    ];
  });
  await change(store, project.id, links.length === 1 ? 'File of a take' : 'Files of takes', edits, automatic);
}

/** Takes over which file belongs to which line. */
export const acceptPairs = (store: Store, snapshot: Snapshot, board: Board, pairs: readonly FilePair[]) =>
  linkTake(
    store,
    snapshot,
    board,
    pairs.map(({ file, log }) => ({ take: file, log })),
  );

/** Strikes a set. @param given shots that are given up */
export async function strikeSetup(
  store: Store,
  project: string,
  setup: string,
  given: readonly string[],
): Promise<void> {
  const id = `strike-${setup}`;
  const fields = { at: Date.now(), given: [...given], alive: true };
  const known = await store.records.get(id);
  await change(store, project, 'Strike the set', [
    known
      ? { record: id, set: fields }
      : { create: { ...newRecord(project, id), kind: 'strike', setup, ...fields } },
  ]);
}

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
export async function setMove(
  store: Store,
  { project, moves }: Snapshot,
  setup: string,
  set: Partial<Pick<Move, 'from' | 'to' | 'seconds'>>,
): Promise<void> {
  const known = moves.find((move) => move.setup === setup);
  const start = { from: 'first mark', to: 'last mark', seconds: 4 };
  await change(store, project.id, 'The move', [
    known
      ? { record: known.id, set }
      : { create: { ...newRecord(project.id, `move-${setup}`), kind: 'move', setup, ...start, ...set } },
  ]);
}
