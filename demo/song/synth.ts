import { toPcm, wavHead } from '@/core/formats/wav';
import { seeded } from '@/core/random';
import { beatsPerBar, energyOf, songBeats } from './score';

const sampleRate = 48000;
const roots = [110, 87.31, 130.81, 98];
const chords = [
  [220, 261.63, 329.63],
  [174.61, 220, 261.63],
  [261.63, 329.63, 392],
  [196, 246.94, 293.66],
];

/** Plays the score into two channels: drums, bass, a plucked figure and a held chord. */
export function playSong(): Uint8Array {
  const beats = songBeats();
  const end = beats[beats.length - 1] + 2.2;
  const left = new Float32Array(Math.round(end * sampleRate));
  const right = new Float32Array(left.length);
  const next = seeded(31);
  const add = (time: number, seconds: number, pan: number, wave: (t: number) => number) => {
    const from = Math.round(time * sampleRate);
    for (let at = 0; at < seconds * sampleRate && from + at < left.length; at++) {
      const value = wave(at / sampleRate);
      left[from + at] += value * (1 - pan);
      right[from + at] += value * (1 + pan);
    }
  };
  const tone = (hz: number, level: number, fall: number, edge: number) => (t: number) =>
    level *
    Math.exp(-t * fall) *
    (Math.sin(2 * Math.PI * hz * t) + edge * Math.sin(4 * Math.PI * hz * t)) *
    Math.min(1, t * 400);
  const kick = (level: number) => (t: number) =>
    level * Math.exp(-t * 15) * Math.sin(2 * Math.PI * (48 * t + 2.6 * (1 - Math.exp(-t * 32))));
  const hiss = (level: number, fall: number) => (t: number) => level * Math.exp(-t * fall) * (next() * 2 - 1);

  beats.forEach((time, index) => {
    const bar = Math.floor(index / beatsPerBar);
    const beat = index % beatsPerBar;
    const energy = energyOf(bar);
    const gap = (beats[index + 1] ?? time + 0.575) - time;
    const chord = chords[bar % 4];
    if (beat === 0 || (beat === 2 && energy > 0.6) || (beat === 3 && energy > 0.9))
      add(time, 0.35, 0, kick(0.5 * (beat ? 0.75 : 1)));
    if (beat % 2 === 1 && bar >= 2) add(time, 0.2, 0.05, hiss(0.19 * energy, 24));
    if (beat % 2 === 1 && bar >= 2) add(time, 0.15, 0.05, tone(196, 0.15 * energy, 26, 0.3));
    add(time, 0.05, 0.2, hiss(0.06 * energy, 70));
    if (energy > 0.6) add(time + gap / 2, 0.04, 0.2, hiss(0.04 * energy, 90));
    if (energy > 0.6 || beat === 0) add(time, gap * 0.9, 0, tone(roots[bar % 4] / 2, 0.17, 3.2, 0.5));
    for (let pluck = 0; pluck < 2; pluck++) {
      const note = chord[(index + pluck) % 3] * (pluck && energy > 0.9 ? 2 : 1);
      add(time + (pluck * gap) / 2, 0.4, pluck ? 0.3 : -0.3, tone(note, 0.06 * energy, 9, 0.4));
    }
    if (beat === 0)
      chord.forEach((hz, voice) => add(time, gap * 4, voice / 4 - 0.25, tone(hz, 0.03 * energy, 0.8, 0.2)));
  });
  const head = wavHead(left.length, 2, sampleRate);
  const pcm = toPcm([left, right].map((channel) => channel.map((value) => Math.tanh(value * 1.15))));
  const out = new Uint8Array(head.length + pcm.byteLength);
  out.set(head);
  out.set(new Uint8Array(pcm.buffer), head.length);
  return out;
}
