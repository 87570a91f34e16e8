import FFT from 'fft.js';
import { refuse } from '../error';
import { slowDown, type Sound } from '../song/spectrum';
import { median } from '../statistics';
import type { Alignment } from './align-sound';
import { bandCount, bandLevels, listenRate, windowSize, type BandLevels } from './band-levels';

/** samples between two looks at a take: 10 ms */
const hop = 80;
/** looks over which loudness rises where something begins: a room delays that less than all the rest */
const rising = 2;
/** looks of the take that are looked for at once, many where all of it may be the song, and fewer where it begins later; fewer than the least say nothing */
const [most, piece, least] = [2000, 800, 400];
/** pieces of either length that are looked for, at the most */
const mostPieces = 4;
/** seconds of the take round the place that was found within which is measured */
const slack = 0.4;
/** how alike it has to be before it is believed, and before it is sure; and by how much more than anywhere else. By trial, see docs/architecture.md */
const [leastAlike, sureAlike] = [0.2, 0.4];
const [leastAhead, sureAhead] = [0.04, 0.12];
/** looks that this is said of, and within which it is the same place */
const usualLooks = 1400;
const samePlace = 12;

/** How loud each band is against what is usual there, and against the others. @param step samples between two looks */
function levelsIn(sound: Sound, step: number): BandLevels {
  const levels = bandLevels(sound, step);
  for (let row = 0; row < levels.rows; row++) holdAgainstOthers(levels.values, row);
  return levels;
}

/** Less their mean over all bands: that all of them strike together is so in every song of a tempo. */
function holdAgainstOthers(values: Float32Array, row: number): void {
  const [from, until] = [row * bandCount, (row + 1) * bandCount];
  let sum = 0;
  for (let at = from; at < until; at++) sum += values[at];
  for (let at = from; at < until; at++) values[at] -= sum / bandCount;
}

/** By how much each band has become louder. */
function rises({ rows, rate, values }: BandLevels): BandLevels {
  const before = rising * bandCount;
  const out = values.map((value, at) => (at < before ? 0 : Math.max(0, value - values[at - before])));
  return { rows, rate, values: out };
}

/** The sum of squares of rows before each. */
function powersOf({ rows, values }: BandLevels): Float64Array {
  const out = new Float64Array(rows + 1);
  for (let row = 0; row < rows; row++) {
    let sum = 0;
    for (let at = row * bandCount; at < (row + 1) * bandCount; at++) sum += values[at] * values[at];
    out[row + 1] = out[row] + sum;
  }
  return out;
}

/**
 * How alike rows of a take are to those of a song, -1..1, for each row of the song at which they may begin.
 * @see Lewis 1995 (normalised cross-correlation by running sums)
 */
function likeness(song: BandLevels, take: BandLevels): Float64Array {
  const size = 2 ** Math.ceil(Math.log2(Math.max(2, song.rows)));
  const fft = new FFT(size);
  const [both, spectrum, crossed] = Array.from({ length: 3 }, () => new Float64Array(2 * size));
  for (let band = 0; band < bandCount; band++) {
    both.fill(0);
    // Both at once, as the real and the imaginary part.
    for (let row = 0; row < song.rows; row++) both[2 * row] = song.values[row * bandCount + band];
    for (let row = 0; row < take.rows; row++) both[2 * row + 1] = take.values[row * bandCount + band];
    fft.transform(spectrum, both);
    for (let bin = 0; bin < size; bin++) {
      const [at, mirror] = [2 * bin, 2 * ((size - bin) % size)];
      const [re, im] = [spectrum[at] + spectrum[mirror], spectrum[at + 1] - spectrum[mirror + 1]];
      const [otherRe, otherIm] = [spectrum[at + 1] + spectrum[mirror + 1], spectrum[mirror] - spectrum[at]];
      crossed[at] += (re * otherRe + im * otherIm) / 4;
      crossed[at + 1] += (im * otherRe - re * otherIm) / 4;
    }
  }
  fft.inverseTransform(both, crossed);
  const there = powersOf(song);
  const own = powersOf(take)[take.rows];
  return Float64Array.from({ length: Math.max(0, song.rows - take.rows + 1) }, (_, row) => {
    const power = (there[row + take.rows] - there[row]) * own;
    return power > 0 ? both[2 * row] / Math.sqrt(power) : 0;
  });
}

/**
 * How sure the highest of some values is the place: it is high, and nothing elsewhere is about as high. What is alike
 * by chance is more so over fewer looks.
 */
