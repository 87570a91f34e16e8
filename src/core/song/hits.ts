import { peakNear, sharpen, type Onsets } from './onsets';

export type Hit = { time: number; strength: number; band: 'low' | 'mid' | 'high' };

/** Flux over all bands below which nothing starts: a held tone flutters up to about 1, a soft strike has 5. */
const audible = 2;

/** Single strong starts of sound, each with the band that it is strongest in; strength 0..1. */
export function findHits(onsets: Onsets): Hit[] {
  const strong = sharpen(onsets.all, onsets.rate);
  const names = ['low', 'mid', 'high'] as const;
  const bands = {
    low: sharpen(onsets.low, onsets.rate),
    mid: sharpen(onsets.mid, onsets.rate),
    high: sharpen(onsets.high, onsets.rate),
  };
  const hits: Hit[] = [];
  for (let at = 3; at < strong.length - 3; at++) {
    if (strong[at] < 2 || onsets.all[at] < audible) continue;
    if (![1, 2, 3].every((step) => strong[at] >= strong[at + step] && strong[at] > strong[at - step]))
      continue;
    const band = names.reduce((best, name) => (bands[name][at] > bands[best][at] ? name : best));
    const time = onsets.start + peakNear(strong, at) / onsets.rate;
    hits.push({ time, strength: Math.min(1, strong[at] / 8), band });
  }
  return hits;
}
