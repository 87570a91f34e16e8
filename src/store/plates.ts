import { setupOf } from '@/core/plan/shots';
import type { Moment, Take } from '@/core/model/records';
import type { Log } from '@/core/model/shoot-records';
import { fillOf, noSlot, plateSlot } from '@/core/model/slots';
import { remembered, rememberedWith } from '@/core/remember';
import type { Arranged } from './arrange';

type Filmed = Pick<Arranged, 'takes' | 'logs' | 'setups'>;

/** Log lines by the take that they point at; the first one where several do. */
const logsByTake = remembered((logs: readonly Log[]): ReadonlyMap<string, Log> => {
  const out = new Map<string, Log>();
  for (const log of logs) if (log.take && !out.has(log.take)) out.set(log.take, log);
  return out;
});

/** The setup that a take was logged in, or put together for; null for a take that nobody logged. */
export const filmedIn = ({ logs }: Pick<Filmed, 'logs'>, take: Take): string | null =>
  logsByTake(logs).get(take.id)?.setup ?? take.made?.setup ?? null;

/** True for takes that may serve a setup: logged in it, or in none. */
export const serves = (film: Pick<Filmed, 'logs'>, take: Take, setup: string): boolean => {
  const own = filmedIn(film, take);
  return own === null || own === setup;
};

/**
 * The plates that hold for a setup, the best first: those logged in it that were not rated "no", then such as
 * nobody logged. Never another setup's.
 */
function platesOf({ takes, logs }: Filmed, setup: string): Take[] {
  const known = found(takes, [logs], () => new Map());
  const there = known.get(setup);
  if (there) return there;
  const plates = takes.filter(({ slot }) => slot === plateSlot);
  const rated = (take: Take) => logsByTake(logs).get(take.id)?.rating ?? null;
  const logged = plates.filter((take) => filmedIn({ logs }, take) === setup && rated(take) !== 'no');
  const good = logged.filter((take) => rated(take) === 'good');
  const others = logged.filter((take) => rated(take) !== 'good');
  const loose = plates.filter((take) => filmedIn({ logs }, take) === null);
  // One that was filmed is always better than one that was put together.
  const all = [...good, ...others, ...loose];
  const sorted = [...all.filter(({ made }) => !made), ...all.filter(({ made }) => made)];
  known.set(setup, sorted);
  return sorted;
}
const found = rememberedWith<Take[], Map<string, Take[]>>();

/** The plate that a take is held against by itself: one of its setup; of a take that nobody logged, a loose one. */
export function plateFor(film: Filmed, take: Take): Take | null {
  const setup = filmedIn(film, take) ?? (film.setups.length === 1 ? film.setups[0].id : '');
  return platesOf(film, setup)[0] ?? null;
}

/** takes that a plate is put together from at the most */
const mostParts = 6;

/** The takes that a clean plate can be put together from. @param setup null for those that nobody logged */
export const partsOfPlate = (film: Filmed, setup: string | null): Take[] =>
  film.takes
    .filter(
      (take) =>
        take.slot !== plateSlot && take.slot !== noSlot && !take.sketch && filmedIn(film, take) === setup,
    )
    .slice(0, mostParts);

/** The setup that a moment is filmed in. */
export const setupOfMoment = ({ setups }: Pick<Filmed, 'setups'>, moment: Moment): string =>
  setupOf(setups, moment.setup);

/** The plates that a moment can stand on. */
export const platesFor = (film: Filmed, moment: Moment): Take[] =>
  platesOf(film, setupOfMoment(film, moment));

/** The plate that a moment stands on: the one chosen for it by hand, else the first of its setup's. */
export function plateOfMoment(film: Filmed, moment: Moment): Take | null {
  const setup = setupOfMoment(film, moment);
  const chosen = film.takes.find(({ id }) => id === fillOf(moment, plateSlot).take);
  return chosen && serves(film, chosen, setup) ? chosen : (platesOf(film, setup)[0] ?? null);
}
