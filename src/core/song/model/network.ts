import * as z from 'zod/mini';
import weights from './weights.json';
import { convolve, rectify, type Layer } from './convolve';
import { channelCount, type Heard } from './input';

/** What the model makes of a song. */
export type Likely = {
  rate: number;
  start: number;
  /** how likely each frame is a beat, and the first beat of a bar: 0..1 */
  beat: Float32Array;
  first: Float32Array;
  /** logarithm of how likely each tempo is; even steps of octaves */
  tempos: Float32Array;
};

const coded = z.object({
  slowest: z.number(),
  octaves: z.number(),
  layers: z.array(
    z.object({
      out: z.number(),
      in: z.number(),
      taps: z.number(),
      dilation: z.number(),
      scale: z.array(z.number()),
      bias: z.array(z.number()),
      weights: z.string(),
    }),
  ),
});

type Model = { slowest: number; octaves: number; layers: Layer[] };

/** Weights are signed bytes with a scale for each output. */
function decoded(): Model {
  const { layers, ...about } = coded.parse(weights);
  return {
    ...about,
    layers: layers.map(({ scale, bias, weights: text, ...shape }) => {
      const bytes = Int8Array.from(atob(text), (letter) => (letter.charCodeAt(0) << 24) >> 24);
      const perOut = shape.in * shape.taps;
      return {
        ...shape,
        weights: Float32Array.from(bytes, (value, index) => value * scale[Math.floor(index / perOut)]),
        bias: Float32Array.from(bias),
      };
    }),
  };
}
let known: Model | null = null;
const model = (): Model => (known ??= decoded());

/** Means over time of what is above 0 in each row. */
function meansOf(rows: Float32Array, count: number, frames: number): Float32Array {
  return Float32Array.from({ length: count }, (_, row) => {
    let sum = 0;
    for (let at = row * frames; at < (row + 1) * frames; at++) if (rows[at] > 0) sum += rows[at];
    return sum / Math.max(1, frames);
  });
}

/** Logarithm of how likely a tempo is to be the written one. @param bpm beats a minute */
export function tempoLikely({ tempos }: Likely, bpm: number): number {
  const { slowest, octaves } = model();
  const place = (Math.log2(bpm / slowest) / octaves) * tempos.length;
  const low = Math.max(0, Math.min(tempos.length - 1, Math.floor(place)));
  const high = Math.min(tempos.length - 1, low + 1);
  const part = Math.max(0, Math.min(1, place - low));
  return tempos[low] * (1 - part) + tempos[high] * part;
}

const share = (value: number) => 1 / (1 + Math.exp(-value));

/**
 * What the model makes of a song: a stack of dilated convolutions, each after the first adding to what is there.
 * @param report hears how much is done, 0..1
 * @see Davies & Böck 2019, "Temporal convolutional networks for musical audio beat tracking"
 */
export function listen(
  { rate, start, frames, rows }: Heard,
  report: (done: number) => void = () => {},
): Likely {
  const { layers } = model();
  const [front, ...rest] = layers;
  const [heads, tempo] = rest.splice(-2);
  if (front.in !== channelCount)
    throw new Error(`The model hears ${front.in} channels, not ${channelCount}.`);
  const width = front.out;
  const sum = new Float32Array(width * frames);
  convolve(front, rows, sum, frames);
  rectify(sum);
  const means = new Float32Array(tempo.in);
  for (let block = 0; block + 1 < rest.length; block += 2) {
    const wide = new Float32Array(width * frames);
    convolve(rest[block], sum, wide, frames);
    rectify(wide);
    convolve(rest[block + 1], wide, sum, frames);
    means.set(meansOf(sum, width, frames), (block / 2) * width);
    report((block + 2) / rest.length);
  }
  rectify(sum);
  const out = new Float32Array(heads.out * frames);
  convolve(heads, sum, out, frames);
  const [beat, first] = [0, 1].map((head) => out.slice(head * frames, (head + 1) * frames).map(share));
  const tempos = new Float32Array(tempo.out);
  convolve(tempo, means, tempos, 1);
  const most = Math.max(...tempos);
  const all = Math.log(tempos.reduce((total, value) => total + Math.exp(value - most), 0));
  return { rate, start, beat, first, tempos: tempos.map((value) => value - most - all) };
}
