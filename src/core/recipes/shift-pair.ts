import type { Moment } from '../model/records';
import { fillOf } from '../model/slots';
import { timeOfBeat, type BeatGrid } from '../time/grid';
import type { Recipe } from './recipe';

/**
 * Where the takes of two slots of a moment begin so that the first shows so much further than the second, by slot.
 * @param slots the keys of both
 */
export function beginShifted(
  moment: Moment,
  { showsFrom }: Pick<Recipe, 'showsFrom'>,
  grid: BeatGrid,
  [one, other]: readonly [string, string],
  further: number,
): Record<string, number> {
  const shows = (slot: string) => timeOfBeat(grid, showsFrom(moment, slot));
  const [first, second] = startsShifted([shows(one), shows(other)], fillOf(moment, one).at, further);
  return { [one]: first, [other]: second };
}

/**
 * Seconds of two takes at which they begin to show, so that one instant of the film shows the first take so much further
 * than the second as is asked. The first stays where it is, unless the second would have to begin before its own first
 * picture.
 * @param shows seconds of the song at which each of them begins to show
 * @param first second of the first take at which it begins to show now
 * @param further seconds of the first take, less those of the second that show with it
 */
export function startsShifted(
  shows: readonly [number, number],
  first: number,
  further: number,
): [first: number, second: number] {
  const second = first + (shows[1] - shows[0]) - further;
  return second < 0 ? [first - second, 0] : [first, second];
}

/**
 * Where two takes of a moment of which one takes the other's place on its beat begin, so that it does so at instants of
 * them that were chosen by their pictures.
 * @param seconds those instants, in each take
 * @returns by slot; null where a take would have to begin before its first picture, or none takes another's place
 */
export function beginJoined(
  moment: Moment,
  { inTurn, showsFrom }: Pick<Recipe, 'inTurn' | 'showsFrom'>,
  grid: BeatGrid,
  seconds: readonly [number, number],
): Record<string, number> | null {
  const lands = timeOfBeat(grid, moment.lands);
  const begins = (inTurn ?? []).map((slot, side): [string, number] => [
    slot,
    seconds[side] - (lands - timeOfBeat(grid, showsFrom(moment, slot))),
  ]);
  return begins.length === 0 || begins.some(([, begin]) => begin < 0) ? null : Object.fromEntries(begins);
}