function sureOf(values: Float64Array, { row, alike }: { row: number; alike: number }, looks: number): number {
  let second = 0;
  for (let at = 0; at < values.length; at++)
    if (Math.abs(at - row) > samePlace) second = Math.max(second, values[at]);
  const share = (value: number, from: number, to: number) =>
    Math.min(1, Math.max(0, (value - from) / (to - from)));
  return Math.min(
    share(alike, leastAlike, sureAlike),
    share((alike - second) * Math.sqrt(looks / usualLooks), leastAhead, sureAhead),
  );
}

/** The highest of some values, to a part of a row. */
function highestOf(values: Float64Array): { row: number; alike: number } {
  let best = 0;
  for (let row = 1; row < values.length; row++) if (values[row] > values[best]) best = row;
  const [before, own, after] = [values[best - 1] ?? 0, values[best] ?? 0, values[best + 1] ?? 0];
  const bend = before - 2 * own + after;
  const part = bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
  return { row: best + part, alike: own };
}

/** Some rows of looks; those beyond an end are left out. */
function rowsOf({ rate, values }: BandLevels, from: number, until: number): BandLevels {
  const part = values.subarray(Math.max(0, from) * bandCount, Math.max(0, until) * bandCount);
  return { rows: part.length / bandCount, rate, values: part };
}

/** First rows of pieces of a length, evenly spread over all rows. */
function piecesOf(rows: number, length: number, apart: number, atMost = Infinity): number[] {
  const count = Math.min(atMost, 1 + Math.max(0, Math.ceil((rows - length) / apart)));
  return Array.from({ length: count }, (_, index) =>
    count > 1 ? Math.round((index * (rows - length)) / (count - 1)) : 0,
  );
}

const nothing: Alignment = { offset: 0, drift: 0, confidence: 0 };

/** Where what was listened to in a take lies on a song as it sounds at a speed. */
function alignAt(played: Sound, take: BandLevels, speed: number): Alignment {
  const song = levelsIn(played, Math.max(1, Math.round(hop * speed)));
  const all = Math.min(take.rows, song.rows);
  if (all < least) return nothing;
  /** Seconds of the song at which the take begins, where a row of the one lies on a row of the other. */
  const begins = (row: number, from: number) =>
    row / song.rate - (speed * from) / take.rate + ((1 - speed) * windowSize) / 2 / played.rate;
  const [found] = [most, piece]
    .map((length) => Math.min(all, length))
    .flatMap((length) =>
      piecesOf(take.rows, length, length / 2, mostPieces).map((from) => ({ from, length })),
    )
    .map(({ from, length }) => {
      const values = likeness(song, rowsOf(take, from, from + length));
      const highest = highestOf(values);
      return { from, row: highest.row, confidence: sureOf(values, highest, length) };
    })
    .sort((one, another) => another.confidence - one.confidence);
  const { confidence } = found;
  if (confidence === 0) return nothing;
  const [riseOfSong, riseOfTake] = [rises(song), rises(take)];
  const rows = Math.min(all, piece);
  const reach = Math.round(slack * take.rate);
  const measured = piecesOf(take.rows, rows, rows / 2).flatMap((from) => {
    const middle = Math.round(found.row + from - found.from);
    const first = Math.max(0, middle - reach);
    const near = rowsOf(riseOfSong, first, middle + rows + reach);
    if (near.rows < rows) return [];
    const { row, alike } = highestOf(likeness(near, rowsOf(riseOfTake, from, from + rows)));
    return alike > leastAlike ? [begins(first + row, from)] : [];
  });
  const offset = measured.length > 0 ? median(measured) : begins(found.row, found.from);
  return { offset, drift: 0, confidence, ...(speed === 1 ? {} : { speed }) };
}

/**
 * Where a take's sound lies on a song that was played at another speed with its pitch kept. Players keep it by pieces
 * that each shifts to and fro in its own way, so that waves cannot be held against each other; how loud each band of
 * pitch is, and when it rises, can. To some hundredths of a second: a clock's drift is not told.
 * @param reference the song, mono, -1..1
 * @param other the take's sound, at the same rate
 * @param speeds how many times as fast it may have been played; those after one that is sure are not looked at
 * @returns confidence 0 where nothing of it is heard, or less than four seconds were recorded
 * @throws CoreError `sample-rate` where the rate is below 8 kHz
 */
export function alignKept(
  reference: Float32Array,
  other: Float32Array,
  sampleRate: number,
  speeds: readonly number[],
): Alignment {
  if (!(sampleRate >= listenRate))
    refuse('sample-rate', 'This sound has too few samples a second. Export it again as WAV at 48 kHz.');
  const take = levelsIn(slowDown({ data: other, rate: sampleRate }, listenRate), hop);
  const played = slowDown({ data: reference, rate: sampleRate }, listenRate);
  let best = nothing;
  for (const speed of speeds) {
    const found = alignAt(played, take, speed);
    if (found.confidence > best.confidence) best = found;
    if (best.confidence === 1) break;
  }
  return best;
}
