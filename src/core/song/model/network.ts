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
  tempos: Float64Array;
};

const layer = z.object({
  out: z.number(),
  in: z.number(),
  taps: z.number(),
  dilation: z.number(),
  scale: z.array(z.number()),
  bias: z.array(z.number()),
  weights: z.string(),
});
const blocks = z.array(z.object({ wide: layer, mix: layer }));
const coded = z.object({
  slowest: z.number(),
  octaves: z.number(),
  front: layer,
  early: blocks,
  down: layer,
  slow: blocks,
  tempo: layer,
  up: layer,
  level: layer,
  late: blocks,
  heads: layer,
});

/** Two convolutions whose answer is added to what they heard. */
type Block = { wide: Layer; mix: Layer };

/** Weights are signed bytes, [out][in][tap], with a scale for each output. */
function decodedLayer({ scale, bias, weights: text, ...shape }: z.infer<typeof layer>): Layer {
  const bytes = Int8Array.from(atob(text), (letter) => (letter.charCodeAt(0) << 24) >> 24);
  const { out, in: inputs, taps } = shape;
  const weights = Float64Array.from({ length: bytes.length }, (_, at) => {
    const output = at % out;
    const input = Math.floor(at / out) % inputs;
    const tap = Math.floor(at / out / inputs);
    return bytes[(output * inputs + input) * taps + tap] * scale[output];
  });
  return { ...shape, weights, bias: Float64Array.from(bias) };
}
const decodedBlocks = (all: z.infer<typeof blocks>): Block[] =>
  all.map(({ wide, mix }) => ({ wide: decodedLayer(wide), mix: decodedLayer(mix) }));

function decoded() {
  const told = coded.parse(weights);
  return {
    slowest: told.slowest,
    octaves: told.octaves,
    front: decodedLayer(told.front),
    early: decodedBlocks(told.early),
    down: decodedLayer(told.down),
    slow: decodedBlocks(told.slow),
    tempo: decodedLayer(told.tempo),
    up: decodedLayer(told.up),
    level: decodedLayer(told.level),
    late: decodedBlocks(told.late),
    heads: decodedLayer(told.heads),
  };
}
let known: ReturnType<typeof decoded> | null = null;
const model = () => (known ??= decoded());

/** Means over time of what is above 0 in each channel. */
function meansOf(rows: Float64Array, width: number, frames: number): number[] {
  const sums = new Array<number>(width).fill(0);
  for (let at = 0; at < width * frames; at++) if (rows[at] > 0) sums[at % width] += rows[at];
  return sums.map((sum) => sum / Math.max(1, frames));
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

/** A layer's answer. */
function answer(layer: Layer, rows: Float64Array, frames: number): Float64Array {
  const out = new Float64Array(layer.out * frames);
  convolve(layer, rows, out, frames);
  return out;
}

function add(to: Float64Array, more: Float64Array): void {
  for (let at = 0; at < to.length; at++) to[at] += more[at % more.length];
}

/** Logarithms of shares that sum to 1. */
function logShares(values: Float64Array): Float64Array {
  const most = Math.max(...values);
  const all = Math.log(values.reduce((total, value) => total + Math.exp(value - most), 0));
  return values.map((value) => value - most - all);
}
const share = (value: number) => 1 / (1 + Math.exp(-value));

/**
 * What the model makes of a song: dilated convolutions at half and at a quarter of the frames; the last of them know
 * what was made of the tempo of the whole song.
 * @param report hears how much is done, 0..1
 * @see Davies & Böck 2019, "Temporal convolutional networks for musical audio beat tracking"
 */
export function listen(
  { rate, start, frames: heard, rows: input }: Heard,
  report: (done: number) => void = () => {},
): Likely {
  const { front, early, down, slow, tempo, up, level, late, heads } = model();
  if (front.in !== 2 * channelCount)
    throw new Error(`The model hears ${front.in / 2} channels, not ${channelCount}.`);
  // The last frames that make no whole one are heard with silence after them.
  const frames = Math.ceil(heard / 4) * 4;
  const [half, quarter] = [frames / 2, frames / 4];
  const means: number[] = [];
  let done = 0;
  const through = (blocks: readonly Block[], rows: Float64Array, count: number) => {
    for (const { wide, mix } of blocks) {
      convolve(mix, rectify(answer(wide, rows, count)), rows, count);
      means.push(...meansOf(rows, wide.in, count));
      report((done += 1 / (early.length + slow.length + late.length)));
    }
  };
  // Two frames side by side are one with twice the channels, and the other way round.
  const padded = new Float64Array(frames * channelCount);
  padded.set(input.subarray(0, heard * channelCount));
  const rows = rectify(answer(front, padded, half));
  through(early, rows, half);
  const far = rectify(answer(down, rows, quarter));
  through(slow, far, quarter);
  const tempos = logShares(answer(tempo, Float64Array.from(means), 1));
  add(rows, answer(up, rectify(far), quarter));
  add(rows, answer(level, tempos.map(Math.exp), 1));
  through(late, rows, half);
  const out = answer(heads, rectify(rows), half);
  const [beat, first] = [0, 1].map((head) =>
    Float32Array.from({ length: heard }, (_, frame) => share(out[2 * frame + head])),
  );
  return { rate, start, beat, first, tempos };
}
