import type { Finding } from '@/core/finding/finding';
import { examineTake } from '@/core/footage/take-findings';
import { momentSchema, type CloneMoment, type Moment, type Take } from '@/core/model/records';
import { plateSlot } from '@/core/model/slots';
import { clone } from '@/core/recipes/clone';
import { sides, type Side } from '@/core/recipes/clone/material';
import type { SeamMeasure } from '@/core/model/measures';
import { bestLog, type Board, type BoardRow } from '@/core/shoot/board';
import { timeOfBeat } from '@/core/time/grid';
import { plateFor } from './plates';
import { comparisonOf, materialOf, rulerOf, takeMeasure, type Snapshot } from './snapshot';

const rowsOf = (board: Board, moment: string): BoardRow[] =>
  board.rows.filter(({ shot }) => shot?.moments.includes(moment));

/** The best take of each of a moment's shots, with the shot. */
export function bestTakes(snapshot: Snapshot, board: Board, moment: string): { row: BoardRow; take: Take }[] {
  return rowsOf(board, moment).flatMap((row) => {
    const take = snapshot.takes.find(({ id }) => id === bestLog(row)?.take);
    return take ? [{ row, take }] : [];
  });
}

/** A clone as it would be with the best takes of the set, each from where the song says; null while one lacks. */
export function trialOf(snapshot: Snapshot, board: Board, moment: CloneMoment): CloneMoment | null {
  const best = bestTakes(snapshot, board, moment.id);
  const find = (test: (row: BoardRow) => boolean) => best.find(({ row }) => test(row)) ?? null;
  const plate =
    find(({ shot }) => shot?.share === 'first plate') ?? find(({ shot }) => shot?.what === 'plate');
  const [left, right] = sides.map((key) => find(({ shot }) => shot?.key === key));
  const grid = snapshot.song?.grid;
  if (!left || !right || !grid) return null;
  const begins = (side: Side, row: BoardRow): number => {
    const passage = bestLog(row)?.passage;
    if (!passage) return 0;
    const shows = side === moment.settings.first ? moment.start : moment.lands;
    return Math.max(
      0,
      passage.at + (timeOfBeat(grid, shows) - timeOfBeat(grid, passage.from)) / passage.speed,
    );
  };
  return momentSchema.parse({
    ...moment,
    settings: { ...moment.settings, seam: null },
    slots: {
      [plateSlot]: { take: plate?.take.id ?? null },
      left: { take: left.take.id, at: begins('left', left.row) },
      right: { take: right.take.id, at: begins('right', right.row) },
    },
  }) as CloneMoment;
}

const grave = ({ severity }: Finding) => severity === 'stop' || severity === 'fix';

/** What is wrong with the best takes of a moment by themselves. */
export function bestTakeFindings(snapshot: Snapshot, board: Board, moment: Moment): Finding[] {
  return bestTakes(snapshot, board, moment.id).flatMap(({ take, row }) => {
    const measure = takeMeasure(snapshot, take);
    const plate = plateFor(snapshot, take);
    if (!measure) return [];
    const comparison = plate?.id === take.id ? null : comparisonOf(snapshot, take, plate);
    return examineTake(take, measure, comparison, takeMeasure(snapshot, plate), snapshot.project)
      .filter(grave)
      .map((finding) => ({ ...finding, where: { ...finding.where, shot: row.id } }));
  });
}

/** What is wrong with a clone joined from the best takes. @param seam solved for this very trial */
export function roughFindings(
  snapshot: Snapshot,
  board: Board,
  trial: CloneMoment,
  seam: SeamMeasure,
): Finding[] {
  const ruler = rulerOf(snapshot);
  if (!ruler) return [];
  const { material } = materialOf(snapshot, trial);
  const joined = clone.examine(trial, ruler, { ...material, seam }).filter(grave);
  const right = rowsOf(board, trial.id).find(({ shot }) => shot?.key === 'right');
  const sided = joined.map((finding) => {
    const role = finding.facts?.role;
    const row = rowsOf(board, trial.id).find(({ shot }) => shot?.key === role) ?? right;
    return { ...finding, where: { ...finding.where, shot: row?.id ?? '' } };
  });
  return [...bestTakeFindings(snapshot, board, trial), ...sided];
}
