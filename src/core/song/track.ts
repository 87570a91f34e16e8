import { refuse } from '../error';
import { findOnsets, type Onsets } from './onsets';

export type Hit = { time: number; strength: number; band: 'low' | 'mid' | 'high' };
export type BeatTrack = {
  beats: number[];
  downbeats: number[];
  bpm: number;
  confidence: number;
  hits: Hit[];
};
export type BeatHints = { minBpm?: number; maxBpm?: number; beatsPerBar?: number };

/** Strength above its own surroundings, in units of its spread. */
function sharpen(values: Float32Array, rate: number): Float32Array {
  const reach = Math.round(rate * 0.4);
  const sums = new Float64Array(values.length + 1);
  for (let index = 0; index < values.length; index++) sums[index + 1] = sums[index] + values[index];
  const out = new Float32Array(values.length);
  let squares = 0;
  for (let index = 0; index < values.length; index++) {
    const from = Math.max(0, index - reach);
    const to = Math.min(values.length, index + reach + 1);
    out[index] = Math.max(0, values[index] - (sums[to] - sums[from]) / (to - from));
    squares += out[index] * out[index];
  }
  const spread = Math.sqrt(squares / Math.max(1, values.length));
  return spread > 1e-9 ? out.map((value) => Math.min(8, value / spread)) : out;
}

/** How well each period (in hops) explains a stretch of onsets, with its multiples. */
function periodScores(
  onsets: Float32Array,
  from: number,
  to: number,
  periods: number[],
  rate: number,
): number[] {
  const stretch = onsets.subarray(Math.max(0, from), Math.min(onsets.length, to));
  const longest = Math.ceil(periods[periods.length - 1] * 4) + 2;
  const lags = new Float64Array(longest + 1);
  for (let lag = 1; lag <= longest; lag++) {
    let sum = 0;
    for (let index = lag; index < stretch.length; index++) sum += stretch[index] * stretch[index - lag];
    lags[lag] = sum / Math.max(1, stretch.length - lag);
  }
  const at = (lag: number) => {
    const whole = Math.floor(lag);
    return whole + 1 <= longest ? lags[whole] + (lags[whole + 1] - lags[whole]) * (lag - whole) : 0;
  };
  return periods.map((period) => {
    const octaves = Math.log2((60 * rate) / period / 115);
    const likely = Math.exp(-0.5 * (octaves / 0.75) ** 2);
    return (
      likely *
      (at(period) + 0.7 * at(2 * period) + 0.3 * at(3 * period) + 0.5 * at(4 * period) + 0.2 * at(period / 2))
    );
  });
}

/** The period in hops at each hop: the likeliest path over stretches of about ten seconds. */
function followTempo(onsets: Float32Array, rate: number, minBpm: number, maxBpm: number): Float32Array {
  const steps = Math.max(2, Math.round(Math.log2(maxBpm / minBpm) * 60));
  const periods = Array.from(
    { length: steps },
    (_, i) => ((60 * rate) / maxBpm) * (maxBpm / minBpm) ** (i / (steps - 1)),
  );
  const reach = Math.round(rate * 5);
  const jump = Math.round(rate * 2);
  const places: number[] = [];
  for (let at = 0; at < onsets.length || places.length === 0; at += jump) places.push(at);
  const scores = places.map((at) => {
    const raw = periodScores(onsets, at - reach, at + reach, periods, rate);
    const most = Math.max(1e-9, ...raw);
    return raw.map((value) => Math.max(0, value / most));
  });
  let best = [...scores[0]];
  const back: Int32Array[] = [];
  for (let place = 1; place < places.length; place++) {
    const from = new Int32Array(steps);
    best = best.map((_, to) => {
      let most = -Infinity;
      for (let other = 0; other < steps; other++) {
        const value = best[other] - Math.min(3, 0.08 * Math.abs(other - to));
        if (value > most) [most, from[to]] = [value, other];
      }
      return most + scores[place][to];
    });
    back.push(from);
  }
  let state = best.indexOf(Math.max(...best));
  const path = [state];
  for (let place = back.length - 1; place >= 0; place--) path.unshift((state = back[place][state]));
  return Float32Array.from(onsets, (_, hop) => {
    const place = Math.min(path.length - 1, hop / jump);
    const low = Math.floor(place);
    const high = Math.min(path.length - 1, low + 1);
    return periods[path[low]] + (periods[path[high]] - periods[path[low]]) * (place - low);
  });
}

/** The row of beats that meets most onsets while keeping near the tempo. @see Ellis 2007 */
function followBeats(onsets: Float32Array, period: Float32Array): number[] {
  const count = onsets.length;
  const total = new Float32Array(count);
  const back = new Int32Array(count).fill(-1);
  for (let at = 0; at < count; at++) {
    const length = period[at];
    let most = 0;
    for (let before = Math.ceil(at - 1.7 * length); before <= at - 0.6 * length; before++) {
      if (before < 0) continue;
      const value = total[before] - 90 * Math.log((at - before) / length) ** 2;
      if (value > most) [most, back[at]] = [value, before];
    }
    total[at] = onsets[at] + most;
  }
  let end = count - 1;
  for (let at = Math.max(0, Math.floor(count - period[count - 1] * 1.3)); at < count; at++)
    if (total[at] > total[end]) end = at;
  const beats: number[] = [];
  for (let at = end; at >= 0; at = back[at]) beats.unshift(at);
  return beats;
}

