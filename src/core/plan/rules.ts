import type { ShotChoice } from '../model/plan-records';
import type { Job, Rule } from './rule';
import type { PlannedShot } from './shots';

/** Milestones of a setup, in order. Every shot falls between two of them. */
const stages = ['plate first', 'performer first', 'cannot be undone', 'plate last'] as const;

function stageOf(shot: PlannedShot): number {
  if (shot.share === 'first plate') return 0;
  if (shot.share === 'last plate') return 4;
  if (shot.undoable === false) return 3;
  return shot.dressing ? 2 : 1;
}

/** Rules between whole groups of a setup, run through milestones so that they stay few. */
function stageRules(setup: string, shots: readonly PlannedShot[]): { gates: Job[]; rules: Rule[] } {
  const gates: Job[] = [];
  const rules: Rule[] = [];
  stages.forEach((why, index) => {
    const gate = `${setup}/until ${why}`;
    const before = shots.filter((shot) => stageOf(shot) === index);
    const after = shots.filter((shot) => stageOf(shot) === index + 1);
    gates.push({ id: gate, setup, clothes: '', minutes: 0, rank: 0, gate: true });
    if (index > 0) rules.push({ first: gates[index - 1].id, then: gate, tight: false, why });
    for (const shot of before) rules.push({ first: shot.id, then: gate, tight: false, why });
    for (const shot of after) rules.push({ first: gate, then: shot.id, tight: false, why });
  });
  return { gates, rules };
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
export function rulesOf(
  shots: readonly PlannedShot[],
  choices: readonly ShotChoice[],
): { gates: Job[]; rules: Rule[] } {
  const setups = [...new Set(shots.map((shot) => shot.setup))];
  const staged = setups.map((setup) =>
    stageRules(
      setup,
      shots.filter((shot) => shot.setup === setup),
    ),
  );
  return {
    gates: staged.flatMap(({ gates }) => gates),
    rules: [...momentRules(shots), ...lockRules(shots, choices), ...staged.flatMap(({ rules }) => rules)],
  };
}
