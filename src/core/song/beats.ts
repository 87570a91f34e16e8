import { median } from '../statistics';
/** A stretch whose beats are known and must be kept. */
export type LockedPassage = { from: number; to: number; beats: number[] };

const tightness = 800;
const nearest = 0.72;
const furthest = 1.4;

/**
 * The row of beats that meets most onsets while keeping to the tempo.
 * @param strength sharpened onsets a hop
 * @param period hops between beats at every hop
 * @param rule -1 where no beat may be, 1 where one must be, 0 elsewhere; a value a hop
 * @returns hops, rising
 * @see Ellis 2007 (dynamic programming)
 */
export function followBeats(strength: Float32Array, period: Float32Array, rule?: Int8Array): number[] {
  const count = strength.length;
  const total = new Float32Array(count);
  const back = new Int32Array(count).fill(-1);
  const costs = new Map<number, { first: number; cost: Float32Array }>();
  const costsOf = (quarters: number) => {
    const known = costs.get(quarters);
    if (known) return known;
    const length = quarters / 4;
    const first = Math.ceil(length * nearest);
    const cost = Float32Array.from(
      { length: Math.floor(length * furthest) - first + 1 },
      (_, step) => tightness * Math.log((first + step) / length) ** 2,
    );
    const made = { first, cost };
    costs.set(quarters, made);
    return made;
  };
  for (let at = 0; at < count; at++) {
    const { first, cost } = costsOf(Math.round(period[at] * 4));
    let most = 0;
    for (let step = 0; step < cost.length; step++) {
      const before = at - first - step;
      if (before < 0) break;
      const value = total[before] - cost[step];
      if (value > most) [most, back[at]] = [value, before];
    }
    total[at] = most + (rule?.[at] === 1 ? 1e4 : rule?.[at] === -1 ? -1e4 : strength[at]);
  }
  let end = count - 1;
  for (let at = Math.max(0, Math.floor(count - period[count - 1] * 1.3)); at < count; at++)
    if (total[at] > total[end]) end = at;
  const beats: number[] = [];
  for (let at = end; at >= 0; at = back[at]) beats.push(at);
  return beats.reverse();
}

/**
 * Carries beats on to both ends of the song at the tempo they have near them. Beats that were found where nothing
 * sounds are found anew.
 * @param beats seconds, at least four
 * @param sounds first and last second at which something starts
 */
export function extendBeats(beats: readonly number[], duration: number, sounds: [number, number]): number[] {
  const heard = beats.filter((time) => time > sounds[0] - 0.1 && time < sounds[1] + 0.1);
  const out = heard.length >= 4 ? heard : [...beats];
  const gaps = out.slice(1).map((time, index) => time - out[index]);
  const lead = median(gaps.slice(0, 12));
  const tail = median(gaps.slice(-12));
  while (out[0] - lead > 0.02) out.unshift(out[0] - lead);
  while (out[out.length - 1] + tail < duration - 0.02) out.push(out[out.length - 1] + tail);
  return out;
}
