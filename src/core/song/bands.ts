import { eachSpectrum, type Sound } from './spectrum';

/** How loud a song is in logarithmic bands of pitch, a hop at a time. */
export type Bands = {
  /** hops a second */
  rate: number;
  /** seconds of hop 0 */
  start: number;
  hops: number;
  /** logarithmic loudness: [hop * bandCount + band] */
  levels: Float32Array;
  /** the middle of each band in Hz */
  hertz: number[];
};

export const bandCount = 28;
const lowest = 40;
const highest = 9000;

/**
 * Loudness in logarithmic bands, about a hundred times a second.
 * @param sound about 22 kHz; -1..1 once `gain` is applied
 */
export function findBands({ data, rate }: Sound, gain: number): Bands {
  const size = 2 ** Math.round(Math.log2(rate * 0.046));
  const hop = Math.max(1, Math.round(rate / 100));
  const hops = Math.max(0, Math.floor((data.length - size) / hop) + 1);
  const top = Math.min(highest, rate / 2);
  const edge = (step: number) => (lowest * (top / lowest) ** (step / bandCount) * size) / rate;
  const bands = Array.from({ length: bandCount }, (_, band) => {
    const from = Math.max(1, Math.floor(edge(band)));
    const to = Math.min(size / 2, Math.max(from + 1, Math.floor(edge(band + 1))));
    return { from, to, hertz: (edge(band) * rate) / size };
  });
  const levels = new Float32Array(hops * bandCount);
  eachSpectrum(data, size, hop, bands[bandCount - 1].to, (frame, power) => {
    for (let band = 0; band < bandCount; band++) {
      const { from, to } = bands[band];
      let sum = 0;
      for (let bin = from; bin < to; bin++) sum += power[bin];
      levels[frame * bandCount + band] = Math.log1p(30 * gain * Math.sqrt(sum / Math.max(1, to - from)));
    }
  });
  return {
    rate: rate / hop,
    start: size / 2 / rate,
    hops,
    levels,
    hertz: bands.map((band) => band.hertz),
  };
}

/** How much louder a band is than it and its neighbours were two hops before; 0 where it is not. */
export function riseAt({ levels }: Bands, hop: number, band: number): number {
  if (hop < 2) return 0;
  const before = (hop - 2) * bandCount;
  let most = levels[before + band];
  if (band > 0 && levels[before + band - 1] > most) most = levels[before + band - 1];
  if (band + 1 < bandCount && levels[before + band + 1] > most) most = levels[before + band + 1];
  return Math.max(0, levels[hop * bandCount + band] - most);
}
