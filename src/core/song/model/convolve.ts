/** One convolution over time, as many taps as there are, `dilation` frames apart. */
export type Layer = {
  out: number;
  in: number;
  taps: number;
  dilation: number;
  /** [tap][in][out] */
  weights: Float64Array;
  bias: Float64Array;
};

/** Adds to one frame what those round it give; sound outside the song is silence. */
function addFrame(
  { in: inputs, out: outputs, taps, dilation, weights }: Layer,
  from: Float64Array,
  to: Float64Array,
  at: number,
  frames: number,
): void {
  for (let tap = 0; tap < taps; tap++) {
    const place = at + (tap - (taps - 1) / 2) * dilation;
    if (place < 0 || place >= frames) continue;
    for (let input = 0; input < inputs; input++) {
      const value = from[place * inputs + input];
      const row = (tap * inputs + input) * outputs;
      for (let output = 0; output < outputs; output++)
        to[at * outputs + output] += value * weights[row + output];
    }
  }
}

/** The same for three frames whose neighbours are all there: what is read once serves twelve products. */
function addThree(
  { in: inputs, out: outputs, taps, dilation, weights }: Layer,
  from: Float64Array,
  to: Float64Array,
  at: number,
): void {
  for (let output = 0; output < outputs; output += 4) {
    let [a0, a1, a2, a3] = [0, 0, 0, 0];
    let [b0, b1, b2, b3] = [0, 0, 0, 0];
    let [c0, c1, c2, c3] = [0, 0, 0, 0];
    for (let tap = 0; tap < taps; tap++) {
      const one = (at + (tap - (taps - 1) / 2) * dilation) * inputs;
      const two = one + inputs;
      const three = two + inputs;
      let row = tap * inputs * outputs + output;
      for (let input = 0; input < inputs; input++) {
        const x = from[one + input];
        const y = from[two + input];
        const z = from[three + input];
        let weight = weights[row];
        a0 += x * weight;
        b0 += y * weight;
        c0 += z * weight;
        weight = weights[row + 1];
        a1 += x * weight;
        b1 += y * weight;
        c1 += z * weight;
        weight = weights[row + 2];
        a2 += x * weight;
        b2 += y * weight;
        c2 += z * weight;
        weight = weights[row + 3];
        a3 += x * weight;
        b3 += y * weight;
        c3 += z * weight;
        row += outputs;
      }
    }
    let place = at * outputs + output;
    to[place] += a0;
    to[place + 1] += a1;
    to[place + 2] += a2;
    to[place + 3] += a3;
    place += outputs;
    to[place] += b0;
    to[place + 1] += b1;
    to[place + 2] += b2;
    to[place + 3] += b3;
    place += outputs;
    to[place] += c0;
    to[place + 1] += c1;
    to[place + 2] += c2;
    to[place + 3] += c3;
  }
}

/**
 * Adds a layer's answer to `to`; sound outside the song is silence.
 * @param from [frame][in]; @param to [frame][out]
 */
export function convolve(layer: Layer, from: Float64Array, to: Float64Array, frames: number): void {
  const { out: outputs, taps, dilation, bias } = layer;
  const reach = ((taps - 1) / 2) * dilation;
  for (let at = 0; at < frames * outputs; at++) to[at] += bias[at % outputs];
  for (let at = 0; at < frames; at++) {
    if (outputs % 4 === 0 && at >= reach && at + 2 + reach < frames) {
      addThree(layer, from, to, at);
      at += 2;
    } else addFrame(layer, from, to, at, frames);
  }
}

/** Nothing below 0, in place. */
export function rectify(rows: Float64Array): Float64Array {
  for (let at = 0; at < rows.length; at++) if (rows[at] < 0) rows[at] = 0;
  return rows;
}
