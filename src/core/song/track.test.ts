import { describe, expect, it } from 'vitest';
import { bandRate as rate, beatsAt, fMeasure, play } from '../__tests__/band';
import { seeded } from '../random';
import { trackBeats } from './track';
import { Resampler } from './resample';

const breathing = (bpm: number, depth: number) => (time: number) => bpm / (1 + depth * Math.sin(time / 4));

describe('beat tracking', () => {
  it.each([
    ['104 beats a minute that breathe', breathing(104, 0.012), { beatsPerBar: 4 }],
    ['a steady 128', () => 128, { beatsPerBar: 4 }],
    ['players who hurry and lean back', breathing(150, 0.03), { beatsPerBar: 4 }],
    ['a waltz', breathing(132, 0.02), { beatsPerBar: 3, snare: [1, 2] }],
    ['seven beats to a bar', () => 152, { beatsPerBar: 7, snare: [2, 4, 6] }],
    ['five beats to a bar', () => 140, { beatsPerBar: 5, snare: [3] }],
    ['a shuffle', breathing(118, 0.01), { beatsPerBar: 4, between: [2 / 3] }],
    ['six eighths, felt in two', () => 84, { beatsPerBar: 2, between: [1 / 3, 2 / 3], snare: [1] }],
    ['a song that speeds up from 96 to 120', (time: number) => 96 + (24 * time) / 40, { beatsPerBar: 4 }],
    ['a song that steps from 100 to 126', (time: number) => (time < 20 ? 100 : 126), { beatsPerBar: 4 }],
  ])('follows %s', (_, bpm, playing) => {
    const truth = beatsAt(bpm, 40);
    const found = trackBeats(play(truth, 40, playing), rate);
    expect(fMeasure(found.beats, truth)).toBeGreaterThan(0.93);
    expect(found.confidence).toBeGreaterThan(0.4);
  });

  it.each([
    [3, [1, 2], 132],
    [4, [1, 3], 104],
    [5, [3], 140],
    [7, [2, 4, 6], 152],
  ])('finds bars of %i beats and where they begin', (beatsPerBar, snare, bpm) => {
    const truth = beatsAt(() => bpm, 40);
    const found = trackBeats(play(truth, 40, { beatsPerBar, snare }), rate);
    const first = truth.filter((_, index) => index % beatsPerBar === 0);
    expect(found.beatsPerBar).toBe(beatsPerBar);
    expect(fMeasure(found.downbeats, first)).toBeGreaterThan(0.9);
  });

  it('carries the beats back through an intro that has none', () => {
    const truth = beatsAt(() => 112, 40, 9);
    const { beats } = trackBeats(play(truth, 40, { beatsPerBar: 4, intro: 9 }), rate);
    expect(
      fMeasure(
        beats.filter((time) => time > 8.9),
        truth,
      ),
    ).toBeGreaterThan(0.95);
    const before = beats.filter((time) => time < 8.9);
    expect(before.length).toBeGreaterThan(12);
    for (const time of before) {
      const steps = (9 - time) / (60 / 112);
      expect(Math.abs(steps - Math.round(steps))).toBeLessThan(0.15);
    }
  });

  it('keeps a locked passage to the last digit and joins it', () => {
    const truth = beatsAt(breathing(120, 0.01), 40);
    const sound = play(truth, 40, { beatsPerBar: 4 });
    // Locked half a beat off, which the search would never choose.
    const own = truth.map((time) => time + 0.25).filter((time) => time > 12 && time < 24);
    const locked = [{ from: own[0], to: own[own.length - 1], beats: own, downbeats: [own[2]] }];
    const { beats, downbeats } = trackBeats(sound, rate, { locked });
    expect(beats.filter((time) => time >= own[0] && time <= own[own.length - 1])).toEqual(own);
    expect(downbeats.some((time) => Math.abs(time - own[2]) < 0.02)).toBe(true);
    const gaps = beats.slice(1).map((time, index) => time - beats[index]);
    expect(Math.min(...gaps)).toBeGreaterThan(0.3);
    expect(Math.max(...gaps)).toBeLessThan(0.9);
    expect(
      fMeasure(
        beats.filter((time) => time > 32),
        truth.filter((time) => time > 32),
      ),
    ).toBeGreaterThan(0.9);
  });

  it('says how far it is, and never goes back', () => {
    const shares: number[] = [];
    const sound = play(
      beatsAt(() => 120, 12),
      12,
      { beatsPerBar: 4 },
    );
    trackBeats(sound, rate, { report: (share) => shares.push(share) });
    expect(shares.length).toBeGreaterThan(3);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
  });

  it.each([8000, 96000])('works on sound of %i samples a second', (other) => {
    const truth = beatsAt(() => 120, 20);
    const resampler = new Resampler(rate, other);
    const sound = resampler.push(play(truth, 20, { beatsPerBar: 4 }));
    expect(fMeasure(trackBeats(sound, other).beats, truth)).toBeGreaterThan(0.9);
  });

  it('finds hits where the drum is struck', () => {
    const truth = beatsAt(() => 100, 12);
    const { hits } = trackBeats(play(truth, 12, { beatsPerBar: 4 }), rate);
    const low = hits.filter((hit) => hit.band === 'low');
    expect(low.length).toBeGreaterThan(2);
    const bars = truth.filter((_, index) => index % 2 === 0);
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
    const tone = Float32Array.from({ length: rate * 4 }, (_, at) => Math.sin(at / 16));
    expect(trackBeats(tone, rate)).toMatchObject({ beats: [], hits: [], confidence: 0 });
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
