import type { Hit } from './hits';
import { likeness, notesBetween, findTonal } from './tonal';
import { slowDown } from './spectrum';

/** Where something new begins, and which parts are alike: parts of one letter return. */
export type FoundSection = { time: number; letter: string };

/** Bars on each side that are held against each other. */
const reach = 4;
const shortest = 4;

/**
 * Section boundaries: bars are described by their notes, level and strikes; a boundary lies where bars before it are
 * alike, bars after it too, and the two are not.
 * @param samples mono, -1..1
 * @param bars seconds at which bars begin, rising
 * @param levels root mean square, ten a second
 * @see Foote 2000, "Automatic audio segmentation using a measure of audio novelty"
 */
export function findSections(
  samples: Float32Array,
  sampleRate: number,
  bars: readonly number[],
  levels: Float32Array,
  hits: readonly Hit[],
): FoundSection[] {
  if (bars.length < 2 * shortest) return bars.length > 0 ? [{ time: bars[0], letter: 'A' }] : [];
  const features = describeBars(samples, sampleRate, bars, levels, hits);
  const alike = features.map((one) => features.map((two) => likeness(one, two)));
  const novelty = bars.map((_, at) => {
    if (at < 2 || at > bars.length - 2) return 0;
    let [sum, weight] = [0, 0];
    for (let a = -reach; a < reach; a++) {
      for (let b = -reach; b < reach; b++) {
        const value = alike[at + a]?.[at + b];
        if (value === undefined) continue;
        const taper = Math.exp(-((a + 0.5) ** 2 + (b + 0.5) ** 2) / (reach * reach));
        sum += a < 0 === b < 0 ? taper * value : -taper * value;
        weight += taper;
      }
    }
    return sum / weight;
  });
  const usual = novelty.reduce((sum, value) => sum + value, 0) / novelty.length;
  const spread = Math.sqrt(novelty.reduce((sum, value) => sum + (value - usual) ** 2, 0) / novelty.length);
  const starts = [0];
  const ranked = novelty.map((value, at) => ({ value, at })).sort((a, b) => b.value - a.value);
  for (const { value, at } of ranked) {
    if (value < usual + 0.8 * spread || value < 0.02) break;
    if (bars.length - at >= shortest / 2 && starts.every((other) => Math.abs(other - at) >= shortest))
      starts.push(at);
  }
  starts.sort((a, b) => a - b);
  return lettered(starts, features).map((letter, index) => ({ time: bars[starts[index]], letter }));
}

/** Notes, level and strikes of each bar, each about its mean over the song and in units of its spread. */
function describeBars(
  samples: Float32Array,
  sampleRate: number,
  bars: readonly number[],
  levels: Float32Array,
  hits: readonly Hit[],
): Float64Array[] {
  const tonal = findTonal(slowDown({ data: samples, rate: sampleRate }, 22050), 1);
  const end = samples.length / sampleRate;
  const rows = bars.map((from, index) => {
    const to = Math.min(end, bars[index + 1] ?? from + (from - bars[index - 1]));
    const part = levels.subarray(
      Math.floor(from * 10),
      Math.max(Math.floor(from * 10) + 1, Math.ceil(to * 10)),
    );
    const level = Math.log(1e-4 + part.reduce((sum, value) => sum + value, 0) / Math.max(1, part.length));
    const strikes = (['low', 'mid', 'high'] as const).map((band) =>
      hits.reduce(
        (sum, hit) => sum + (hit.band === band && hit.time >= from && hit.time < to ? hit.strength : 0),
        0,
      ),
    );
    return Float64Array.from([...notesBetween(tonal, from, to), level, ...strikes]);
  });
  const size = rows[0].length;
  for (let feature = 0; feature < size; feature++) {
    const mean = rows.reduce((sum, row) => sum + row[feature], 0) / rows.length;
    const spread = Math.sqrt(rows.reduce((sum, row) => sum + (row[feature] - mean) ** 2, 0) / rows.length);
    // Level and strikes tell sections apart more surely than two dozen notes: they weigh as much together.
    const weight = feature < size - 4 ? 0.35 : 1.6;
    for (const row of rows) row[feature] = spread > 1e-9 ? ((row[feature] - mean) / spread) * weight : 0;
  }
  return rows;
}

/** Parts that sound alike get one letter, in the order of their first appearance. */
function lettered(starts: readonly number[], features: readonly Float64Array[]): string[] {
  const means = starts.map((start, index) => {
    const part = features.slice(start, starts[index + 1] ?? features.length);
    return part[0].map((_, feature) => part.reduce((sum, row) => sum + row[feature], 0) / part.length);
  });
  const letters: string[] = [];
  means.forEach((mean, index) => {
    const twin = means.slice(0, index).findIndex((other) => likeness(other, mean) > 0.6);
    letters.push(twin >= 0 ? letters[twin] : String.fromCharCode(65 + Math.min(25, new Set(letters).size)));
  });
  return letters;
}