/** Shifts whole hops to where the strength between them peaks. */
function settle(onsets: Float32Array, hop: number): number {
  let peak = hop;
  for (let at = Math.max(1, hop - 2); at <= Math.min(onsets.length - 2, hop + 2); at++)
    if (onsets[at] > onsets[peak]) peak = at;
  const [before, middle, after] = [onsets[peak - 1] ?? 0, onsets[peak], onsets[peak + 1] ?? 0];
  const bend = before - 2 * middle + after;
  return middle < 0.5
    ? hop
    : peak + (bend < -1e-6 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0);
}

/** Carries the beats on to both ends of the song at the tempo they have there. */
function extend(beats: number[], duration: number): number[] {
  const out = [...beats];
  const lead = out[1] - out[0];
  while (out[0] - lead > 0.02) out.unshift(out[0] - lead);
  const tail = out[out.length - 1] - out[out.length - 2];
  while (out[out.length - 1] + tail < duration - 0.02) out.push(out[out.length - 1] + tail);
  return out;
}

/** The number of beats in a bar and the first of them: where low sound and strong onsets return. */
function findBars(beats: number[], onsets: Onsets, wanted?: number): { beatsPerBar: number; phase: number } {
  const strength = beats.map((time) => {
    const hop = Math.round((time - onsets.start) * onsets.rate);
    let [low, bass, all] = [0, 0, 0];
    for (let at = Math.max(0, hop - 3); at <= Math.min(onsets.all.length - 1, hop + 4); at++) {
      low = Math.max(low, onsets.low[at]);
      all = Math.max(all, onsets.all[at]);
      bass = Math.max(bass, onsets.bass[at] - (onsets.bass[at - 8] ?? 0));
    }
    return 2 * low + bass + 0.5 * all;
  });
  const mean = strength.reduce((sum, value) => sum + value, 0) / Math.max(1, strength.length);
  const contrast = (length: number, phase: number) => {
    const firsts = strength.filter((_, index) => index % length === phase);
    return firsts.reduce((sum, value) => sum + value - mean, 0) / Math.max(1, firsts.length);
  };
  const lengths = wanted ? [wanted] : [4, 3];
  const options = lengths.flatMap((length) =>
    Array.from({ length }, (_, phase) => ({
      beatsPerBar: length,
      phase,
      score: contrast(length, phase) * (length === 4 ? 1.25 : 1),
    })),
  );
  return options.reduce((best, option) => (option.score > best.score ? option : best));
}

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

/** Single strong starts, each with the band that it is strongest in; strength 0..1. */
function findHits(onsets: Onsets): Hit[] {
  const strong = sharpen(onsets.all, onsets.rate);
  const names = ['low', 'mid', 'high'] as const;
  const bands = {
    low: sharpen(onsets.low, onsets.rate),
    mid: sharpen(onsets.mid, onsets.rate),
    high: sharpen(onsets.high, onsets.rate),
  };
  const hits: Hit[] = [];
  for (let at = 3; at < strong.length - 3; at++) {
    if (strong[at] < 2) continue;
    if (![1, 2, 3].every((step) => strong[at] >= strong[at + step] && strong[at] > strong[at - step]))
      continue;
    const band = names.reduce((best, name) => (bands[name][at] > bands[best][at] ? name : best));
    hits.push({
      time: onsets.start + settle(strong, at) / onsets.rate,
      strength: Math.min(1, strong[at] / 8),
      band,
    });
  }
  return hits;
}

/**
 * Finds beats, first beats of bars and hits.
 * @param samples mono, -1..1
 * @returns times in seconds; confidence 0 and no beats where there is nothing to follow
 * @throws CoreError `sample-rate` where the rate makes no sense
 * @see Ellis 2007 (dynamic programming); Percival & Tzanetakis 2014 (tempo)
 */
export function trackBeats(samples: Float32Array, sampleRate: number, hints: BeatHints = {}): BeatTrack {
  if (!(sampleRate >= 2000))
    refuse('sample-rate', 'This sound says no usable sample rate. Export it again as WAV at 48 kHz.');
  const nothing: BeatTrack = { beats: [], downbeats: [], bpm: 0, confidence: 0, hits: [] };
  const duration = samples.length / sampleRate;
  let [loudest, broken] = [0, false];
  for (const value of samples) {
    if (!(value > -1e6 && value < 1e6)) broken = true;
    loudest = Math.max(loudest, Math.abs(value));
  }
  if (broken || duration < 1.5 || loudest < 1e-4) return nothing;
  const scaled = samples.map((value) => value / loudest);
  const onsets = findOnsets(scaled, sampleRate);
  const strength = sharpen(onsets.all, onsets.rate);
  const hits = findHits(onsets);
  if (hits.length < 2) return { ...nothing, hits };
  const period = followTempo(strength, onsets.rate, hints.minBpm ?? 55, hints.maxBpm ?? 215);
  const hops = followBeats(strength, period);
  if (hops.length < 4) return { ...nothing, hits };
  const found = hops.map((hop) => onsets.start + settle(strength, hop) / onsets.rate);
  const beats = extend(found, duration).map((time) => Math.max(0, time));
  const { beatsPerBar, phase } = findBars(beats, onsets, hints.beatsPerBar);
  const gaps = found.slice(1).map((time, index) => time - found[index]);
  const gap = [...gaps].sort((a, b) => a - b)[gaps.length >> 1];
  const wander = gaps.reduce((sum, value) => sum + Math.abs(value / gap - 1), 0) / gaps.length;
  const confidence =
    Math.max(0, Math.min(1, (returning(strength, period) - 0.12) / 0.28)) * Math.max(0, 1 - 4 * wander);
  return {
    beats,
    downbeats: beats.filter((_, index) => index % beatsPerBar === phase),
    bpm: 60 / gap,
    confidence,
    hits,
  };
}
