import { refuse } from '../error';
import { findBars, type Bars } from './bars';
import { extendBeats, followBeats, type LockedPassage } from './beats';
import { findHits, type Hit } from './hits';
import { findOnsets, peakNear, sharpen, strongestNear } from './onsets';
import { slowDown } from './spectrum';
import { followTempo, unusual } from './tempo';
import { findTonal } from './tonal';

export type { Hit };
export type BeatTrack = {
  beats: number[];
  downbeats: number[];
  beatsPerBar: number;
  bpm: number;
  confidence: number;
  hits: Hit[];
};

export type BeatHints = {
  minBpm?: number;
  maxBpm?: number;
  beatsPerBar?: number;
  /** passages whose beats stay; the rest is found so that it joins them */
  locked?: readonly (LockedPassage & { downbeats: number[] })[];
  /** hears how much is done, 0..1 */
  report?: (share: number) => void;
};

/** Levels beside the one that the tempo path found. */
const ratios = [1, 2, 1 / 2, 3 / 2, 2 / 3, 4 / 3, 3 / 4];

/** What bars of so many beats have to make up for. Common practice, no published source. */
const unusualLength: Record<number, number> = { 3: 0.1, 5: 0.5, 7: 0.5 };

/** A level of the tempo that was followed to the end. */
type Option = { period: Float32Array; bars: Bars; value: number };
const better = (best: Option, option: Option) => (option.value > best.value ? option : best);

/** How alike the song is to itself a beat later: 0 in noise, near 1 where every beat is the same. */
function returning(onsets: Float32Array, period: Float32Array): number {
  let [same, all] = [0, 0];
  for (let at = 0; at < onsets.length; at++) {
    const before = Math.round(at - period[at]);
    if (before < 2) continue;
    same += onsets[at] * Math.max(onsets[before - 1], onsets[before], onsets[before + 1]);
    all += onsets[at] * onsets[at];
  }
  const mean = onsets.reduce((sum, value) => sum + value, 0) / Math.max(1, onsets.length);
  return all > 0 ? Math.max(0, same / all - 2 * mean * mean) : 0;
}

const middleOf = (values: ArrayLike<number>): number => Float64Array.from(values).sort()[values.length >> 1];

/** What locked passages ask of each hop, and the tempo inside them. */
function lockedRule(locked: readonly LockedPassage[], start: number, rate: number, period: Float32Array) {
  const rule = new Int8Array(period.length);
  const hop = (time: number) => Math.round((time - start) * rate);
  for (const { from, to, beats } of locked) {
    for (let at = Math.max(0, hop(from)); at <= Math.min(rule.length - 1, hop(to)); at++) rule[at] = -1;
    beats.forEach((time, index) => {
      const length = ((beats[index + 1] ?? 2 * time - beats[index - 1]) - time) * rate;
      const end = Math.min(period.length, hop(time) + Math.round(length));
      for (let at = Math.max(0, hop(time)); at < end; at++) period[at] = length;
    });
    for (const time of beats) if (hop(time) >= 0 && hop(time) < rule.length) rule[hop(time)] = 1;
  }
  return rule;
}

/**
 * Finds beats, first beats of bars and hits. Several levels of the tempo are followed to the end; the one is kept
 * whose bars fit the music best and whose tempo is not unusual.
 * @param samples mono, -1..1
 * @returns times in seconds; confidence 0 and no beats where there is nothing to follow
 * @throws CoreError `sample-rate` where the rate makes no sense
 * @see Ellis 2007 (dynamic programming); Percival & Tzanetakis 2014 (tempo); Böck 2012 (spectral flux)
 */
