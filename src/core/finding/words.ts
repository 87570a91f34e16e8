import { beatLabel, type BeatGrid } from '../time/grid';
import { formatClock } from '../time/timecode';
import { sayLength, type Units } from '../units';
import type { Finding, Place } from './finding';
import { sayQuantity } from './say-quantity';

/** What a sentence may name: takes and other things by id, the grid for beats, the units of lengths. */
export type Names = {
  takes: Record<string, string>;
  grid: BeatGrid | null;
  /** setups, moments and shots by id */
  things?: Record<string, string>;
  units?: Units;
};

/** A finding made ready to be put into a sentence. */
export type Telling = {
  where: Place;
  facts: Record<string, string | number>;
  /** the measured number itself; 0 where nothing was measured */
  value: number;
  /** the quantities in words; empty where there are none */
  measured: string;
  allowed: string;
  /** " at 0:05.20"; empty where it has no time */
  at: string;
  /** names of the places that it has */
  take: string;
  setup: string;
  shot: string;
  /** a fact that is a length in metres, in words */
  metres(fact: string): string;
  /** a fact that is a position in beats, in words */
  beat(fact: string): string;
  /** a fact that is a number, rounded */
  number(fact: string, digits?: number): string;
};

/**
 * What findings are in words, by their codes. Each stands beside the code that raises them, whose findings have no
 * other codes.
 */
export type Words = Readonly<Record<string, (telling: Telling) => string>>;

/** Makes a finding ready to be put into a sentence. */
export function tellingOf({ where, facts = {}, measured, allowed }: Finding, names: Names): Telling {
  const { grid, things = {}, units = 'metric' } = names;
  return {
    where,
    facts,
    value: measured?.value ?? 0,
    measured: measured ? sayQuantity(measured, units) : '',
    allowed: allowed ? sayQuantity(allowed, units) : '',
    at: where.from === undefined ? '' : ` at ${formatClock(where.from)}`,
    take: (where.take && names.takes[where.take]) ?? 'This take',
    setup: (where.setup && things[where.setup]) ?? 'This setup',
    shot: (where.shot && things[where.shot]) ?? 'This shot',
    metres: (fact) => sayLength(Number(facts[fact]), units),
    beat: (fact) => (grid ? beatLabel(grid, Number(facts[fact])) : 'its beat'),
    number: (fact, digits = 1) => Number(facts[fact] ?? 0).toFixed(digits),
  };
}
