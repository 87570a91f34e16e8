/** Full scale of 16 bits, whose lowest step lies one below -1. */
const ceiling = 32_768 / 32_767;

/** Seconds over which sound is turned down before a peak, and up again after it. */
const ease = 0.005;

/**
 * Turns all channels down together round whatever is beyond full scale, without a step; elsewhere they stay what they
 * are to the bit. The least gain of a window, smoothed over the same window, is nowhere above what a sample needs.
 * @param channels -1..1 and beyond, changed in place
 */
export function limit(channels: readonly Float32Array[], sampleRate: number): void {
  const length = channels[0].length;
  const reach = Math.round(ease * sampleRate);
  const needed = new Float32Array(length).fill(1);
  let beyond = false;
  for (const channel of channels)
    for (let at = 0; at < length; at++) {
      const size = Math.abs(channel[at]);
      if (size <= ceiling) continue;
      needed[at] = Math.min(needed[at], ceiling / size);
      beyond = true;
    }
  if (!beyond) return;
  const least = new Float32Array(length).fill(1);
  for (let at = 0; at < length; at++) {
    if (needed[at] === 1) continue;
    const [first, last] = [Math.max(0, at - reach), Math.min(length - 1, at + reach)];
    for (let near = first; near <= last; near++) least[near] = Math.min(least[near], needed[at]);
  }
  const window = 2 * reach + 1;
  const valueAt = (at: number) => least[Math.min(length - 1, Math.max(0, at))];
  let sum = 0;
  for (let at = -reach; at < reach; at++) sum += valueAt(at);
  for (let at = 0; at < length; at++) {
    sum += valueAt(at + reach);
    const gain = sum / window;
    if (gain < 1 - 1e-7) for (const channel of channels) channel[at] *= gain;
    sum -= valueAt(at - reach);
  }
}
