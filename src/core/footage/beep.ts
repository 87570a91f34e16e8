import { beepLength, beepPitch } from '../song/click';
import { slowDown, type Sound } from '../song/spectrum';

/** samples a second at which is listened */
const listenRate = 8000;
/** the weakest tone that is looked at: beyond a file's own steps */
const least = 1e-3;
/** seconds over which a tone is heard: some of its waves */
const short = 0.008;
/** share of its strength at which it has begun, and up to which there may be some of it before and long after */
const [begun, none] = [0.18, 0.25];
/** seconds before it in which there is none, and within which a room has swallowed it. Common practice, no published source. */
const [silence, swallowed] = [0.15, 0.6];
/** share of what sounds that is the beep while it lasts; by trial */
const pure = 0.65;

/** Sums of values before each. */
function sumsOf(length: number, value: (at: number) => number): Float64Array {
  const out = new Float64Array(length + 1);
  for (let at = 0; at < length; at++) out[at + 1] = out[at] + value(at);
  return out;
}

/** How strong a tone is in a sound at each sample, and what else there is. Lengths in samples. */
type Heard = {
  rate: number;
  /** samples over which it is heard */
  window: number;
  tone: Float32Array;
  /** the power of all that sounds before each sample */
  all: Float64Array;
};

function listenTo({ data, rate }: Sound): Heard {
  const turn = (2 * Math.PI * beepPitch) / rate;
  const re = sumsOf(data.length, (at) => data[at] * Math.cos(turn * at));
  const im = sumsOf(data.length, (at) => data[at] * Math.sin(turn * at));
  const window = Math.round(short * rate);
  const tone = Float32Array.from({ length: Math.max(0, data.length - window) }, (_, at) =>
    Math.hypot(re[at + window] - re[at], im[at + window] - im[at]),
  );
  return { rate, window, tone, all: sumsOf(data.length, (at) => data[at] * data[at]) };
}

/** The strongest of a tone between two samples. @param step samples between those that are looked at */
function strongest({ tone }: Heard, from: number, until: number, step = 1): number {
  let most = 0;
  for (let at = Math.max(0, from); at < until && at < tone.length; at += step)
    most = Math.max(most, tone[at]);
  return most;
}

/** Whether a tone is anywhere stronger than so much between two samples. */
function exceeds({ tone }: Heard, from: number, until: number, limit: number): boolean {
  for (let at = Math.max(0, from); at < until && at < tone.length; at++) if (tone[at] > limit) return true;
  return false;
}

/** Whether what begins at a sample comes out of silence, is hardly anything but the tone, and is gone again in time. */
function isBeep(heard: Heard, at: number, strength: number): boolean {
  const { rate, window, tone, all } = heard;
  const [length, clear, gone] = [beepLength, silence, swallowed].map((seconds) => Math.round(seconds * rate));
  if (exceeds(heard, at - clear, at, none * strength)) return false;
  let power = 0;
  for (let within = at + window; within + window <= at + length; within += window)
    power += (2 * tone[within] ** 2) / window;
  if (power < pure * (all[at + length] - all[at + window])) return false;
  const most = Math.max(strength, strongest(heard, at, at + 2 * length));
  return !exceeds(heard, at + gone, at + gone + clear, none * most);
}

/**
 * The second at which a slate's beep begins in a take's sound: a tone of its pitch and its length that comes out of
 * nothing. In a room it goes on for a while and may swell. Of several the last one, since a slate that is begun again
 * counts from there.
 * @param sound mono, -1..1
 * @returns null where there is none
 */
export function findBeep(sound: Float32Array, sampleRate: number): number | null {
  const heard = listenTo(slowDown({ data: sound, rate: sampleRate }, listenRate));
  const { rate, window, tone } = heard;
  const [length, clear] = [beepLength, silence].map((seconds) => Math.round(seconds * rate));
  const found: { at: number; strength: number }[] = [];
  for (let at = 0; at < tone.length - length - window; at++) {
    const strength = strongest(heard, at, at + length, window >> 2);
    const isNew = at - (found.at(-1)?.at ?? -Infinity) >= clear;
    if (isNew && strength > least && tone[at] >= begun * strength && isBeep(heard, at, strength))
      found.push({ at, strength });
  }
  const most = Math.max(0, ...found.map(({ strength }) => strength));
  const chosen = found.findLast(({ strength }) => strength > most / 2);
  if (!chosen) return null;
  // Half of a window that is as strong as the whole is filled where the tone begins.
  const full = tone[chosen.at + window];
  let half = chosen.at;
  while (half < chosen.at + window && tone[half] < full / 2) half++;
  while (half > 0 && tone[half - 1] >= full / 2) half--;
  return (half + window / 2) / rate;
}
