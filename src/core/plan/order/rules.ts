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

/**
 * The stage of every shot. Those that follow one another with nothing between are one piece of work, and all of
 * it waits for what any part of it waits for: else each of two such pieces would have to come before the other.
 */
function stagesOf(shots: readonly PlannedShot[], tight: readonly Rule[]): ReadonlyMap<string, number> {
  const stage = new Map(shots.map((shot) => [shot.id, stageOf(shot)]));
  const before = new Map(tight.map(({ first, then }) => [then, first]));
  for (const shot of shots) {
    const own = stageOf(shot);
    for (let at = before.get(shot.id); at !== undefined; at = before.get(at))
      stage.set(at, Math.max(own, stage.get(at) ?? 0));
  }
  const after = new Map(tight.map(({ first, then }) => [first, then]));
  for (const shot of shots) {
    const reached = stage.get(shot.id) ?? 0;
    for (let at = after.get(shot.id); at !== undefined; at = after.get(at))
      stage.set(at, Math.max(reached, stage.get(at) ?? 0));
  }
  return stage;
}

/** Rules between the stages of a setup: each shot waits for those of the stage before that has any. */
function stageRules(shots: readonly PlannedShot[], stageIn: ReadonlyMap<string, number>): Rule[] {
  const rows = stages.map((_, stage) => shots.filter(({ id }) => stageIn.get(id) === stage));
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
    if (tight)
      rules.push({
        first: tight.id,
        then: shot.id,
        tight: true,
        why: shot.oneTake ? 'one take' : 'shared object',
      });
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
  const ofMoments = momentRules(shots);
  const stage = stagesOf(
    shots,
    ofMoments.filter(({ tight }) => tight),
  );
  return [
    ...ofMoments,
    ...lockRules(shots, choices),
    ...setups.flatMap((setup) =>
      stageRules(
        shots.filter((shot) => shot.setup === setup),
        stage,
      ),
    ),
  ];
}
