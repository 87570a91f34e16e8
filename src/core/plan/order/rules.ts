import type { ShotChoice } from '../../model/plan-records';
import type { Rule } from './rule';
import type { PlannedShot } from '../shots';

/** What comes before what in a setup, and why the later comes later. */
const stages = ['plate first', 'needs', 'performer first', 'cannot be undone', 'plate last'] as const;

function stageOf(shot: PlannedShot): number {
  if (shot.share === 'first plate') return 0;
  if (shot.share === 'last plate') return 4;
  if (shot.undoable === false) return 3;
  return shot.dressing ? 2 : 1;
}

/** Rules between the stages of a setup: each shot waits for those of the stage before that has any. */
function stageRules(shots: readonly PlannedShot[]): Rule[] {
  const rows = stages.map((_, stage) => shots.filter((shot) => stageOf(shot) === stage));
  return rows.flatMap((row, stage) => {
    const before = rows.slice(0, stage).findLast(({ length }) => length > 0) ?? [];
    const why = before[0]?.share === 'first plate' ? 'plate first' : stages[stage];
    return row.flatMap((then) =>
      before.map((first) => ({ first: first.id, then: then.id, tight: false, why })),
    );
  });
}

/** Rules within a moment: what a shot needs before it, objects used by two parts, the back before the front. */
function momentRules(shots: readonly PlannedShot[]): Rule[] {
  const rules: Rule[] = [];
  const byKey = new Map<string, PlannedShot>();
  for (const shot of shots)
    for (const moment of shot.moments) byKey.set(`${moment}/${shot.key}/${shot.setup}`, shot);
  const find = (shot: PlannedShot, key: string) => byKey.get(`${shot.moments[0]}/${key}/${shot.setup}`);
  for (const shot of shots) {
    for (const key of shot.after ?? []) {
      const first = find(shot, key);
      if (first && !first.share) rules.push({ first: first.id, then: shot.id, tight: false, why: 'needs' });
    }
    const tight = shot.straightAfter && find(shot, shot.straightAfter);
    if (tight) rules.push({ first: tight.id, then: shot.id, tight: true, why: 'shared object' });
  }
  const layered = shots.filter((shot) => shot.depth !== undefined);
  for (const shot of layered) {
    const next = layered.find(
      (one) => one.moments[0] === shot.moments[0] && one.depth === (shot.depth ?? 0) + 1,
    );
    if (next) rules.push({ first: shot.id, then: next.id, tight: false, why: 'back to front' });
  }
  return rules;
}

/** Places that the person has locked. */
function lockRules(shots: readonly PlannedShot[], choices: readonly ShotChoice[]): Rule[] {
  return choices.flatMap(({ shot, after }): Rule[] => {
    if (after === null || after === shot) return [];
    if (after !== 'first') return [{ first: after, then: shot, tight: true, why: 'locked' }];
    return shots
      .filter((one) => one.id !== shot)
      .map((one) => ({ first: shot, then: one.id, tight: false, why: 'locked' as const }));
  });
}

/**
 * What the order of filming has to obey. Plates come first and last in their setup, the performer before set
 * dressing is moved, what cannot be undone last.
 */
export function rulesOf(shots: readonly PlannedShot[], choices: readonly ShotChoice[]): Rule[] {
  const setups = [...new Set(shots.map((shot) => shot.setup))];
  return [
    ...momentRules(shots),
    ...lockRules(shots, choices),
    ...setups.flatMap((setup) => stageRules(shots.filter((shot) => shot.setup === setup))),
  ];
}
