import { eachSpectrum, type Sound } from '../song/spectrum';

/** samples a second at which loudness is listened to */
export const listenRate = 8000;
/** samples of a look: 64 ms */
export const windowSize = 512;
/** bands of pitch in which loudness counts, and between which pitches; hertz. Below them rooms rumble. */
export const bandCount = 24;
const [lowest, highest] = [130, 3800];
/** looks to each side among which a band's loudness is held against its mean: what lasts longer says little */
const usual = 50;

/** What is heard in each band of pitch, a row of bands for each look; `rate` looks a second. */
export type BandLevels = { rows: number; rate: number; values: Float32Array };

/**
 * How loud each band of pitch is against what is usual there, in nepers of power.
 * @param sound at about {@link listenRate}
 * @param step samples between two looks
 */
export function bandLevels({ data, rate }: Sound, step: number): BandLevels {
  const edge = (band: number) => lowest * (highest / lowest) ** (band / bandCount);
  const bins = Array.from({ length: bandCount + 1 }, (_, band) =>
    Math.round((edge(band) * windowSize) / rate),
  );
  const rows = Math.max(0, Math.floor((data.length - windowSize) / step) + 1);
  const values = new Float32Array(rows * bandCount);
  eachSpectrum(data, windowSize, step, bins[bandCount] + 1, (row, power) => {
    for (let band = 0; band < bandCount; band++) {
      const last = Math.max(bins[band] + 1, bins[band + 1]);
      let sum = 0;
      for (let bin = bins[band]; bin < last; bin++) sum += power[bin];
      values[row * bandCount + band] = sum / (last - bins[band]);
    }
  });
  for (let band = 0; band < bandCount; band++) holdAgainstUsual(values, rows, band);
  return { rows, rate: rate / step, values };
}

/** Logarithms of a band's loudness less their mean round each; what is far weaker than it mostly is, is noise. */
function holdAgainstUsual(values: Float32Array, rows: number, band: number): void {
  let sum = 0;
  for (let row = 0; row < rows; row++) sum += values[row * bandCount + band];
  const noise = (0.1 * sum) / Math.max(1, rows) + 1e-12;
  const sums = new Float64Array(rows + 1);
  for (let row = 0; row < rows; row++) {
    const at = row * bandCount + band;
    values[at] = Math.log(values[at] + noise);
    sums[row + 1] = sums[row] + values[at];
  }
  for (let row = 0; row < rows; row++) {
    const [from, until] = [Math.max(0, row - usual), Math.min(rows, row + usual + 1)];
    values[row * bandCount + band] -= (sums[until] - sums[from]) / (until - from);
  }
}
