import { median } from '../statistics';

/** A row of beats through a song, and how well it fits what the model heard. */
export type Row = {
  /** frames, rising */
  frames: number[];
  /** logarithm of how likely the whole row is, about that of no beat at all */
  gain: number;
};

/** What each frame must be: -1 no beat, 1 a beat, 0 either. */
export type Rule = Int8Array;

export type Following = {
  /** the shortest and the longest beat in frames */
  shortest: number;
  longest: number;
  rule?: Rule;
  /** frames at which no beat of this row may lie */
  without?: Uint8Array;
};

/** what a beat costs that is longer or shorter than the one before, a part of its length beyond one frame */
const changeCost = 150;
/** and where it is one frame longer or shorter, which is finer than frames tell */
const frameCost = 0.35;
/** how much longer or shorter than the last a beat may be */
const mostChange = 0.3;
const must = 1e4;

/** frames in which a beat is found in most music */
const window = 60;
/** the part of what a song's beats reach from which a frame speaks for a beat; by the open songs of bench/songs */
const speaks = 0.35;

/** The logit from which a frame speaks for a beat. */
function doubtOf(beat: Float32Array): number {
  let [sum, count] = [0, 0];
  for (let from = 0; from < beat.length; from += window) {
    let most = 0;
    for (let at = from; at < Math.min(beat.length, from + window); at++) if (beat[at] > most) most = beat[at];
    sum += most;
    count++;
  }
  const level = Math.max(0.02, Math.min(0.9, speaks * (sum / Math.max(1, count))));
  return Math.log(level / (1 - level));
}

/** What a beat at each frame gains over none; its neighbours belong to it. */
function gainsOf(beat: Float32Array, rule?: Rule, without?: Uint8Array): Float32Array {
  const doubt = doubtOf(beat);
  return Float32Array.from(beat, (here, at) => {
    const most = Math.max(here, 0.7 * (beat[at - 1] ?? 0), 0.7 * (beat[at + 1] ?? 0));
    const sure = Math.max(1e-3, Math.min(0.99, most));
    const forced = rule?.[at] ? rule[at] * must : 0;
    return Math.log(sure / (1 - sure)) - doubt + forced - (without?.[at] ? must : 0);
  });
}

/**
 * The most likely row of beats: each beat's length is near the last one's, beats lie where the model says that they
 * are likely and nowhere else.
 * @param beat how likely each frame is a beat, 0..1
 * @see Krebs, Böck & Widmer 2015, "An efficient state-space model for joint tempo and meter tracking"
 */
export function followLikely(beat: Float32Array, { shortest, longest, rule, without }: Following): Row {
  const count = beat.length;
  const lengths = Math.floor(longest) - Math.ceil(shortest) + 1;
  const first = Math.ceil(shortest);
  if (lengths < 1 || count < 2) return { frames: [], gain: -Infinity };
  const gains = gainsOf(beat, rule, without);
  const total = new Float64Array(count * lengths).fill(-Infinity);
  const back = new Int16Array(count * lengths).fill(-1);
  const costs = Array.from({ length: lengths }, (_, to) =>
    Float64Array.from({ length: lengths }, (_, from) => {
      const steps = Math.abs(to - from);
      const share = steps / (first + from);
      if (share > mostChange && steps > 1) return Infinity;
      return steps === 0 ? 0 : frameCost + (changeCost * (steps - 1)) / (first + from);
    }),
  );
  const reach = costs.map((row) => [
    row.findIndex((cost) => cost < Infinity),
    row.findLastIndex((cost) => cost < Infinity),
  ]);
  for (let at = 0; at < count; at++)
    for (let to = 0; to < lengths; to++) {
      const before = at - first - to;
      const here = at * lengths + to;
      if (before < 0) {
        total[here] = gains[at];
        continue;
      }
      const row = before * lengths;
      const [low, high] = reach[to];
      const cost = costs[to];
      let most = -Infinity;
      let best = low;
      for (let from = low; from <= high; from++) {
        const value = total[row + from] - cost[from];
        if (value > most) {
          most = value;
          best = from;
        }
      }
      total[here] = most + gains[at];
      back[here] = best;
    }
  let [gain, end] = [-Infinity, 0];
  for (let at = Math.max(0, count - first - lengths); at < count; at++)
    for (let to = 0; to < lengths; to++) {
      const value = total[at * lengths + to];
      if (value > gain) [gain, end] = [value, at * lengths + to];
    }
  const frames: number[] = [];
  for (let state = end; ;) {
    const at = Math.floor(state / lengths);
    const to = state % lengths;
    frames.push(at);
    const before = at - first - to;
    if (before < 0 || back[state] < 0) break;
    state = before * lengths + back[state];
  }
  return { frames: frames.reverse(), gain };
}

/** what a beat costs that is not as long as those round it; by the open songs of bench/songs */
const tightness = 1600;
/** beats on both sides that say how long one is */
const around = 24;

/**
 * The row of beats again, held to the tempo that most of its beats have round each place: where little speaks for
 * any beat a row would slip to and fro.
 * @see Ellis 2007, "Beat tracking by dynamic programming"
 */
export function keepTempo(beat: Float32Array, row: Row, rule?: Rule, without?: Uint8Array): Row {
  const { frames } = row;
  if (frames.length < 4) return row;
  const count = beat.length;
  const gaps = frames.slice(1).map((frame, index) => frame - frames[index]);
  const lengths = gaps.map((_, index) => {
    const near = gaps.slice(Math.max(0, index - around), index + around + 1);
    const middle = median(near);
    const alike = near.filter((gap) => Math.abs(gap - middle) < 1.6);
    return alike.reduce((sum, gap) => sum + gap, 0) / alike.length;
  });
  const gains = gainsOf(beat, rule, without);
  const total = new Float64Array(count);
  const back = new Int32Array(count).fill(-1);
  const logs = Float64Array.from({ length: Math.ceil(1.4 * Math.max(...lengths)) + 1 }, (_, step) =>
    Math.log(step),
  );
  let place = 0;
  for (let at = 0; at < count; at++) {
    while (place + 1 < lengths.length && frames[place + 1] <= at) place++;
    const length = lengths[place];
    const logLength = Math.log(length);
    let most = at < 1.5 * length ? 0 : -Infinity;
    const last = Math.min(at, Math.floor(length * 1.4));
    for (let step = Math.ceil(length * 0.7); step <= last; step++) {
      const off = logs[step] - logLength;
      const value = total[at - step] - tightness * off * off;
      if (value > most) {
        most = value;
        back[at] = at - step;
      }
    }
    total[at] = most + gains[at];
  }
  let end = count - 1;
  for (let at = Math.max(0, Math.floor(count - 1.2 * lengths[lengths.length - 1])); at < count; at++)
    if (total[at] > total[end]) end = at;
  const kept: number[] = [];
  for (let at = end; at >= 0; at = back[at]) kept.push(at);
  return { frames: kept.reverse(), gain: total[end] };
}
