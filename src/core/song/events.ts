import { quantile } from '../statistics';
import { findHits, type Hit } from './hits';
import { findBands } from './bands';
import { findOnsets } from './onsets';
import { eachSpectrum, slowDown } from './spectrum';

/** An instant in a take's own sound that a moment can be pinned to. */
export type SoundEvent = { time: number; strength: number; kind: 'hit' | 'end'; band: Hit['band'] };

const hopsASecond = 100;
/** Common practice, no published source: a word or tone that was there, then quiet for a while. */
const before = 12;
const after = 18;

/** Loudness of the middle of the spectrum, 300 to 3400 Hz, a hundred times a second. */
function middleLevels(data: Float32Array, rate: number): Float32Array {
  const size = 512;
  const hop = Math.max(1, Math.round(rate / hopsASecond));
  const out = new Float32Array(Math.max(0, Math.floor((data.length - size) / hop) + 1));
  const [from, to] = [300, 3400].map((hz) => Math.min(size / 2, Math.round((hz * size) / rate)));
  eachSpectrum(data, size, hop, to, (frame, power) => {
    let sum = 0;
    for (let bin = from; bin < to; bin++) sum += power[bin];
    out[frame] = Math.sqrt(sum);
  });
  return out;
}

/**
 * Snaps, hits, and ends of words or tones in a take's sound.
 * @param samples mono, -1..1
 * @returns rising by time; empty in silence
 */
export function findEvents(samples: Float32Array, sampleRate: number): SoundEvent[] {
  const sound = slowDown({ data: samples, rate: sampleRate }, 22050);
  const loudest = sound.data.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  if (!(loudest > 1e-4) || sound.data.length < sound.rate / 2) return [];
  const hits: SoundEvent[] = findHits(findOnsets(findBands(sound, 1 / loudest))).map((hit) => ({
    ...hit,
    kind: 'hit',
  }));
  const levels = middleLevels(sound.data, sound.rate);
  const loud = quantile(levels, 0.95);
  const mean = (from: number, to: number) => {
    let sum = 0;
    for (let at = from; at < to; at++) sum += levels[at] ?? 0;
    return sum / (to - from);
  };
  const ends: SoundEvent[] = [];
  for (let at = before; at < levels.length && loud > 0; at++) {
    const was = mean(at - before, at);
    const fell = levels[at - 1] > 0.15 * loud && levels[at] <= 0.15 * loud;
    if (!fell || was < 0.3 * loud || mean(at, at + after) > 0.1 * loud) continue;
    ends.push({
      time: at / hopsASecond + 256 / sound.rate,
      strength: Math.min(1, was / loud),
      kind: 'end',
      band: 'mid',
    });
  }
  return [...hits, ...ends].sort((a, b) => a.time - b.time);
}
