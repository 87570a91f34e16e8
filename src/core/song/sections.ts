import { median } from '../statistics';
import type { Hit } from './hits';
import { eachSpectrum, slowDown, type Sound } from './spectrum';
import { findTonal, likeness, noteCount, notesBetween } from './tonal';

/** Where something new begins, and which parts are alike: parts of one letter return. */
export type FoundSection = { time: number; letter: string };

/** Bars on each side that are held against each other. */
const reach = 4;
const shortest = 4;
/** Seconds by which a strike on the first of a bar may be found before it. */
const early = 0.06;

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

/** Notes, sound colour, level and strikes of each bar, each about its middle and in units of its spread. */
function describeBars(
  samples: Float32Array,
  sampleRate: number,
  bars: readonly number[],
  levels: Float32Array,
  hits: readonly Hit[],
): Float64Array[] {
  const sound = slowDown({ data: samples, rate: sampleRate }, 22050);
  const tonal = findTonal(sound, 1);
  const colours = coloursOf(sound);
  const end = samples.length / sampleRate;
  const rows = bars.map((from, index) => {
    const to = Math.min(end, bars[index + 1] ?? from + (from - bars[index - 1]));
    const parts = [Math.floor(from * 10), Math.max(Math.floor(from * 10) + 1, Math.floor(to * 10))];
    const part = levels.subarray(...(parts as [number, number]));
    const level = Math.log(1e-3 + part.reduce((sum, value) => sum + value, 0) / Math.max(1, part.length));
    const struck = hits.filter((hit) => hit.time >= from - early && hit.time < to - early);
    const colour = colours.map((band) => {
      const some = band.slice(...(parts as [number, number]));
      return some.reduce((sum, value) => sum + value, 0) / Math.max(1, some.length);
    });
    const strikes = struck.reduce((sum, hit) => sum + hit.strength, 0);
    return Float64Array.from([...notesBetween(tonal, from, to), ...colour, level, strikes]);
  });
  for (let feature = 0; feature < rows[0].length; feature++) {
    const values = rows.map((row) => row[feature]);
    const middle = median(values);
    const spread = values.reduce((sum, value) => sum + Math.abs(value - middle), 0) / values.length;
    // Two dozen notes change with every chord: colour, level and strikes tell sections apart more surely.
    const weight = feature < noteCount ? 0.25 : 1;
    for (const row of rows) {
      const share = spread > 1e-9 ? (row[feature] - middle) / spread : 0;
      row[feature] = weight * Math.max(-2, Math.min(2, share));
    }
  }
  return rows;
}

/** Loudness of eight bands from 60 to 8000 Hz, ten times a second, on a logarithmic scale: [band][tenth]. */
function coloursOf({ data, rate }: Sound): number[][] {
  const size = 2048;
  const bands: number[][] = Array.from({ length: 8 }, () => []);
  const edge = (step: number) => Math.round((60 * (8000 / 60) ** (step / 8) * size) / rate);
  eachSpectrum(data, size, Math.round(rate / 10), Math.min(size / 2, edge(8) + 1), (_, power) => {
    bands.forEach((band, index) => {
      let sum = 0;
      for (let bin = edge(index); bin < Math.max(edge(index) + 1, edge(index + 1)); bin++)
        sum += power[bin] ?? 0;
      band.push(Math.log(1e-6 + sum));
    });
  });
  return bands;
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
