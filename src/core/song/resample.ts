/**
 * Sound at another sample rate, by windowed sinc over 24 samples; stateful, so that a song passes in pieces.
 * @see Smith, "Digital Audio Resampling", bandlimited interpolation
 */
export class Resampler {
  private tail = new Float32Array(0);
  private position = 0;
  private readonly step: number;
  private readonly cutoff: number;
  private readonly reach: number;

  constructor(from: number, to: number) {
    this.step = from / to;
    this.cutoff = Math.min(1, to / from) * 0.97;
    this.reach = Math.ceil(12 / this.cutoff);
    this.tail = new Float32Array(this.reach);
    this.position = this.reach;
  }

  /** Samples that are ready after `input`. Call with silence of {@link latency} samples at the end. */
  push(input: Float32Array): Float32Array {
    if (this.step === 1) return input.slice();
    const data = new Float32Array(this.tail.length + input.length);
    data.set(this.tail);
    data.set(input, this.tail.length);
    const count = Math.max(0, Math.ceil((data.length - this.reach - this.position) / this.step));
    const out = new Float32Array(count);
    // Sine and cosine are turned on from sample to sample: working both out for each took nine tenths of the time.
    const lobes = Math.PI * this.cutoff;
    const fades = Math.PI / (this.reach + 1);
    const [lobesSin, lobesCos] = [Math.sin(lobes), Math.cos(lobes)];
    const [fadesSin, fadesCos] = [Math.sin(fades), Math.cos(fades)];
    for (let index = 0; index < count; index++) {
      const at = this.position + index * this.step;
      const middle = Math.floor(at);
      const first = middle - this.reach + 1;
      const last = Math.min(middle + this.reach, data.length - 1);
      let x = lobes * (at - first);
      let lobeSin = Math.sin(x);
      let lobeCos = Math.cos(x);
      let fadeSin = Math.sin(fades * (at - first));
      let fadeCos = Math.cos(fades * (at - first));
      let sum = 0;
      let weight = 0;
      for (let tap = first; tap <= last; tap++) {
        const own = (x < 1e-6 && x > -1e-6 ? 1 : lobeSin / x) * (0.5 + 0.5 * fadeCos);
        sum += data[tap] * own;
        weight += own;
        x -= lobes;
        const lobe = lobeSin * lobesCos - lobeCos * lobesSin;
        lobeCos = lobeCos * lobesCos + lobeSin * lobesSin;
        lobeSin = lobe;
        const fade = fadeSin * fadesCos - fadeCos * fadesSin;
        fadeCos = fadeCos * fadesCos + fadeSin * fadesSin;
        fadeSin = fade;
      }
      out[index] = sum / weight;
    }
    const next = this.position + count * this.step;
    const keep = Math.max(0, Math.floor(next) - this.reach);
    this.tail = data.slice(keep);
    this.position = next - keep;
    return out;
  }

  /** Samples of silence that bring out what is still held back. */
  get latency(): number {
    return this.step === 1 ? 0 : this.reach;
  }
}
