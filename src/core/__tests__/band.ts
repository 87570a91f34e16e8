import { seeded } from '../random';

export const bandRate = 44100;

type Playing = {
  beatsPerBar: number;
  /** where notes between beats lie, in beats; [1 / 2] is straight, [2 / 3] swings, [1 / 3, 2 / 3] rolls in threes */
  between?: number[];
  /** beats of the bar, from 0, on which the snare strikes */
  snare?: number[];
  /** seconds of a held chord before the first beat */
  intro?: number;
};

/** A small band that plays given beats: kick, snare, ticks between, a bass and chords that change with the bar. */
export function play(beats: readonly number[], duration: number, playing: Playing): Float32Array {
  const { beatsPerBar, between = [1 / 2], snare = [1, 3], intro = 0 } = playing;
  const out = new Float32Array(Math.round(duration * bandRate));
  const next = seeded(4);
  const sound = (time: number, seconds: number, wave: (t: number) => number) => {
    const from = Math.round(time * bandRate);
    for (let at = Math.max(0, -from); at < seconds * bandRate && from + at < out.length; at++)
      out[from + at] += wave(at / bandRate);
  };
  const tone = (hz: number, level: number, fall: number) => (t: number) =>
    level * Math.sin(2 * Math.PI * hz * t) * Math.exp(-t * fall) * Math.min(1, t * 300);
  const noise = (level: number, fall: number) => (t: number) => level * (next() - 0.5) * Math.exp(-t * fall);
  const roots = [110, 87.31, 130.81, 98];
  if (intro > 0) for (const hz of [220, 277, 330]) sound(0, intro, tone(hz, 0.05, 0.1));
  beats.forEach((time, index) => {
    const gap = (beats[index + 1] ?? 2 * time - beats[index - 1]) - time;
    const beat = index % beatsPerBar;
    const root = roots[Math.floor(index / beatsPerBar) % 4];
    if (beat === 0) sound(time, 0.2, tone(60, 0.8, 22));
    if (snare.includes(beat)) sound(time, 0.15, noise(0.5, 26));
    sound(time, 0.05, noise(0.15, 80));
    for (const share of between) sound(time + share * gap, 0.04, noise(0.11, 90));
    if (beat === 0 || beat === 2) sound(time, gap * 0.9, tone(root / 2, 0.25, 4));
    if (beat === 0)
      for (const ratio of [1, 1.26, 1.5]) sound(time, gap * beatsPerBar, tone(root * 2 * ratio, 0.06, 0.6));
  });
  return out;
}

/** Beats from `start` until the end, whose tempo is a function of time. */
export function beatsAt(bpm: (time: number) => number, duration: number, start = 0.4): number[] {
  const beats = [start];
  for (let time = start; ;) {
    time += 60 / bpm(time);
    if (time > duration - 0.3) return beats;
    beats.push(time);
  }
}

/** F-measure with a window of ±70 ms, first 5 s left out. Dixon 2007; MIREX audio beat tracking. */
export function fMeasure(found: readonly number[], truth: readonly number[]): number {
  const wanted = truth.filter((time) => time > 5);
  const given = found.filter((time) => time > 5);
  const hits = wanted.filter((time) => given.some((other) => Math.abs(other - time) < 0.07)).length;
  return (2 * hits) / Math.max(1, wanted.length + given.length);
}
