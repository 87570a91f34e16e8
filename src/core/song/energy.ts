import type { Hit } from './hits';

/** How loud and how busy a stretch of the song is. */
export type Energy = {
  /** mean level in decibels below full scale */
  level: number;
  /** strong starts a second */
  density: number;
  /** 0..1 against the rest of the song; both count alike */
  share: number;
};

/** Root mean square a tenth of a second; samples -1..1. */
export function levelsOf(samples: Float32Array, sampleRate: number): Float32Array {
  const step = Math.max(1, Math.round(sampleRate / 10));
  return Float32Array.from({ length: Math.ceil(samples.length / step) }, (_, part) => {
    const end = Math.min(samples.length, (part + 1) * step);
    let sum = 0;
    for (let at = part * step; at < end; at++) sum += samples[at] * samples[at];
    return Math.sqrt(sum / Math.max(1, end - part * step));
  });
}

const decibels = (level: number) => 20 * Math.log10(Math.max(1e-5, level));

/**
 * Energy of each stretch between the given times.
 * @param levels root mean square, ten a second
 * @param edges seconds, rising; one more than there are stretches
 */
export function energyOf(levels: Float32Array, hits: readonly Hit[], edges: readonly number[]): Energy[] {
  const raw = edges.slice(1).map((to, index) => {
    const from = edges[index];
    const part = levels.subarray(
      Math.floor(from * 10),
      Math.max(Math.floor(from * 10) + 1, Math.ceil(to * 10)),
    );
    const power = part.reduce((sum, value) => sum + value * value, 0) / Math.max(1, part.length);
    const strong = hits.filter((hit) => hit.time >= from && hit.time < to);
    return { level: decibels(Math.sqrt(power)), density: strong.length / Math.max(0.1, to - from) };
  });
  const within = (key: 'level' | 'density', value: number) => {
    const all = raw.map((one) => one[key]);
    const [least, most] = [Math.min(...all), Math.max(...all)];
    return most - least > 1e-6 ? (value - least) / (most - least) : 0.5;
  };
  return raw.map((one) => ({
    ...one,
    share: (within('level', one.level) + within('density', one.density)) / 2,
  }));
}
