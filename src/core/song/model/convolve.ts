/** One convolution over time: [out][in][tap] weights, as many taps as there are, `dilation` frames apart. */
export type Layer = {
  out: number;
  in: number;
  taps: number;
  dilation: number;
  weights: Float32Array;
  bias: Float32Array;
};

/** frames that are worked at together, so that they stay near the processor */
const stretch = 256;

/** Adds one row of `from`, weighed and moved, to one of `to`, from frame `low` to `high`. */
function addRow(
  to: Float32Array,
  at: number,
  from: Float32Array,
  moved: number,
  weight: number,
  low: number,
  high: number,
) {
  for (let frame = low; frame < high; frame++) to[at + frame] += weight * from[moved + frame];
}

/**
 * Adds a layer's answer to rows of `to`; sound outside the song is silence.
 * @param from [in][frames]; @param to [out][frames]
 */
export function convolve(layer: Layer, from: Float32Array, to: Float32Array, frames: number): void {
  const { in: inputs, out: outputs, taps, dilation, weights, bias } = layer;
  for (let row = 0; row < outputs; row++)
    for (let at = row * frames; at < (row + 1) * frames; at++) to[at] += bias[row];
  const perOutput = inputs * taps;
  // Two outputs of four inputs at a time: what is read and written once serves eight products.
  const [pairs, fours] = [outputs & ~1, inputs & ~3];
  for (let begin = 0; begin < frames; begin += stretch)
    for (let tap = 0; tap < taps; tap++) {
      const move = (tap - (taps - 1) / 2) * dilation;
      const low = Math.max(begin, -move);
      const high = Math.min(begin + stretch, frames, frames - move);
      for (let output = 0; output < outputs; output++)
        for (let input = output < pairs ? fours : 0; input < inputs; input++) {
          const weight = weights[output * perOutput + input * taps + tap];
          addRow(to, output * frames, from, input * frames + move, weight, low, high);
        }
      for (let output = 0; output < pairs; output += 2)
        for (let input = 0; input < fours; input += 4) {
          const one = output * perOutput + input * taps + tap;
          const two = one + perOutput;
          const [a0, a1, a2, a3] = [0, 1, 2, 3].map((step) => weights[one + step * taps]);
          const [b0, b1, b2, b3] = [0, 1, 2, 3].map((step) => weights[two + step * taps]);
          let first = output * frames + low;
          let second = first + frames;
          let r0 = input * frames + move + low;
          let r1 = r0 + frames;
          let r2 = r1 + frames;
          let r3 = r2 + frames;
          for (let frame = low; frame < high; frame++) {
            const x0 = from[r0++];
            const x1 = from[r1++];
            const x2 = from[r2++];
            const x3 = from[r3++];
            to[first++] += a0 * x0 + a1 * x1 + a2 * x2 + a3 * x3;
            to[second++] += b0 * x0 + b1 * x1 + b2 * x2 + b3 * x3;
          }
        }
    }
}

/** Nothing below 0, in place. */
export function rectify(rows: Float32Array): void {
  for (let at = 0; at < rows.length; at++) if (rows[at] < 0) rows[at] = 0;
}
