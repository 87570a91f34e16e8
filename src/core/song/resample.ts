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
    for (let index = 0; index < count; index++) {
      const at = this.position + index * this.step;
      const middle = Math.floor(at);
      let [sum, weight] = [0, 0];
      for (let tap = middle - this.reach + 1; tap <= middle + this.reach && tap < data.length; tap++) {
        const distance = at - tap;
        const x = Math.PI * distance * this.cutoff;
        const lobe = Math.abs(x) < 1e-6 ? 1 : Math.sin(x) / x;
        const window = 0.5 + 0.5 * Math.cos((Math.PI * distance) / (this.reach + 1));
        sum += data[tap] * lobe * window;
        weight += lobe * window;
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