export function trackBeats(samples: Float32Array, sampleRate: number, hints: BeatHints = {}): BeatTrack {
  if (!(sampleRate >= 2000))
    refuse('sample-rate', 'This sound says no usable sample rate. Export it again as WAV at 48 kHz.');
  const nothing: BeatTrack = { beats: [], downbeats: [], beatsPerBar: 4, bpm: 0, confidence: 0, hits: [] };
  const duration = samples.length / sampleRate;
  const { report = () => {}, locked = [] } = hints;
  if (duration < 1.5) return nothing;
  const sound = slowDown({ data: samples, rate: sampleRate }, 22050);
  let loudest = 0;
  let broken = false;
  for (let at = 0; at < sound.data.length; at++) {
    const level = Math.abs(sound.data[at]);
    if (!(level < 1e6)) broken = true;
    if (level > loudest) loudest = level;
  }
  if (broken || loudest < 1e-4) return nothing;
  const onsets = findOnsets(sound, 1 / loudest);
  report(0.4);
  const hits = findHits(onsets);
  if (hits.length < 2) return { ...nothing, hits };
  const lockedGap = middleOf(locked.flatMap(({ beats }) => beats.slice(1).map((time, i) => time - beats[i])));
  const [minBpm, maxBpm] = lockedGap
    ? [45 / lockedGap, 80 / lockedGap]
    : [hints.minBpm ?? 50, hints.maxBpm ?? 215];
  const tonal = findTonal(sound, 1 / loudest);
  report(0.5);
  const tempo = followTempo(onsets, minBpm, maxBpm);
  report(0.6);
  const strength = sharpen(onsets.all, onsets.rate);
  const lengths = hints.beatsPerBar ? [hints.beatsPerBar] : [4, 3, 5, 7];

  const follow = (ratio: number): Option | null => {
    const period = tempo.period.map((value) => value * ratio);
    const rule = locked.length > 0 ? lockedRule(locked, onsets.start, onsets.rate, period) : undefined;
    const hops = followBeats(strength, period, rule);
    if (hops.length < 4) return null;
    const found = hops.map(
      (hop) => onsets.start + (rule?.[hop] === 1 ? hop : peakNear(strength, hop)) / onsets.rate,
    );
    const firsts = locked.flatMap(({ downbeats }) => downbeats);
    const bpm = (60 * onsets.rate) / middleOf(period);
    const options = findBars(found, onsets, tonal, lengths, locked.length === 0, firsts).map((bars) => {
      const met = bars.beats.reduce(
        (sum, time) => sum + (strongestNear(strength, onsets, time) / 8) ** 0.3,
        0,
      );
      const value =
        0.5 * bars.score +
        tempo.support(ratio, bars.beatsPerBar) -
        unusual(bpm) +
        met / bars.beats.length -
        (unusualLength[bars.beatsPerBar] ?? 0);
      return { period, bars, value };
    });
    return options.reduce<Option>(better, options[0]);
  };
  const usual = (60 * onsets.rate) / middleOf(tempo.period);
  const tried = (lockedGap ? [1] : ratios).filter(
    (ratio) => usual / ratio >= minBpm && usual / ratio <= maxBpm,
  );
  // What bars can add is at most about 1.3: levels that lack more than that are not followed.
  const before = tried.map(
    (ratio) => Math.max(tempo.support(ratio, 4), tempo.support(ratio, 3)) - unusual(usual / ratio),
  );
  const options = tried
    .filter((_, index) => before[index] > Math.max(...before) - 1.3)
    .flatMap((ratio) => follow(ratio) ?? []);
  if (options.length === 0) return { ...nothing, hits };
  report(0.95);
  const { period, bars } = options.reduce(better);
  const beats = keepLocked(
    extendBeats(bars.beats, duration, [hits[0].time, hits[hits.length - 1].time]),
    locked,
  ).filter((time) => time >= 0);
  const gaps = bars.beats.slice(1).map((time, index) => time - bars.beats[index]);
  const gap = middleOf(gaps);
  const wander = gaps.reduce((sum, value) => sum + Math.abs(value / gap - 1), 0) / gaps.length;
  const alike = Math.max(0, Math.min(1, (returning(strength, period) - 0.12) / 0.28));
  return {
    beats,
    downbeats: bars.downbeats,
    beatsPerBar: bars.beatsPerBar,
    bpm: 60 / gap,
    confidence: alike * Math.max(0, 1 - 4 * wander) * Math.min(1, beats.length / 8),
    hits,
  };
}

/** Hops are coarse: inside locked passages the beats are those that were given, to the microsecond. */
function keepLocked(beats: readonly number[], locked: readonly LockedPassage[]): number[] {
  const free = beats.filter(
    (time) => !locked.some(({ from, to }) => time >= from - 0.05 && time <= to + 0.05),
  );
  return [...free, ...locked.flatMap((passage) => passage.beats)].sort((a, b) => a - b);
}
