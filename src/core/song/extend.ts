import { median } from '../statistics';

/** A stretch whose beats are known and must be kept. */
export type LockedPassage = { from: number; to: number; beats: number[] };

/**
 * Carries beats on to both ends of the song at the tempo they have near them. Beats that were found where nothing
 * sounds are found anew.
 * @param beats seconds, at least four
 * @param sounds first and last second at which something starts
 */
export function extendBeats(
  beats: readonly number[],
  duration: number,
  sounds: readonly [number, number],
): number[] {
  const heard = beats.filter((time) => time > sounds[0] - 0.1 && time < sounds[1] + 0.1);
  const out = heard.length >= 4 ? heard : [...beats];
  const gaps = out.slice(1).map((time, index) => time - out[index]);
  const lead = median(gaps.slice(0, 12));
  const tail = median(gaps.slice(-12));
  while (out[0] - lead > 0.02) out.unshift(out[0] - lead);
  while (out[out.length - 1] + tail < duration - 0.02) out.push(out[out.length - 1] + tail);
  return out;
}
