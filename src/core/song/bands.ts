import { eachSpectrum, slowDown, type Sound } from './spectrum';

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
/** below it pitches are told apart by a window of 46 ms, above it by one of 12 ms, which is a quarter of the work */
const crossover = 1300;
const [longWindow, shortWindow] = [0.046, 0.0116];

const powerOfTwo = (samples: number) => 2 ** Math.round(Math.log2(samples));

/**
 * Loudness in logarithmic bands, about a hundred times a second.
 * @param sound about 22 kHz; -1..1 once `gain` is applied
 */
export function findBands(sound: Sound, gain: number): Bands {
  const { data, rate } = sound;
  const deep = slowDown(sound, 5500);
  const slower = Math.round(rate / deep.rate);
  const deepHop = Math.max(1, Math.round(deep.rate / 100));
  const hop = deepHop * slower;
  const [deepSize, size] = [powerOfTwo(deep.rate * longWindow), powerOfTwo(rate * shortWindow)];
  // Both windows lie about the same instant.
  const ahead = Math.max(0, (deepSize * slower - size) / 2);
  const top = Math.min(highest, rate / 2);
  const edge = (step: number) => lowest * (top / lowest) ** (step / bandCount);
  const bands = Array.from({ length: bandCount }, (_, band) => ({ from: edge(band), to: edge(band + 1) }));
  const isDeep = bands.map(({ to }) => to <= Math.min(crossover, deep.rate / 2));
  const frames = (count: number, window: number, step: number) => Math.floor((count - window) / step) + 1;
  const hops = Math.max(
    0,
    Math.min(frames(deep.data.length, deepSize, deepHop), frames(data.length - ahead, size, hop)),
  );
  const levels = new Float32Array(hops * bandCount);
  const hear = (
    samples: Float32Array,
    sampleRate: number,
    window: number,
    step: number,
    heard: readonly number[],
    louder: number,
  ) => {
    const bins = heard.map((band) => {
      const { from, to } = bands[band];
      const first = Math.max(1, Math.floor((from * window) / sampleRate));
      return [first, Math.min(window / 2, Math.max(first + 1, Math.floor((to * window) / sampleRate)))];
    });
    const last = Math.max(0, ...bins.map(([, to]) => to));
    eachSpectrum(samples, window, step, last, (frame, power) => {
      if (frame >= hops) return;
      heard.forEach((band, index) => {
        const [first, to] = bins[index];
        let sum = 0;
        for (let bin = first; bin < to; bin++) sum += power[bin];
        const level = louder * gain * Math.sqrt(sum / Math.max(1, to - first));
        levels[frame * bandCount + band] = Math.log1p(level);
      });
    });
  };
  const numbers = bands.map((_, band) => band);
  hear(
    deep.data,
    deep.rate,
    deepSize,
    deepHop,
    numbers.filter((band) => isDeep[band]),
    120,
  );
  hear(
    data.subarray(ahead),
    rate,
    size,
    hop,
    numbers.filter((band) => !isDeep[band]),
    60,
  );
  return {
    rate: rate / hop,
    start: (deepSize * slower) / 2 / rate,
    hops,
    levels,
    hertz: bands.map(({ from }) => from),
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
