import { bandCount, riseAt, type Bands } from './bands';

/** How strongly new sound starts, a hop at a time, in three bands and together. */
export type Onsets = {
  /** hops a second */
  rate: number;
  /** seconds of hop 0 */
  start: number;
  all: Float32Array;
  low: Float32Array;
  mid: Float32Array;
  high: Float32Array;
};

/**
 * Onset strength from spectral flux in logarithmic bands, each compared with its neighbours before.
 * @see Böck 2012 (spectral flux with maximum filter)
 */
export function findOnsets(bands: Bands): Onsets {
  const { rate, start, hops } = bands;
  const out: Onsets = {
    rate,
    start,
    all: new Float32Array(hops),
    low: new Float32Array(hops),
    mid: new Float32Array(hops),
    high: new Float32Array(hops),
  };
  const names = bands.hertz.map((hz) => (hz < 200 ? 'low' : hz < 2200 ? 'mid' : 'high'));
  for (let hop = 2; hop < hops; hop++)
    for (let band = 0; band < bandCount; band++) {
      const rise = riseAt(bands, hop, band);
      if (rise <= 0) continue;
      out[names[band]][hop] += rise;
      out.all[hop] += rise;
    }
  return out;
}

/**
 * Strength above its own surroundings of 0.8 s, in units of its spread, at most 8.
 * @param rate values a second
 */
export function sharpen(values: Float32Array, rate: number): Float32Array {
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

/** A hop moved to where the strength beside it peaks, between hops where it is strong enough to tell. */
export function peakNear(onsets: Float32Array, hop: number): number {
  let peak = hop;
  for (let at = Math.max(1, hop - 2); at <= Math.min(onsets.length - 2, hop + 2); at++)
    if (onsets[at] > onsets[peak]) peak = at;
  const [before, middle, after] = [onsets[peak - 1] ?? 0, onsets[peak], onsets[peak + 1] ?? 0];
  if (middle < 0.5) return hop;
  const bend = before - 2 * middle + after;
  return peak + (bend < -1e-6 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0);
}
