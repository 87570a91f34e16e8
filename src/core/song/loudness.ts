/** Loudest absolute sample of each of `count` equal parts, for drawing; mono samples -1..1. */
export function peaksOf(samples: Float32Array, count: number): Float32Array {
  const out = new Float32Array(count);
  const step = samples.length / count;
  for (let part = 0; part < count; part++) {
    let most = 0;
    const end = Math.min(samples.length, Math.floor((part + 1) * step));
    for (let at = Math.floor(part * step); at < end; at++) most = Math.max(most, Math.abs(samples[at]));
    out[part] = most;
  }
  return out;
}
