/** Beats put into bars. */
export type Bars = {
  /** which of the beats begin a bar */
  firsts: number[];
  beatsPerBar: number;
  /** logarithm of how likely these bars are, a beat */
  gain: number;
};

/** What bars of so many beats have to make up for, a beat. Common practice, no published source. */
const unusualLength: Record<number, number> = { 2: 0.4, 3: 0.02, 4: 0, 5: 0.05, 7: 0.05 };
/** how likely a beat is the first of a bar where nothing is known */
const usual = 1 / 4;
/** what it costs that a bar begins before the last one is over */
const early = 9;

/**
 * Walks along beats with a place in the bar each, so that bars begin where the model says that they are likely.
 * @param first how likely each beat is the first of a bar, 0..1
 * @param given true where a bar must begin
 * @param lengths beats a bar that are considered
 */
export function findBars(
  first: ArrayLike<number>,
  given: readonly boolean[],
  lengths: readonly number[],
): Bars {
  const count = first.length;
  const limited = (value: number) => Math.max(0.02, Math.min(0.98, value));
  const walked = lengths.map((length): Bars => {
    const gain = (at: number, place: number) => {
      const likely = limited(first[at]);
      if (place === 0) return Math.log(likely / usual) + (given[at] ? 50 : 0);
      return Math.log((1 - likely) / (1 - usual)) - (given[at] ? 50 : 0);
    };
    let total = Array.from({ length }, (_, place) => gain(0, place));
    /** the place of the beat before each first of a bar */
    const back: number[] = [];
    for (let at = 1; at < count; at++) {
      const best = total.indexOf(Math.max(...total));
      const whole = total[length - 1];
      const cut = total[best] - early;
      back.push(cut > whole ? best : length - 1);
      total = [Math.max(cut, whole), ...total.slice(0, -1)].map((value, place) => value + gain(at, place));
    }
    const most = Math.max(...total);
    const path = [total.indexOf(most)];
    for (let at = back.length - 1; at >= 0; at--) {
      const place = path[path.length - 1];
      path.push(place === 0 ? back[at] : place - 1);
    }
    path.reverse();
    return {
      firsts: path.flatMap((place, at) => (place === 0 ? [at] : [])),
      beatsPerBar: length,
      gain: most / count - (unusualLength[length] ?? 0.1),
    };
  });
  return walked.reduce((best, one) => (one.gain > best.gain ? one : best));
}
