import FFT from 'fft.js';
import { refuse } from '../error';
import { median } from '../statistics';
import { slowDown, type Sound } from '../song/spectrum';

/** Where one sound lies on another. */
export type Alignment = {
  /** seconds: the other's first sample belongs here on the reference */
  offset: number;
  /** parts per million by which the other's clock is slow: a second of it is so much longer on the reference */
  drift: number;
  /** 0..1; 0 where nothing of one is in the other */
  confidence: number;
  /** how many times as fast the reference was played where the other was recorded; left out for as fast as it is */
  speed?: number;
  /** known from the beep of the slate, or from its white picture; not heard in itself */
  by?: 'beep' | 'white';
};

/** The second of the reference that a second of the other belongs to. */
export const onReference = ({ offset, drift, speed = 1 }: Alignment, seconds: number): number =>
  offset + speed * (seconds + (drift * seconds) / 1e6);

/** samples a second at which is looked where the other lies, and at which is measured exactly where */
const [roughRate, fineRate] = [4000, 16_000];
/** the band in which sounds are held against each other: below it rooms rumble, above it phones cut off; hertz */
const band = { from: 120, until: 6000 };
/** seconds of the other that are looked for at once, and that are measured at once */
const [roughSeconds, fineSeconds] = [8, 3];
/** pieces of the other that are looked for, and that are measured, at most */
const [mostRough, mostFine] = [12, 24];
/** seconds round the place that was found within which is measured */
const slack = 0.06;
/** how many times a peak stands above the rest before it is believed, and before it is sure; by trial */
const [leastPeak, surePeak] = [12, 30];
/** how much the loudness of a frequency still counts: 1 is plain correlation, 0 its phase alone */
const loudness = 0.25;
/** seconds within which measurements agree */
const together = 0.001;

const powerAbove = (count: number): number => 2 ** Math.ceil(Math.log2(Math.max(2, count)));

/**
 * How well two sounds agree at each shift, from their phases above all: sharp whatever the room and the microphone are.
 * @param size a power of two that holds both
 * @returns by how many samples the reference is ahead; negative ones from the end
 * @see Knapp & Carter 1976 (generalised cross-correlation, phase transform)
 */
function agreement(reference: Float32Array, other: Float32Array, size: number, rate: number): Float64Array {
  const fft = new FFT(size);
  const mixed = new Float64Array(2 * size);
  // Both at once, as the real and the imaginary part.
  for (let at = 0; at < reference.length; at++) mixed[2 * at] = reference[at];
  for (let at = 0; at < other.length; at++) mixed[2 * at + 1] = other[at];
  const spectrum = new Float64Array(2 * size);
  fft.transform(spectrum, mixed);
  const crossed = new Float64Array(2 * size);
  const last = Math.min(size / 2 - 1, Math.floor((band.until * size) / rate));
  for (let bin = Math.max(1, Math.ceil((band.from * size) / rate)); bin <= last; bin++) {
    const [at, mirror] = [2 * bin, 2 * (size - bin)];
    const [re, im] = [spectrum[at] + spectrum[mirror], spectrum[at + 1] - spectrum[mirror + 1]];
    const [otherRe, otherIm] = [spectrum[at + 1] + spectrum[mirror + 1], spectrum[mirror] - spectrum[at]];
    const real = re * otherRe + im * otherIm;
    const imaginary = im * otherRe - re * otherIm;
    const strength = Math.hypot(real, imaginary);
    if (!(strength > 0)) continue;
    const weight = strength ** (loudness - 1);
    crossed[at] = real * weight;
    crossed[at + 1] = imaginary * weight;
    crossed[mirror] = crossed[at];
    crossed[mirror + 1] = -crossed[at + 1];
  }
  fft.inverseTransform(mixed, crossed);
  return Float64Array.from({ length: size }, (_, shift) => mixed[2 * shift]);
}

type Peak = { shift: number; height: number };

/** The highest agreement among some shifts, to a part of a sample, and how far it stands above the rest. */
function peakOf(values: Float64Array, from: number, until: number): Peak {
  const size = values.length;
  const at = (shift: number) => values[((shift % size) + size) % size];
  let best = from;
  for (let shift = from; shift <= until; shift++) if (at(shift) > at(best)) best = shift;
  let square = 0;
  for (const value of values) square += value * value;
  const spread = Math.sqrt(square / size);
  const [before, own, after] = [at(best - 1), at(best), at(best + 1)];
  const bend = before - 2 * own + after;
  const part = bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
  return { shift: best + part, height: spread > 0 ? own / spread : 0 };
}

/** Where pieces of a sound begin, the loudest first. */
function pieces({ data }: Sound, length: number, most: number): number[] {
  const count = Math.max(1, Math.min(most, Math.ceil(data.length / length)));
  const step = count > 1 ? (data.length - length) / (count - 1) : 0;
  const loud = (from: number) => {
    let sum = 0;
    for (let at = from; at < from + length && at < data.length; at++) sum += data[at] * data[at];
    return sum;
  };
  return Array.from({ length: count }, (_, index) => Math.round(index * step))
    .map((from) => ({ from, power: loud(from) }))
    .sort((one, other) => other.power - one.power)
    .map(({ from }) => from);
}

/** Where a piece of the other lies on the whole reference, seconds from its own beginning in the other. */
function search(reference: Sound, piece: Float32Array): { at: number; height: number } {
  const { data, rate } = reference;
  const size = Math.min(2 ** 17, powerAbove(data.length + piece.length));
  const advance = size - piece.length;
  let best = { at: 0, height: 0 };
  // The piece may begin before the reference does.
  for (let from = -piece.length; from < data.length; from += advance) {
    const part = new Float32Array(size);
    part.set(data.subarray(Math.max(0, from), from + size), Math.max(0, -from));
    const peak = peakOf(agreement(part, piece, size, rate), 0, Math.min(advance, data.length - from) - 1);
    if (peak.height > best.height) best = { at: (from + peak.shift) / rate, height: peak.height };
  }
  return best;
}

