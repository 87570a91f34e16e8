import { seeded } from '../random';
import type { PracticeFault } from './faults';
import type { PracticeRole } from './practice-set';

/** One take of a round: what goes wrong in it, when, and who performs. */
export type RoundTake = {
  fault: PracticeFault | null;
  at: number;
  role: Exclude<PracticeRole, 'nobody'>;
  take: number;
};

/** Faults that make a take unusable, from the plainest to the hardest to see. */
const hard: readonly PracticeFault[] = [
  'knock',
  'light drifts',
  'over the seam',
  'cloth moved',
  'auto exposure',
  'hard shadow',
  'focus breathes',
  'bump',
];

/** A round of takes to judge: about two in five are good, no fault comes twice. */
export function practiceRound(seed: number, takes = 5): RoundTake[] {
  const next = seeded(seed);
  const left = [...hard];
  const good = Math.max(1, Math.round(takes * 0.4));
  const order = Array.from({ length: takes }, (_, index) => index < good)
    .map((fine) => ({ fine, place: next() }))
    .sort((a, b) => a.place - b.place);
  return order.map(({ fine }) => ({
    fault: fine ? null : left.splice(Math.floor(next() * left.length), 1)[0],
    at: 1.2 + next() * 1.2,
    role: next() < 0.5 ? 'works' : 'stands',
    take: Math.floor(next() * 4),
  }));
}
