import { sharpen, type Onsets } from './onsets';

/** The period of the beat through a song, and what speaks for it. */
export type Tempo = {
  /** hops between beats at every hop */
  period: Float32Array;
  /** how well onsets return after one, two and more periods that are `ratio` times as long; about 0..4 */
  support: (ratio: number, beatsPerBar: number) => number;
};

const stretch = 7;
const stepsAnOctave = 60;
const usualBpm = 125;

/** How usual a tempo is; octaves from the middle count. Common practice, no published source for the width. */
export const unusual = (bpm: number): number => 0.5 * (Math.log2(bpm / usualBpm) / 0.6) ** 2;

/**
 * Products of onsets with themselves `lag` hops before, summed over blocks: [lag][block].
 * @param four four bands, interleaved; four sums side by side are faster than one
 */
function returnsOf(four: Float32Array, longest: number, block: number): Float32Array[] {
  const count = four.length / 4;
  const blocks = Math.max(1, Math.ceil(count / block));
  return Array.from({ length: longest + 1 }, (_, lag) => {
    const sums = new Float32Array(blocks);
    for (let at = 0; at < blocks; at++) {
      const end = 4 * Math.min(count, (at + 1) * block);
      let sum0 = 0;
      let sum1 = 0;
      let sum2 = 0;
      let sum3 = 0;
      for (let now = 4 * Math.max(lag, at * block), then = now - 4 * lag; now < end; now += 4, then += 4) {
        sum0 += four[now] * four[then];
        sum1 += four[now + 1] * four[then + 1];
        sum2 += four[now + 2] * four[then + 2];
        sum3 += four[now + 3] * four[then + 3];
      }
      sums[at] = sum0 + sum1 + sum2 + sum3;
    }
    return sums;
  });
}

/** How well onsets return after `lag` hops in a stretch: 1 where all do, 0 where no more than after any lag. */
type Returning = (lag: number) => number;

function returningIn(
  lags: readonly Float32Array[],
  place: number,
  shortest: number,
  floor: number,
): Returning {
  const from = Math.max(0, place - (stretch >> 1));
  const to = Math.min(lags[0].length, place + (stretch >> 1) + 1);
  const sums = Float32Array.from(lags, (blocks) => {
    let sum = 0;
    for (let index = from; index < to; index++) sum += blocks[index];
    return sum;
  });
  const self = Math.max(1e-9, floor, sums[0]);
  const others = sums.slice(shortest).sort();
  const usual = others[others.length >> 1] ?? 0;
  return (lag) => {
    const reach = Math.max(1, lag * 0.012);
    const end = Math.min(sums.length - 1, Math.ceil(lag + reach));
    if (lag >= sums.length) return 0;
    let most = -self;
    for (let hop = Math.floor(lag - reach); hop <= end; hop++) if (sums[hop] > most) most = sums[hop];
    return Math.max(-1, (most - usual) / Math.max(1e-9, self - usual));
  };
}

/** Onsets return after a beat, and best of all after a bar. */
function supportOf(returning: Returning, period: number, beatsPerBar: number): number {
  const bar = returning(beatsPerBar * period);
  if (beatsPerBar % 2 === 0) return returning(period) + returning(2 * period) + 2 * bar;
  return returning(period) + bar + 2 * Math.max(bar, returning(2 * beatsPerBar * period));
}

/** The path through states whose gains are the largest, where a step costs what it changes. */
function bestPath(gains: readonly number[][], cost: (steps: number) => number): number[] {
  const steps = gains[0].length;
  const costs = Array.from({ length: steps }, (_, step) => cost(step));
  let total = [...gains[0]];
  const back: Int32Array[] = [];
  for (let place = 1; place < gains.length; place++) {
    const from = new Int32Array(steps);
    const before = total;
    total = before.map((_, to) => {
      let most = -Infinity;
      for (let other = 0; other < steps; other++) {
        const value = before[other] - costs[Math.abs(other - to)];
        if (value > most) [most, from[to]] = [value, other];
      }
      return most + gains[place][to];
    });
    back.push(from);
  }
  const path = [total.indexOf(Math.max(...total))];
  for (let place = back.length - 1; place >= 0; place--) path.unshift(back[place][path[0]]);
  return path;
}

/**
 * Follows the tempo: in every stretch of about fourteen seconds each period is weighed by how well onsets return
 * after it and after bars of it, and by how usual it is; the path through the stretches changes little.
 * @see Percival & Tzanetakis 2014 (tempo by autocorrelation); Ellis 2007 (weight on usual tempos)
 */
export function followTempo(onsets: Onsets, minBpm: number, maxBpm: number): Tempo {
  const { rate } = onsets;
  const four = new Float32Array(4 * onsets.all.length);
  [onsets.all, onsets.low, onsets.mid, onsets.high].forEach((band, index) => {
    const sharp = sharpen(band, rate);
    const mean = sharp.reduce((sum, value) => sum + value, 0) / Math.max(1, sharp.length);
    for (let hop = 0; hop < sharp.length; hop++) four[4 * hop + index] = sharp[hop] - mean;
  });
  const steps = Math.max(2, Math.round(Math.log2(maxBpm / minBpm) * stepsAnOctave));
  const periods = Array.from(
    { length: steps },
    (_, step) => ((60 * rate) / maxBpm) * (maxBpm / minBpm) ** (step / (steps - 1)),
  );
  const block = Math.round(rate * 2);
  const lags = returnsOf(four, Math.ceil(periods[steps - 1] * 6.1), block);
  const blocks = lags[0].length;
  const energy = lags[0].reduce((sum, value) => sum + value, 0) / blocks;
  const places = Array.from({ length: blocks }, (_, place) =>
    returningIn(lags, place, Math.round(rate / 4), energy * stretch * 0.1),
  );
  const likely = periods.map((period) => Math.exp(-unusual((60 * rate) / period)));
  const gains = places.map((returning) =>
    periods.map((period, step) => {
      const level = Math.max(
        0,
        ...[4, 3].map((beats) => supportOf(returning, period, beats) / (beats === 4 ? 1 : 1.15)),
      );
      return likely[step] * (level + 0.3 * Math.max(0, returning(period / 2)));
    }),
  );
  const path = bestPath(gains, (step) => Math.min(3, 0.1 * step));
  const period = Float32Array.from(onsets.all, (_, hop) => {
    const place = Math.min(blocks - 1, Math.max(0, hop / block - 0.5));
    const low = Math.floor(place);
    const high = Math.min(blocks - 1, low + 1);
    return periods[path[low]] + (periods[path[high]] - periods[path[low]]) * (place - low);
  });
  const support = (ratio: number, beatsPerBar: number) =>
    path.reduce((sum, step, place) => sum + supportOf(places[place], periods[step] * ratio, beatsPerBar), 0) /
    blocks;
  return { period, support };
}
