import { seeded } from '../../random';

export const rate = 48_000;

/** A song of hits and tones, so many seconds long. */
export function song(seconds: number, seed: number): Float32Array {
  const out = new Float32Array(Math.round(seconds * rate));
  const next = seeded(seed);
  for (let beat = 0; beat < seconds / 0.25; beat++) {
    const from = Math.round(beat * 0.25 * rate);
    const [pitch, tone, hit] = [110 * 2 ** (Math.floor(next() * 24) / 12), next(), next() < 0.5 ? 0.6 : 0.1];
    for (let at = 0; at < 0.4 * rate && from + at < out.length; at++) {
      const fades = Math.exp(-at / (0.12 * rate));
      const t = at / rate;
      out[from + at] +=
        0.3 * tone * fades * (Math.sin(2 * Math.PI * pitch * t) + 0.5 * Math.sin(4 * Math.PI * pitch * t)) +
        hit * Math.exp(-at / (0.02 * rate)) * (next() - 0.5);
    }
  }
  return out;
}

/**
 * A sound at a place between samples, and at another clock, by a windowed sinc over 32 samples.
 * @param speed how many times as fast it is played, its pitch rising with it; over as many times as many samples then
 */
export function heardFrom(
  sound: Float32Array,
  start: number,
  seconds: number,
  drift: number,
  speed = 1,
): Float32Array {
  const wide = Math.max(1, speed);
  const reach = Math.round(16 * wide);
  const out = new Float32Array(Math.round(seconds * rate));
  // From tap to tap both sines are turned on by the same angle, which is faster than asking for each.
  const step = Math.PI / wide;
  const [cos, sin] = [Math.cos(step), Math.sin(step)];
  const [windowCos, windowSin] = [Math.cos(step / 16.5), Math.sin(step / 16.5)];
  for (let index = 0; index < out.length; index++) {
    const place = (start + speed * (index / rate) * (1 + drift / 1e6)) * rate;
    const first = Math.floor(place) - reach + 1;
    let x = step * (place - first);
    let [c, s] = [Math.cos(x), Math.sin(x)];
    let [wc, ws] = [Math.cos(x / 16.5), Math.sin(x / 16.5)];
    let sum = 0;
    for (let tap = first; tap < first + 2 * reach; tap++) {
      const value = tap >= 0 && tap < sound.length ? sound[tap] : 0;
      sum += value * (0.5 + 0.5 * wc) * (Math.abs(x) < 1e-9 ? 1 : s / x);
      x -= step;
      const turned = c * cos + s * sin;
      s = s * cos - c * sin;
      c = turned;
      const windowTurned = wc * windowCos + ws * windowSin;
      ws = ws * windowCos - wc * windowSin;
      wc = windowTurned;
    }
    out[index] = sum / wide;
  }
  return out;
}

/** As a room sounds: twelve reflections from its walls within a twelfth of a second, each weaker, and a tail. */
export function inRoom(sound: Float32Array, seed: number): Float32Array {
  const next = seeded(seed);
  const echoes = Array.from({ length: 60 }, (_, index) => {
    const seconds = 0.004 + (0.25 * index) / 60 + 0.003 * next();
    return {
      late: Math.round(seconds * rate),
      share: (next() < 0.5 ? -0.6 : 0.6) * Math.exp(-seconds / 0.08),
    };
  });
  const out = Float64Array.from(sound);
  for (const { late, share } of echoes)
    for (let at = late; at < out.length; at++) out[at] += share * sound[at - late];
  return Float32Array.from(out);
}

/** With noise that is so many decibels weaker. */
export function noisy(sound: Float32Array, decibels: number, seed: number): Float32Array {
  const next = seeded(seed);
  const power = sound.reduce((sum, value) => sum + value * value, 0) / sound.length;
  const spread = Math.sqrt(power / 10 ** (decibels / 10));
  return sound.map((value) => value + spread * (next() + next() + next() + next() - 2) * Math.sqrt(3));
}
