import { builtWords } from '../recipes/built';
import type { BeatGrid } from '../time/grid';
import { formatClock } from '../time/timecode';
import { sayLength, type Units } from '../units';
import { planFixes, planWords } from './say-plan';
import { shootWords } from './say-shoot';
import type { Finding, Quantity } from './finding';

/** What a sentence may name: takes and other things by id, the grid for beats, the units of lengths. */
export type Names = {
  takes: Record<string, string>;
  grid: BeatGrid | null;
  /** setups, moments and shots by id */
  things?: Record<string, string>;
  units?: Units;
};

/** The quantities of a finding in words, and when it was. */
export type Told = { measured: string; allowed: string; at: string };

/** What a finding is in words; undefined for codes of others. */
export type Words = (finding: Finding, names: Names, told: Told) => string | undefined;

/** A number with its unit, for reading. */
function sayQuantity({ value, unit }: Quantity, units: Units = 'metric'): string {
  const size = Math.abs(value);
  switch (unit) {
    case 'px':
      return `${value.toFixed(size < 0.095 ? 2 : 1)} px`;
    case 'stops':
      return `${size.toFixed(2)} stop (× ${(2 ** size).toFixed(2)})`;
    case 'deltaE':
      return `ΔE ${value.toFixed(1)}`;
    case 'share':
      return `${Math.round(value * 100)} %`;
    case 'seconds':
      return size < 0.1 ? `${Math.round(value * 1000)} ms` : `${value.toFixed(2)} s`;
    case 'frames':
      return `${value} frames`;
    case 'perSecond':
      return `${value.toFixed(2)} pictures a second`;
    case 'metres':
      return sayLength(value, units);
    case 'fNumber':
      return `f/${Number(value.toPrecision(2))}`;
    case 'minutes':
      return value < 90
        ? `${Math.round(value)} min`
        : `${Math.floor(value / 60)} h ${Math.round(value % 60)} min`;
    case 'degrees':
      return `${Math.round(value)}°`;
    case 'gigabytes':
      return `${value.toFixed(1)} GB`;
    case 'speed':
      return `${Number((value * 100).toPrecision(3))} %`;
    case 'scale':
      return `${(value * 100).toFixed(0)} %`;
    case 'count':
      return `${value}`;
  }
}

const fixes: Record<string, string> = {
  ...planFixes,
  steadyTake: 'Steady it',
  unsteadyTake: 'Leave it as filmed',
  matchTake: 'Match it to the plate',
  unmatchTake: 'Leave it as filmed',
  startEarlier: 'Start it earlier',
  dropMedia: 'Take it off the list',
};

/** A finding in words: what, how much, allowed, so what, do this. Numbers in delivery pixels. */
export function sayFinding(finding: Finding, names: Names): { text: string; fix: string | null } {
  const take = finding.where.take ? (names.takes[finding.where.take] ?? 'This take') : '';
  const facts = finding.facts ?? {};
  const measured = finding.measured ? sayQuantity(finding.measured, names.units) : '';
  const allowed = finding.allowed ? sayQuantity(finding.allowed, names.units) : '';
  const at = finding.where.from === undefined ? '' : ` at ${formatClock(finding.where.from)}`;
  const darker = (finding.measured?.value ?? 0) < 0 ? 'darker' : 'brighter';
  const number = (key: string, digits = 1) => Number(facts[key] ?? 0).toFixed(digits);
  const words: Record<string, () => string> = {
    'take.moved': () =>
      `${take} moved ${measured} ${facts.direction}${facts.during ? at : ' against the plate'} (allowed ${allowed}). The join will show.`,
    'take.steadied': () =>
      `${take} moved ${measured} ${facts.direction}${at}; it is steadied, and the plate fills the edge it leaves.`,
    'take.still': () => `${take} stands still: at most ${measured} (allowed ${allowed}).`,
    'take.light': () =>
      `${take} is ${measured} ${darker} than the plate, ΔE ${number('before')} (allowed ΔE 2.3). The join will show. Matching brings it to ΔE ${number('after')}.`,
    'take.matched': () =>
      `${take} was ${measured} ${darker}; it is matched to the plate, ΔE ${number('before')} to ${number('after')}.`,
    'take.same-light': () => `${take} has the plate's light: ${measured} apart, ΔE ${number('before')}.`,
    'take.colour-unknown': () =>
      `Too little of ${take} is still for its light to be compared. Judge it by eye.`,
    'take.other-view': () =>
      `${take} does not show the plate's view: ${measured} of the picture fits (at least ${allowed} needed). Choose a plate from this setup, or take it out of the pair.`,
    'take.size': () =>
      `${take} is ${facts.size}, the plate ${facts.plate}. They cannot be laid on one another. Film or convert both in one size.`,
    'take.turned': () => `${take} is turned by ${facts.degrees}° in its file; it is shown upright.`,
    'take.varying-rate': () =>
      `${take} was recorded at a varying rate, ${number('least')} to ${number('most')} pictures a second. Pictures are placed by their real times; set the camera to a fixed rate next time.`,
    'take.cut-off': () =>
      `${take} breaks off${at}. What can be read is used; copy the file from the camera again for the rest.`,
    'setup.no-plate': () =>
      `${finding.where.setup ? `${names.things?.[finding.where.setup] ?? 'A setup'} has` : 'There is'} no clean plate. Takes cannot be compared: bring one in, or say which clip it is.`,
    'song.silent': () => 'This song holds only silence. Choose another file, or set the tempo by hand.',
    'song.no-beats': () => 'No beats were found. Set the tempo by hand, with the needle on a beat.',
    'song.unsure': () => `The beats are not sure (${measured}). Listen, and set them right.`,
  };
  const told = { measured, allowed, at };
  const text =
    words[finding.code]?.() ??
    planWords(finding, names, told) ??
    shootWords(finding, names, told) ??
    builtWords(finding, names, told) ??
    `${facts.name}: ${facts.message}`;
  return { text, fix: finding.fix ? (fixes[finding.fix.command] ?? null) : null };
}
