import { eachSpectrum, slowDown, type Sound } from './spectrum';

/** Which notes sound: sums over time, so that the mean of any stretch is one difference. */
export type Tonal = {
  /** frames a second */
  rate: number;
  /** seconds of frame 0 */
  start: number;
  frames: number;
  /** running sums of twelve pitch classes of the bass and twelve above it: [frame * 24 + note] */
  sums: Float64Array;
};

/** Pitch classes: twelve of the bass, twelve above it. */
export const noteCount = 24;

/**
 * Pitch classes from 45 to 1500 Hz, ten times a second; A is 440 Hz.
 * @param sound -1..1 once `gain` is applied
 * @see Fujishima 1999 (pitch class profile)
 */
export function findTonal(sound: Sound, gain: number): Tonal {
  const { data, rate } = slowDown(sound, 5500);
  const size = 2 ** Math.round(Math.log2(rate * 0.37));
  const hop = Math.max(1, Math.round(rate / 10));
  const frames = Math.max(0, Math.floor((data.length - size) / hop) + 1);
  const bins = Math.min(size / 2, Math.ceil((1500 * size) / rate) + 1);
  const place = Int8Array.from({ length: bins }, (_, bin) => {
    const hz = (bin * rate) / size;
    if (hz < 45 || hz > 1500) return -1;
    return (Math.round(12 * Math.log2(hz / 440) + 69) % 12) + (hz < 200 ? 0 : 12);
  });
  const sums = new Float64Array((frames + 1) * noteCount);
  const notes = new Float64Array(noteCount);
  eachSpectrum(data, size, hop, bins, (frame, power) => {
    notes.fill(0);
    for (let bin = 1; bin < bins; bin++)
      if (place[bin] >= 0) notes[place[bin]] += gain * Math.sqrt(power[bin]);
    const base = frame * noteCount;
    for (let note = 0; note < noteCount; note++)
      sums[base + noteCount + note] = sums[base + note] + Math.log1p(notes[note]);
  });
  return { rate: rate / hop, start: size / 2 / rate, frames, sums };
}

/** Mean of each note from one time to another, seconds, about their common level. */
export function notesBetween(tonal: Tonal, from: number, to: number): Float64Array {
  const place = (time: number) => Math.round((time - tonal.start) * tonal.rate);
  const first = Math.min(Math.max(0, place(from)), Math.max(0, tonal.frames - 1));
  const end = Math.min(tonal.frames, Math.max(first + 1, place(to) + 1));
  const out = new Float64Array(noteCount);
  if (end <= first) return out;
  let level = 0;
  for (let note = 0; note < noteCount; note++) {
    out[note] = tonal.sums[end * noteCount + note] - tonal.sums[first * noteCount + note];
    level += out[note] / noteCount;
  }
  for (let note = 0; note < noteCount; note++) out[note] = (out[note] - level) / (end - first);
  return out;
}

/** How alike two profiles are: -1..1, 0 where one says nothing. */
export function likeness(one: ArrayLike<number>, two: ArrayLike<number>): number {
  let [dot, first, second] = [0, 0, 0];
  for (let at = 0; at < one.length; at++) {
    dot += one[at] * two[at];
    first += one[at] * one[at];
    second += two[at] * two[at];
  }
  return first * second > 1e-12 ? dot / Math.sqrt(first * second) : 0;
}

/** How much the notes change at a time: the `span` seconds after it against those before; 0..2. */
export const changeAt = (tonal: Tonal, time: number, span: number): number =>
  1 - likeness(notesBetween(tonal, time - span, time - 0.1), notesBetween(tonal, time + 0.1, time + span));