/** Roughly where the other begins on the reference, and how far that stands out. */
type Rough = { offset: number; height: number };

/**
 * Null where pieces of the other are found nowhere, or in places that contradict each other.
 * @param most pieces that are looked for
 */
export function roughly(reference: Sound, other: Sound, most = mostRough): Rough | null {
  const length = Math.min(other.data.length, Math.round(roughSeconds * other.rate));
  const found: Rough[] = [];
  for (const from of pieces(other, length, most)) {
    const { at, height } = search(reference, other.data.subarray(from, from + length));
    const offset = at - from / other.rate;
    if (height < leastPeak) continue;
    if (height > surePeak || found.some((one) => Math.abs(one.offset - offset) < slack))
      return { offset, height };
    found.push({ offset, height });
  }
  const [best] = found.sort((one, another) => another.height - one.height);
  return best ?? null;
}

/** A sound as it is looked for roughly. */
export const forRough = (data: Float32Array, rate: number): Sound => slowDown({ data, rate }, roughRate);

/** What was measured of a piece: the middle of it in the other, and where the other begins by it. Seconds. */
type Measured = { at: number; offset: number; height: number };

/** Measures where pieces of the other lie, near where the whole does. */
function measure(reference: Sound, other: Sound, rough: number): Measured[] {
  const { rate } = other;
  const length = Math.min(other.data.length, Math.round(fineSeconds * rate));
  const room = Math.round(slack * rate);
  const size = powerAbove(length + 2 * room + length);
  const inside = (at: number) =>
    at + rough * rate > -length / 2 && at + rough * rate < reference.data.length - length / 2;
  return pieces(other, length, mostFine)
    .filter(inside)
    .map((from): Measured => {
      const start = Math.round(from + rough * rate) - room;
      const part = new Float32Array(length + 2 * room);
      part.set(
        reference.data.subarray(Math.max(0, start), Math.max(0, start + part.length)),
        Math.min(part.length, Math.max(0, -start)),
      );
      const peak = peakOf(agreement(part, other.data.subarray(from, from + length), size, rate), 0, 2 * room);
      return {
        at: (from + length / 2) / rate,
        offset: (start + peak.shift - from) / rate,
        height: peak.height,
      };
    });
}

/** The line that most measurements lie on. @see Sen 1968 (the median of all slopes) */
function lineThrough(points: readonly Measured[]): { offset: number; slope: number } {
  const slopes = points.flatMap((one, index) =>
    points
      .slice(index + 1)
      .filter((other) => Math.abs(other.at - one.at) > 1)
      .map((other) => (other.offset - one.offset) / (other.at - one.at)),
  );
  const slope = slopes.length > 2 ? median(slopes) : 0;
  return { slope, offset: median(points.map(({ at, offset }) => offset - slope * at)) };
}

/** The line by least squares. */
function fitted(points: readonly Measured[]): { offset: number; slope: number } {
  const mean = (of: (point: Measured) => number) =>
    points.reduce((sum, point) => sum + of(point), 0) / points.length;
  const [at, offset] = [mean((point) => point.at), mean((point) => point.offset)];
  const spread = mean((point) => (point.at - at) ** 2);
  const slope = spread > 1 ? mean((point) => (point.at - at) * (point.offset - offset)) / spread : 0;
  return { slope, offset: offset - slope * at };
}

const nothing: Alignment = { offset: 0, drift: 0, confidence: 0 };
const isSound = ({ data }: Sound) => data.some((value) => value !== 0) && data.every(Number.isFinite);

/**
 * Where a recording lies on another of the same, or on the song that was playing: through a room, noise, and another
 * microphone and clock.
 * @param reference mono, -1..1
 * @param other mono, at the same rate
 * @returns other's sample at time t belongs at t + offset + drift · t / 1e6 on the reference; confidence 0 where either
 * is silent or nothing of one is in the other
 * @throws CoreError `sample-rate` where the rate makes no sense
 */
export function alignSound(reference: Float32Array, other: Float32Array, sampleRate: number): Alignment {
  if (!(sampleRate >= 2000))
    refuse('sample-rate', 'This sound says no usable sample rate. Export it again as WAV at 48 kHz.');
  const both = [reference, other].map((data) => ({ data, rate: sampleRate }));
  if (!both.every(isSound) || other.length < sampleRate / 4) return nothing;
  const [roughOne, roughTwo] = both.map(({ data, rate }) => forRough(data, rate));
  const rough = roughly(roughOne, roughTwo);
  if (rough === null) return nothing;
  const [one, two] = both.map((sound) => slowDown(sound, fineRate));
  const tried = measure(one, two, rough.offset);
  const measured = tried.filter(({ height }) => height > leastPeak);
  if (measured.length === 0) return nothing;
  const line = lineThrough(measured);
  const isNear = ({ at, offset }: Measured) => Math.abs(offset - line.offset - line.slope * at) < together;
  const near = measured.filter(isNear);
  if (near.length === 0) return nothing;
  const { offset, slope } = fitted(near);
  const height = median(near.map((piece) => piece.height));
  const sure = Math.min(1, (height - leastPeak) / (surePeak - leastPeak));
  return { offset, drift: slope * 1e6, confidence: sure * (near.length / tried.length) };
}
