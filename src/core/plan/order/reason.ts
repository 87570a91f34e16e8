import type { PlannedShot } from '../shots';
import type { Rule, Why } from './rule';

/** Why a shot stands where it stands. `other` is the shot or setup that decides. */
export type Reason = {
  why:
    | Why
    | 'opens the setup'
    | 'same clothes'
    | 'same moment'
    | 'song order'
    | 'same setup'
    | 'window'
    | 'listed';
  other?: string;
};

/**
 * Why a shot stands where it stands in an order that keeps the rules.
 * @param about the rules that the shot waits for, and its locks
 * @param start beat at which a moment begins
 * @param lit it is filmed within a daylight that it has to keep to
 */
export function reasonOf(
  index: number,
  row: readonly PlannedShot[],
  about: readonly Rule[],
  { start, lit }: { start: (moment: string) => number; lit: boolean },
): Reason {
  const shot = row[index];
  const before: PlannedShot | undefined = row[index - 1];
  if (shot.share === 'first plate') return { why: 'plate first' };
  if (shot.share === 'last plate') return { why: 'plate last' };
  const locked = about.find((rule) => rule.why === 'locked');
  if (locked?.tight && locked.then === shot.id) return { why: 'locked', other: locked.first };
  if (locked && !locked.tight && locked.first === shot.id) return { why: 'locked' };
  const tight = about.find((rule) => rule.tight && rule.then === shot.id);
  if (tight) return { why: tight.why, other: tight.first };
  if (shot.undoable === false) return { why: 'cannot be undone' };
  const waits = (why: Why) => about.find((rule) => rule.why === why && rule.then === shot.id);
  const layered = waits('back to front');
  if (layered) return { why: 'back to front', other: layered.first };
  const performed = row
    .slice(0, index)
    .some((one) => one.setup === shot.setup && one.what === 'action' && !one.dressing);
  if (shot.dressing && performed) return { why: 'performer first' };
  const needed = waits('needs');
  if (needed) return { why: 'needs', other: needed.first };
  if (before?.setup !== shot.setup)
    return lit ? { why: 'window' } : { why: 'opens the setup', other: shot.setup };
  if (shot.clothes && before.clothes === shot.clothes) return { why: 'same clothes', other: before.id };
  const [moment] = shot.moments;
  if (moment === undefined || shot.what === 'sound') return { why: 'same setup', other: shot.setup };
  if (!before.share && before.moments.includes(moment)) return { why: 'same moment', other: moment };
  const earlier = row
    .slice(0, index)
    .filter(
      (one) => one.setup === shot.setup && !one.share && one.what !== 'sound' && one.moments.length > 0,
    );
  return earlier.every((one) => start(one.moments[0]) <= start(moment))
    ? { why: 'song order' }
    : { why: 'same setup', other: shot.setup };
}
