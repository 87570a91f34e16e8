import { beepLength, beepPitch } from '../song/click';
import { slowDown } from '../song/spectrum';

/** samples a second at which is listened */
const listenRate = 8000;
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

/**
 * The second at which a slate's beep begins in a take's sound: a tone of its pitch and its length that comes out of
 * nothing. In a room it goes on for a while and may swell. Of several the last one, since a slate that is begun again
 * counts from there.
 * @param sound mono, -1..1
 * @returns null where there is none
 */
export function findBeep(sound: Float32Array, sampleRate: number): number | null {
  const { data, rate } = slowDown({ data: sound, rate: sampleRate }, listenRate);
  const turn = (2 * Math.PI * beepPitch) / rate;
  const re = sumsOf(data.length, (at) => data[at] * Math.cos(turn * at));
  const im = sumsOf(data.length, (at) => data[at] * Math.sin(turn * at));
  const all = sumsOf(data.length, (at) => data[at] * data[at]);
  const window = Math.round(short * rate);
  const count = data.length - window;
  const [length, clear, gone] = [beepLength, silence, swallowed].map((seconds) => Math.round(seconds * rate));
  if (count <= length + gone) return null;
  const tone = Float32Array.from({ length: count }, (_, at) =>
    Math.hypot(re[at + window] - re[at], im[at + window] - im[at]),
  );
  const found: { at: number; strength: number }[] = [];
  for (let at = 0; at < count - length - window; at++) {
    // What was at least as loud shortly before is no beginning.
    let strength = 0;
    for (let within = at; within < at + length; within += window >> 2)
      strength = Math.max(strength, tone[within]);
    if (!(strength > 1e-3) || tone[at] < begun * strength || at - (found.at(-1)?.at ?? -clear) < clear)
      continue;
    if (isBeep(at, strength)) found.push({ at, strength });
  }
  function isBeep(at: number, strength: number): boolean {
    for (let before = Math.max(0, at - clear); before < at; before++)
      if (tone[before] > none * strength) return false;
    let power = 0;
    for (let within = at + window; within + window <= at + length; within += window)
      power += (2 * tone[within] ** 2) / window;
    const whole = all[at + length] - all[at + window];
    if (power < pure * whole) return false;
    let most = strength;
    for (let within = at; within < at + 2 * length && within < count; within++)
      most = Math.max(most, tone[within]);
    let later = 0;
    const until = Math.min(count, at + gone + clear);
    for (let after = at + gone; after < until; after++) later = Math.max(later, tone[after]);
    return later < none * most;
  }
  const strongest = Math.max(0, ...found.map(({ strength }) => strength));
  const chosen = found.findLast(({ strength }) => strength > strongest / 2);
  if (!chosen) return null;
  // Half of a window that is as strong as the whole is filled where the tone begins.
  const full = tone[chosen.at + window];
  let half = chosen.at;
  while (half < chosen.at + window && tone[half] < full / 2) half++;
  while (half > 0 && tone[half - 1] >= full / 2) half--;
  return (half + window / 2) / rate;
}
