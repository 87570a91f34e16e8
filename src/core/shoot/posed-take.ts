import type { Take } from '../model/records';
import { bestLog, type Board, type BoardRow } from './board';

/**
 * The take whose pose is stood in again: of a shot that is filmed again its best one, also in other clothes; else the
 * newest of the setup that shows somebody.
 * @returns null where there is none yet
 */
export function posedTake(board: Board, row: BoardRow | null, takes: readonly Take[]): Take | null {
  const acted = board.rows.filter(({ shot }) => shot?.what !== 'plate');
  const newest = acted.flatMap((one) => bestLog(one) ?? []).sort((a, b) => b.started - a.started);
  const again = row && acted.includes(row) ? bestLog(row) : null;
  return (
    [...(again ? [again] : []), ...newest].flatMap(
      (log) => takes.find(({ id }) => id === log.take) ?? [],
    )[0] ?? null
  );
}
