import FFT from 'fft.js';

/** How strongly new sound starts, a hop at a time, in three bands and together. */
export type Onsets = {
  /** hops a second */
  rate: number;
  /** seconds of hop 0 */
  start: number;
  all: Float32Array;
  low: Float32Array;
  mid: Float32Array;
  high: Float32Array;
  /** loudness below 150 Hz, a hop */
  bass: Float32Array;
};

const bandCount = 28;
const lowest = 40;
const highest = 9000;

/** Sound at about 22 kHz: neighbours are averaged. */
function slowDown(samples: Float32Array, sampleRate: number): { data: Float32Array; rate: number } {
  const factor = Math.max(1, Math.floor(sampleRate / 22050));
  if (factor === 1) return { data: samples, rate: sampleRate };
  const data = new Float32Array(Math.floor(samples.length / factor));
  for (let index = 0, at = 0; index < data.length; index++) {
    let sum = 0;
    for (let step = 0; step < factor; step++) sum += samples[at++];
    data[index] = sum / factor;
  }
  return { data, rate: sampleRate / factor };
}

/**
 * Onset strength from spectral flux in logarithmic bands, each compared with its neighbours before.
 * @param samples mono, -1..1
 * @see Böck 2012 (spectral flux with maximum filter)
 */
export function findOnsets(samples: Float32Array, sampleRate: number): Onsets {
  const { data, rate } = slowDown(samples, sampleRate);
  const size = 2 ** Math.round(Math.log2(rate * 0.046));
  const hop = Math.max(1, Math.round(rate / 100));
  const hops = Math.max(0, Math.floor((data.length - size) / hop) + 1);
  const fft = new FFT(size);
  const window = Float32Array.from(
    { length: size },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size),
  );
  const edges = Array.from({ length: bandCount + 1 }, (_, band) => {
    const top = Math.min(highest, rate / 2);
    return (lowest * (top / lowest) ** (band / bandCount) * size) / rate;
  });
  const input = new Array<number>(size).fill(0);
  const output = fft.createComplexArray() as number[];
  const out: Onsets = {
    rate: rate / hop,
    start: size / 2 / rate,
    all: new Float32Array(hops),
    low: new Float32Array(hops),
    mid: new Float32Array(hops),
    high: new Float32Array(hops),
    bass: new Float32Array(hops),
  };
  const history: Float32Array[] = [];
  for (let index = 0; index < hops; index++) {
    const base = index * hop;
    for (let i = 0; i < size; i++) input[i] = data[base + i] * window[i];
    fft.realTransform(output, input);
    const bands = new Float32Array(bandCount);
    for (let band = 0; band < bandCount; band++) {
      const from = Math.max(1, Math.floor(edges[band]));
      const to = Math.max(from + 1, Math.floor(edges[band + 1]));
      let sum = 0;
      for (let bin = from; bin < to && bin < size / 2; bin++) {
        sum += output[2 * bin] * output[2 * bin] + output[2 * bin + 1] * output[2 * bin + 1];
      }
      bands[band] = Math.log1p(30 * Math.sqrt(sum / (to - from)));
    }
    const before = history.length >= 2 ? history[history.length - 2] : history[0];
    if (before) {
      for (let band = 0; band < bandCount; band++) {
        const most = Math.max(
          before[Math.max(0, band - 1)],
          before[band],
          before[Math.min(bandCount - 1, band + 1)],
        );
        const rise = Math.max(0, bands[band] - most);
        const centre = (edges[band] * rate) / size;
        if (centre < 200) out.low[index] += rise;
        else if (centre < 2200) out.mid[index] += rise;
        else out.high[index] += rise;
        out.all[index] += rise;
      }
    }
    for (let band = 0; band < 8; band++) out.bass[index] += bands[band];
    history.push(bands);
    if (history.length > 3) history.shift();
  }
  return out;
}
