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
const stretch = 512;

/**
 * Adds a layer's answer to rows of `to`; sound outside the song is silence.
 * @param from [in][frames]; @param to [out][frames]
 */
export function convolve(layer: Layer, from: Float32Array, to: Float32Array, frames: number): void {
  const { taps, dilation, weights: all } = layer;
  const middle = (taps - 1) / 2;
  for (let begin = 0; begin < frames; begin += stretch) {
    const end = Math.min(frames, begin + stretch);
    for (let out = 0; out < layer.out; out++) {
      const row = to.subarray(out * frames, (out + 1) * frames);
      const bias = layer.bias[out];
      for (let at = begin; at < end; at++) row[at] += bias;
      for (let tap = 0; tap < taps; tap++) {
        const move = (tap - middle) * dilation;
        const low = Math.max(begin, -move);
        const high = Math.min(end, frames - move);
        // Four inputs at a time: each answer is read and written once for all of them.
        let input = 0;
        for (; input + 4 <= layer.in; input += 4) {
          const place = (out * layer.in + input) * taps + tap;
          const [w0, w1, w2, w3] = [
            all[place],
            all[place + taps],
            all[place + 2 * taps],
            all[place + 3 * taps],
          ];
          let r0 = input * frames + low + move;
          let r1 = r0 + frames;
          let r2 = r1 + frames;
          let r3 = r2 + frames;
          for (let at = low; at < high; at++)
            row[at] += w0 * from[r0++] + w1 * from[r1++] + w2 * from[r2++] + w3 * from[r3++];
        }
        for (; input < layer.in; input++) {
          const weight = all[(out * layer.in + input) * taps + tap];
          let read = input * frames + low + move;
          for (let at = low; at < high; at++) row[at] += weight * from[read++];
        }
      }
    }
  }
}

/** Nothing below 0, in place. */
export function rectify(rows: Float32Array): void {
  for (let at = 0; at < rows.length; at++) if (rows[at] < 0) rows[at] = 0;
}
