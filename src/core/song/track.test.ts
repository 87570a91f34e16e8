import { describe, expect, it } from 'vitest';
import { seeded } from '../random';
import { trackBeats } from './track';
import { Resampler } from './resample';

const rate = 44100;

/** A drum pattern at given beats: low on the first of the bar, noise on the others, eighths between. */
function drums(beats: number[], duration: number, beatsPerBar: number): Float32Array {
  const out = new Float32Array(Math.round(duration * rate));
  const next = seeded(4);
  const strike = (time: number, kind: 'low' | 'noise' | 'tick') => {
    const from = Math.round(time * rate);
    for (let at = 0; at < rate * 0.14 && from + at < out.length; at++) {
      const t = at / rate;
      if (kind === 'low') out[from + at] += 0.8 * Math.sin(2 * Math.PI * 60 * t) * Math.exp(-t * 22);
      else if (kind === 'noise') out[from + at] += 0.35 * (next() - 0.5) * Math.exp(-t * 30);
      else out[from + at] += 0.12 * (next() - 0.5) * Math.exp(-t * 90);
    }
  };
  beats.forEach((time, index) => {
    strike(time, index % beatsPerBar === 0 ? 'low' : 'noise');
    strike((time + (beats[index + 1] ?? time + 0.5)) / 2, 'tick');
  });
  return out;
}

/** Beats whose tempo wanders smoothly, as players do. */
function breathing(bpm: number, duration: number, depth: number): number[] {
  const beats = [0.4];
  while (beats[beats.length - 1] < duration - 1) {
    const time = beats[beats.length - 1];
    beats.push(time + (60 / bpm) * (1 + depth * Math.sin(time / 4)));
  }
  return beats;
}

/** F-measure, ±70 ms, first 5 s left out. Dixon 2007; MIREX audio beat tracking. */
function fMeasure(found: number[], truth: number[]): number {
  const wanted = truth.filter((time) => time > 5);
  const given = found.filter((time) => time > 5);
  const hits = wanted.filter((time) => given.some((other) => Math.abs(other - time) < 0.07)).length;
  return (2 * hits) / Math.max(1, wanted.length + given.length);
}

describe('beat tracking', () => {
  for (const [bpm, beatsPerBar, depth] of [
    [104, 4, 0.012],
    [128, 4, 0],
    [92, 3, 0.02],
    [150, 4, 0.03],
  ]) {
    it(`follows ${bpm} beats a minute, ${beatsPerBar} to a bar, breathing ${depth * 100} %`, () => {
      const truth = breathing(bpm, 30, depth);
      const found = trackBeats(drums(truth, 30, beatsPerBar), rate, { beatsPerBar });
      expect(fMeasure(found.beats, truth)).toBeGreaterThan(0.95);
      expect(found.confidence).toBeGreaterThan(0.5);
      const first = truth.filter((_, index) => index % beatsPerBar === 0);
      expect(fMeasure(found.downbeats, first)).toBeGreaterThan(0.9);
    });
  }

  it('finds hits where the drum is struck', () => {
    const truth = breathing(100, 12, 0);
    const { hits } = trackBeats(drums(truth, 12, 4), rate);
    const low = hits.filter((hit) => hit.band === 'low');
    expect(low.length).toBeGreaterThan(2);
    const bars = truth.filter((_, index) => index % 4 === 0);
    const near = low.filter((hit) => bars.some((time) => Math.abs(time - hit.time) < 0.03));
    expect(near.length / low.length).toBeGreaterThan(0.8);
  });

  it('has no confidence in silence, a moment of sound, one click, or broken numbers', () => {
    const silent = trackBeats(new Float32Array(rate * 10), rate);
    expect(silent).toMatchObject({ beats: [], confidence: 0 });
    const click = new Float32Array(rate * 10);
    click[rate] = 1;
    expect(trackBeats(click, rate).confidence).toBe(0);
    expect(trackBeats(new Float32Array(100).fill(0.5), rate).confidence).toBe(0);
    expect(trackBeats(new Float32Array(rate * 4).fill(Number.NaN), rate).beats).toEqual([]);
    expect(() => trackBeats(new Float32Array(10), 0)).toThrow(
      expect.objectContaining({ code: 'sample-rate' }),
    );
    const next = seeded(2);
    const noise = Float32Array.from({ length: rate * 10 }, () => next() - 0.5);
    expect(trackBeats(noise, rate).confidence).toBeLessThan(0.35);
  });
});

describe('resampling', () => {
  it('keeps a tone and its place from 44.1 to 48 kHz, in pieces', () => {
    const tone = (time: number) => Math.sin(2 * Math.PI * 997 * time);
    const resampler = new Resampler(44100, 48000);
    const out: number[] = [];
    for (let start = 0; start < 44100; start += 4410) {
      out.push(...resampler.push(Float32Array.from({ length: 4410 }, (_, at) => tone((start + at) / 44100))));
    }
    out.push(...resampler.push(new Float32Array(resampler.latency)));
    expect(Math.abs(out.length - 48000)).toBeLessThan(3);
    for (let at = 500; at < 47000; at += 331)
      expect(Math.abs(out[at] - tone(at / 48000))).toBeLessThan(0.003);
  });
});
