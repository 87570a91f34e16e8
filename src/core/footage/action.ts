import { quantile } from '../statistics';

/** A stretch of a take, in its seconds. */
export type Stretch = { from: number; until: number };

/** What somebody does in a take, by how much moves in it. */
export type Action = {
  /** where nothing moves for a while, in order */
  still: Stretch[];
  /** where a movement begins after stillness, and where one stops; seconds, rising */
  starts: number[];
  stops: number[];
};

/** what moves less than this is still: codes of a tile's light in the mean, beyond noise. By trial */
const leastMoves = 0.012;
/** share of a lively movement below which all is still: leaves wave, and somebody who stands breathes. By trial */
const ofLively = 0.08;
/** seconds over which movement is smoothed, that a stillness lasts at least, and that a movement does: less is a twitch */
const [smooth, shortest, twitch] = [0.12, 0.3, 0.15];

/** The mean of each value and those within some seconds of it. */
function smoothed(values: ArrayLike<number>, reach: number): Float64Array {
  return Float64Array.from({ length: values.length }, (_, at) => {
    const [from, until] = [Math.max(0, at - reach), Math.min(values.length, at + reach + 1)];
    let sum = 0;
    for (let near = from; near < until; near++) sum += values[near];
    return sum / (until - from);
  });
}

/** Stretches of pictures for which something holds, those shorter than `least` pictures left out. */
function runs(holds: readonly boolean[], least: number): [from: number, until: number][] {
  const out: [number, number][] = [];
  for (let from = 0; from < holds.length; from++) {
    if (!holds[from]) continue;
    let until = from;
    while (until < holds.length && holds[until]) until++;
    if (until - from >= least) out.push([from, until]);
    from = until;
  }
  return out;
}

/**
 * Where a take is still, and where movements in it begin and stop.
 * @param moved how much moves in each picture since the one before it, as the analyser of motion has it
 * @param times seconds at which each picture begins to show
 */
export function actionIn(moved: ArrayLike<number>, times: ArrayLike<number>): Action {
  const count = Math.min(moved.length, times.length);
  if (count < 2) return { still: [], starts: [], stops: [] };
  const rate = (count - 1) / (times[count - 1] - times[0]);
  const even = smoothed(
    Array.from({ length: count }, (_, at) => moved[at]),
    Math.round((smooth * rate) / 2),
  );
  const limit = Math.max(leastMoves, ofLively * quantile(even, 0.95));
  const least = Math.max(2, Math.round(shortest * rate));
  const rests = Array.from(even, (value) => value <= limit);
  for (const [from, until] of runs(
    rests.map((rest) => !rest),
    1,
  ))
    if (until - from < twitch * rate) rests.fill(true, from, until);
  const still = runs(rests, least);
  const end = (index: number) => times[Math.min(index, count - 1)];
  return {
    still: still.map(([from, until]) => ({ from: times[from], until: end(until) })),
    starts: still.filter(([, until]) => until < count).map(([, until]) => times[until]),
    stops: still.filter(([from]) => from > 0).map(([from]) => times[from]),
  };
}
