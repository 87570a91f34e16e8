import FFT from 'fft.js';

/** Mono samples and how many of them there are in a second. */
export type Sound = { data: Float32Array; rate: number };

/** Sound at a sample rate of about `target`: neighbours are averaged. */
export function slowDown({ data: samples, rate: sampleRate }: Sound, target: number): Sound {
  const factor = Math.max(1, Math.floor(sampleRate / target));
  if (factor === 1) return { data: samples, rate: sampleRate };
  const data = new Float32Array(Math.floor(samples.length / factor));
  for (let index = 0, at = 0; index < data.length; index++, at += factor) {
    let sum = samples[at] + samples[at + 1];
    for (let step = 2; step < factor; step++) sum += samples[at + step];
    data[index] = sum / factor;
  }
  return { data, rate: sampleRate / factor };
}

/**
 * Power spectra of windowed frames, `hop` samples apart. Two frames go through one transform, as the real and
 * the imaginary part.
 * @param size a power of two
 * @param bins how many bins are wanted, from the lowest; at most size / 2
 * @param visit gets the frame's number and the power of its bins; the array is used again
 * @see Sorensen, Jones, Heideman & Burrus 1987, "Real-valued fast Fourier transform algorithms"
 */
export function eachSpectrum(
  data: Float32Array,
  size: number,
  hop: number,
  bins: number,
  visit: (frame: number, power: Float64Array) => void,
): void {
  const frames = Math.max(0, Math.floor((data.length - size) / hop) + 1);
  const fft = new FFT(size);
  const window = Float64Array.from(
    { length: size },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size),
  );
  const input = new Float64Array(2 * size);
  const output = new Float64Array(2 * size);
  const one = new Float64Array(bins);
  const two = new Float64Array(bins);
  for (let frame = 0; frame < frames; frame += 2) {
    const base = frame * hop;
    const last = frame + 1 >= frames;
    for (let i = 0; i < size; i++) {
      input[2 * i] = data[base + i] * window[i];
      input[2 * i + 1] = last ? 0 : data[base + hop + i] * window[i];
    }
    fft.transform(output, input);
    for (let bin = 1; bin < bins; bin++) {
      const mirror = 2 * (size - bin);
      const evenRe = output[2 * bin] + output[mirror];
      const evenIm = output[2 * bin + 1] + output[mirror + 1];
      const oddRe = output[mirror] - output[2 * bin];
      const oddIm = output[2 * bin + 1] - output[mirror + 1];
      one[bin] = (evenRe * evenRe + oddIm * oddIm) * 0.25;
      two[bin] = (evenIm * evenIm + oddRe * oddRe) * 0.25;
    }
    visit(frame, one);
    if (!last) visit(frame + 1, two);
  }
}
