import type { Finding } from '@/core/finding/finding';
import { examineTake } from '@/core/footage/take-findings';
import { momentSchema, type Moment, type Take } from '@/core/model/records';
import { plateSlot, type Slots } from '@/core/model/slots';
import { recipeOf, slotsInUse } from '@/core/recipes/built';
import type { Material } from '@/core/recipes/material';
import { slotOfShot } from '@/core/recipes/slots';
import { bestLog, type Board, type BoardRow } from '@/core/shoot/board';
import { timeOfBeat } from '@/core/time/grid';
import { buildable, materialOf } from './material';
import { plateFor } from './plates';
import { comparisonOf, takeMeasure, type Snapshot } from './snapshot';

const rowsOf = (board: Board, moment: string): BoardRow[] =>
  board.rows.filter(({ shot }) => shot?.moments.includes(moment));

/** The best take of each of a moment's shots, with the shot. */
export function bestTakes(snapshot: Snapshot, board: Board, moment: string): { row: BoardRow; take: Take }[] {
  return rowsOf(board, moment).flatMap((row) => {
    const take = snapshot.takes.find(({ id }) => id === bestLog(row)?.take);
    return take ? [{ row, take }] : [];
  });
}

/**
 * A moment as it would be with the best takes of the set, each from where the song says; null while one of its shots
 * has none.
 */
export function trialOf(snapshot: Snapshot, board: Board, moment: Moment): Moment | null {
  const recipe = recipeOf(moment);
  const grid = snapshot.song?.grid;
  if (!recipe || !grid) return null;
  const best = bestTakes(snapshot, board, moment.id);
  const slots: Slots = {};
  for (const { key } of slotsInUse(moment, recipe)) {
    const mine = best.filter(({ row }) => slotOfShot(row.shot) === key);
    const found = mine.find(({ row }) => row.shot?.share === 'first plate') ?? mine[0];
    if (!found && key !== plateSlot) return null;
    const passage = found && bestLog(found.row)?.passage;
    const shows = recipe.showsFrom(moment, key);
    const at = passage
      ? passage.at + (timeOfBeat(grid, shows) - timeOfBeat(grid, passage.from)) / passage.speed
      : 0;
    slots[key] = { take: found?.take.id ?? null, ...(key === plateSlot ? {} : { at: Math.max(0, at) }) };
  }
  const settings = { ...moment.settings, ...recipe.ofTakes };
  return momentSchema.parse({ ...moment, settings, slots }) as Moment;
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

/** What is wrong with a moment built from the best takes. @param solved what was solved for this very trial */
export function roughFindings(
  snapshot: Snapshot,
  board: Board,
  trial: Moment,
  solved: Material['solved'],
): Finding[] {
  const able = buildable(snapshot, trial);
  if (!able) return [];
  const { material } = materialOf(snapshot, trial);
  const built = able.recipe.examine(trial, able.ruler, { ...material, solved }).filter(grave);
  const rows = rowsOf(board, trial.id);
  const rowOf = (slot: unknown) => rows.find(({ shot }) => slotOfShot(shot) === slot);
  const last = slotsInUse(trial, able.recipe).at(-1)?.key;
  const placed = built.map((finding) => {
    const row = rowOf(finding.facts?.slot) ?? rowOf(last);
    return { ...finding, where: { ...finding.where, shot: row?.id ?? '' } };
  });
  return [...bestTakeFindings(snapshot, board, trial), ...placed];
}
