import { playbackSpeed } from '../camera/speed';
import type { Moment } from '../model/records';
import type { Pass } from '../model/plan-records';
import type { PlannedShot } from '../plan/shots';

/** What of the song is played while a shot is filmed: beat positions, and how fast. */
export type Passage = { from: number; until: number; speed: number };

/**
 * The passage of a shot: its moment's bars, or those of its performance. Footage that will be slowed is filmed to
 * a song that is faster by the same factor.
 * @param last beat position of the song's end
 * @returns null for plates and wild sounds, which need silence
 */
export function passageOf(
  shot: PlannedShot | null,
  plan: { moments: readonly Moment[]; passes: readonly Pass[] },
  last: number,
): Passage | null {
  if (!shot || shot.what === 'plate' || shot.what === 'patch' || shot.what === 'sound') return null;
  const speed = playbackSpeed(shot.speed);
  const pass = plan.passes.find(({ id }) => id === shot.id);
  if (pass) return { from: pass.from ?? 0, until: pass.until ?? last, speed };
  const moment = plan.moments.find(({ id }) => id === shot.moments[0]);
  return moment ? { from: moment.start, until: moment.end, speed } : null;
}
