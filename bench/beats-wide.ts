/**
 * Beats against music that a generator wrote in many styles, beside the package music-tempo in the same run:
 * `npm run bench:beats-wide`. Needs Debian's fluidsynth, timgm6mb-soundfont, fluid-soundfont-gm and ffmpeg.
 *
 * A third of the songs is kept aside: of those only the means are said, so that nobody tunes to them.
 */
import MusicTempo from 'music-tempo';
import { trackBeats } from '../src/core/song/track';
import { fAtAnyLevel, fMeasure, performed, sampleRate } from './music';
import { writtenSongs } from './styles';

const each = Number(process.env.EACH ?? 3);
const sure = 0.6;
const wanted = { written: 0.85, any: 0.93, sure: 0.95 };

type Score = {
  written: number;
  any: number;
  firsts: number;
  theirs: number;
  theirsAny: number;
  count: number;
};
const none = (): Score => ({ written: 0, any: 0, firsts: 0, theirs: 0, theirsAny: 0, count: 0 });
const add = (to: Score, score: Omit<Score, 'count'>) => {
  for (const key of ['written', 'any', 'firsts', 'theirs', 'theirsAny'] as const) to[key] += score[key];
  to.count++;
};
const tell = (name: string, { count, ...sums }: Score) =>
  console.log(
    name.padEnd(36),
    (['written', 'any', 'firsts', 'theirs', 'theirsAny'] as const)
      .map((key) => (sums[key] / Math.max(1, count)).toFixed(2))
      .join('  '),
    ` of ${count}`,
  );

const styles = new Map<string, Score>();
const [open, aside] = [none(), none()];
const trusted = { right: 0, count: 0 };
for (const { name, style, midi, beats, downbeats, aside: isAside } of writtenSongs(each)) {
  const number = Number(name.split(' ').at(-1));
  const samples = performed(midi, name, number);
  const end = samples.length / sampleRate;
  const truth = beats.filter((time) => time < end);
  const found = trackBeats(samples, sampleRate);
  const other = new MusicTempo(samples).beats;
  const score = {
    written: fMeasure(found.beats, truth),
    any: fAtAnyLevel(found.beats, truth),
    firsts: fMeasure(
      found.downbeats,
      downbeats.filter((time) => time < end),
    ),
    theirs: fMeasure(other, truth),
    theirsAny: fAtAnyLevel(other, truth),
  };
  if (found.confidence >= sure) {
    trusted.count++;
    trusted.right += Number(score.any > 0.8);
  }
  add(isAside ? aside : open, score);
  if (isAside) continue;
  const mine = styles.get(style) ?? none();
  styles.set(style, mine);
  add(mine, score);
}
console.log('beats at the written level, at any, first beats of bars; music-tempo at both');
for (const [style, score] of styles) tell(style, score);
tell('all that may be tuned to', open);
tell('kept aside', aside);
console.log(`${trusted.right} of ${trusted.count} that are called sure are right at some level`);
const holds =
  aside.written / aside.count >= wanted.written &&
  aside.any / aside.count >= wanted.any &&
  trusted.right >= wanted.sure * trusted.count;
console.log(holds ? 'holds' : 'does not hold');
process.exitCode = holds ? 0 : 1;
