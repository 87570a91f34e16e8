import { refuse } from '../error';
import { median } from '../statistics';
import { findBands } from './bands';
import { extendBeats, type LockedPassage } from './extend';
import { fullLevel } from './full-level';
import { findHits, type Hit } from './hits';
import { hear } from './model/input';
import { listen } from './model/network';
import { findOnsets, peakNear, sharpen } from './onsets';
import { confidenceOf, readingsOf, type Reading } from './readings';
import { slowDown } from './spectrum';
import { findTonal } from './tonal';

export type { Hit };
/** One reading of a song's beats: seconds. */
export type ReadBeats = { beats: number[]; downbeats: number[]; beatsPerBar: number; bpm: number };

export type BeatTrack = ReadBeats & {
  /** 0..1 */
  confidence: number;
  hits: Hit[];
  /** what it may be otherwise */
  other?: ReadBeats;
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

/**
 * Finds beats, first beats of bars and hits: a model says how likely each frame is a beat, the song is read at several
 * levels to its end, and the likeliest reading is kept, with the next one beside it.
 * @param samples mono, -1..1
 * @returns times in seconds; confidence 0 and no beats where there is nothing to follow
 * @throws CoreError `sample-rate` where the rate makes no sense
 * @see Davies & Böck 2019 (the model); Krebs, Böck & Widmer 2015 and Ellis 2007 (rows of beats)
 */
export function trackBeats(samples: Float32Array, sampleRate: number, hints: BeatHints = {}): BeatTrack {
  if (!(sampleRate >= 2000))
    refuse('sample-rate', 'This sound says no usable sample rate. Export it again as WAV at 48 kHz.');
  const nothing: BeatTrack = { beats: [], downbeats: [], beatsPerBar: 4, bpm: 0, confidence: 0, hits: [] };
  const duration = samples.length / sampleRate;
  const { report = () => {}, locked = [] } = hints;
  if (duration < 1.5) return nothing;
  const sound = slowDown({ data: samples, rate: sampleRate }, 22050);
  const full = fullLevel(sound);
  // Also what is no number at all.
  if (!(full >= 1e-4 && full < 1e5)) return nothing;
  const bands = findBands(sound, 1 / full);
  const onsets = findOnsets(bands);
  report(0.3);
  const hits = findHits(onsets);
  if (hits.length < 2) return { ...nothing, hits };
  const tonal = findTonal(sound, 1 / full);
  report(0.4);
  const likely = listen(hear(bands, tonal), (share) => report(0.4 + 0.5 * share));
  const lockedGap = median(locked.flatMap(({ beats }) => beats.slice(1).map((time, i) => time - beats[i])));
  const tempos = lockedGap
    ? ([45 / lockedGap, 80 / lockedGap] as const)
    : ([hints.minBpm ?? 50, hints.maxBpm ?? 215] as const);
  const lengths = hints.beatsPerBar ? [hints.beatsPerBar] : [4, 3, 2, 5, 7];
  const firsts = locked.flatMap(({ downbeats }) => downbeats);
  const readings = readingsOf(likely, tempos, lengths, locked, firsts);
  report(0.95);
  if (readings.length === 0) return { ...nothing, hits };
  const strength = sharpen(onsets.all, onsets.rate);
  /** Frames are coarse: beats lie where something starts beside them. */
  const timeOf = (frame: number) => {
    const time = likely.start + frame / likely.rate;
    return onsets.start + peakNear(strength, Math.round((time - onsets.start) * onsets.rate)) / onsets.rate;
  };
  const said = ({ row, bars }: Reading): ReadBeats => {
    const found = row.frames.map(timeOf);
    const sounds = [hits[0].time, hits[hits.length - 1].time] as const;
    const beats = keepLocked(extendBeats(found, duration, sounds), locked).filter((time) => time >= 0);
    const gaps = found.slice(1).map((time, index) => time - found[index]);
    const onBeat = (time: number) =>
      beats.reduce((best, one) => (Math.abs(one - time) < Math.abs(best - time) ? one : best), beats[0]);
    return {
      beats,
      downbeats: bars.firsts.map((index) => onBeat(found[index])),
      beatsPerBar: bars.beatsPerBar,
      bpm: 60 / median(gaps),
    };
  };
  const [best, other] = readings;
  return {
    ...said(best),
    confidence: confidenceOf(best, likely) * Math.min(1, best.row.frames.length / 8),
    hits,
    ...(other ? { other: said(other) } : {}),
  };
}

/** Hops are coarse: inside locked passages the beats are those that were given, to the microsecond. */
function keepLocked(beats: readonly number[], locked: readonly LockedPassage[]): number[] {
  const free = beats.filter(
    (time) => !locked.some(({ from, to }) => time >= from - 0.05 && time <= to + 0.05),
  );
  return [...free, ...locked.flatMap((passage) => passage.beats)].sort((a, b) => a - b);
}
