/**
 * Beats against all known music (known.ts), beside the packages music-tempo and essentia.js in the same run:
 * `npm run bench:beats-wide`, EACH songs of each style. What is kept aside is only told as means by where it comes
 * from, so that nobody tunes to it.
 */
import { Essentia, EssentiaWASM } from 'essentia.js';
import MusicTempo from 'music-tempo';
import { sureFrom } from '../src/core/song/certainty';
import { levelsOf } from '../src/core/song/energy';
import { findSections } from '../src/core/song/sections';
import { trackBeats } from '../src/core/song/track';
import { knownMusic } from './songs/known';
import { fAtAnyLevel, fMeasure, sampleRate } from './songs/music';

const each = Number(process.env.EACH ?? 3);
const wanted = { written: 0.85, any: 0.93, sure: 0.95, two: 0.95, time: 1 / 3 };
/** seconds by which the beginning of a section may be off; common practice */
const nearSection = 1;
/** from which F-measure on a song's beats are right */
const right = 0.8;

const names = [
  'written',
  'any',
  'firsts',
  'sections',
  'tempo written',
  'tempo any',
  'essentia written',
  'essentia any',
] as const;
type Score = Record<(typeof names)[number], number>;
class Mean {
  private sums: Partial<Score> = {};
  private counts: Partial<Score> = {};
  count = 0;

  add(score: Partial<Score>): void {
    this.count++;
    for (const name of names) {
      const value = score[name];
      if (value === undefined) continue;
      this.sums[name] = (this.sums[name] ?? 0) + value;
      this.counts[name] = (this.counts[name] ?? 0) + 1;
    }
  }

  of(name: keyof Score): number {
    return (this.sums[name] ?? 0) / Math.max(1, this.counts[name] ?? 0);
  }

  tell(title: string): void {
    const cells = names.map((name) => (this.counts[name] ? this.of(name).toFixed(2) : '  - '));
    console.log(title.padEnd(36), cells.join('  '), ` of ${this.count}`);
  }
}

const groups = new Map<string, Mean>();
const mean = (name: string): Mean => {
  const known = groups.get(name) ?? new Mean();
  groups.set(name, known);
  return known;
};
const [open, aside] = [new Mean(), new Mean()];
const [sure, two] = [
  { right: 0, count: 0 },
  { right: 0, count: 0 },
];
const spent = { ours: 0, theirs: 0 };
/** the same on pieces that last as long as a song does, since music-tempo's time rises faster than the length */
const spentOnWhole = { ours: 0, theirs: 0 };
/** how many passages make up such a piece, and how many of them are put together into each one that is timed */
const [passages, every] = [3, 24];
const timed = <T>(whose: keyof typeof spent, work: () => T, into = spent): T => {
  const begun = performance.now();
  const answer = work();
  into[whose] += performance.now() - begun;
  return answer;
};
/** It throws where it finds no tempo. */
function tempoBeats(samples: Float32Array): number[] {
  try {
    return new MusicTempo(samples).beats;
  } catch {
    return [];
  }
}
const essentia = new Essentia(EssentiaWASM);
function essentiaBeats(samples: Float32Array): number[] {
  const vector = essentia.arrayToVector(samples);
  const { ticks } = essentia.BeatTrackerMultiFeature(vector, 208, 40);
  const beats = [...essentia.vectorToArray(ticks)];
  vector.delete();
  ticks.delete();
  return beats;
}

const recent: Float32Array[] = [];
/** Times both on the last passages one after the other. */
function timeWhole(): void {
  const whole = new Float32Array(recent.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const passage of recent) {
    whole.set(passage, at);
    at += passage.length;
  }
  timed('ours', () => trackBeats(whole, sampleRate), spentOnWhole);
  timed('theirs', () => tempoBeats(whole), spentOnWhole);
}

for (const { group, source, aside: isAside, samples, beats, downbeats, sections } of knownMusic(each)) {
  recent.push(samples);
  if (recent.length > passages) recent.shift();
  if ((two.count + 1) % every === 0) timeWhole();
  const end = samples.length / sampleRate;
  const truth = beats.filter((time) => time < end);
  const found = timed('ours', () => trackBeats(samples, sampleRate));
  const theirs = timed('theirs', () => tempoBeats(samples));
  const others = essentiaBeats(samples);
  const score: Partial<Score> = {
    written: fMeasure(found.beats, truth),
    any: fAtAnyLevel(found.beats, truth),
    'tempo written': fMeasure(theirs, truth),
    'tempo any': fAtAnyLevel(theirs, truth),
    'essentia written': fMeasure(others, truth),
    'essentia any': fAtAnyLevel(others, truth),
    ...(downbeats
      ? {
          firsts: fMeasure(
            found.downbeats,
            downbeats.filter((time) => time < end),
          ),
        }
      : {}),
  };
  if (sections?.length) {
    const levels = levelsOf(samples, sampleRate);
    const starts = findSections(samples, sampleRate, found.downbeats, levels, found.hits);
    score.sections = fMeasure(
      starts.map(({ time }) => time),
      sections.filter((time) => time < end),
      nearSection,
    );
  }
  const other = found.other ? fMeasure(found.other.beats, truth) : 0;
  two.count++;
  two.right += Number(Math.max(score.written ?? 0, other) > right);
  if (found.confidence >= sureFrom) {
    sure.count++;
    sure.right += Number((score.any ?? 0) > right);
  }
  (isAside ? aside : open).add(score);
  mean(isAside ? `aside: ${source}` : group).add(score);
}
console.log(
  'beats at the written level and at any, first beats, sections; music-tempo at both; essentia.js at both',
);
for (const [name, group] of groups) group.tell(name);
open.tell('all that may be tuned to');
aside.tell('all that is kept aside');
const share = (of: { right: number; count: number }) => of.right / Math.max(1, of.count);
console.log(`${sure.right} of ${sure.count} that are called sure are right at some level`);
console.log(`${two.right} of ${two.count} have the right beats among the two best readings`);
const time = (of: typeof spent) => of.ours / of.theirs;
console.log(`${time(spent).toFixed(3)} of music-tempo's time on these passages`);
console.log(
  `${time(spentOnWhole).toFixed(3)} of it on pieces of ${passages} of them, which last as long as songs do`,
);
const holds =
  aside.of('written') >= wanted.written &&
  aside.of('any') >= wanted.any &&
  aside.of('written') > Math.max(aside.of('tempo written'), aside.of('essentia written')) &&
  aside.of('any') > Math.max(aside.of('tempo any'), aside.of('essentia any')) &&
  share(sure) >= wanted.sure &&
  share(two) >= wanted.two &&
  time(spentOnWhole) <= wanted.time;
console.log(holds ? 'holds' : 'does not hold');
process.exitCode = holds ? 0 : 1;
