import { solveLinear } from '../linear-system';
import { slowDown, type Sound } from '../song/spectrum';
import { onReference, type Alignment } from './align-sound';
import { bandCount, bandLevels, listenRate, windowSize } from './band-levels';

/** How far a mouth was open at a second of its take; in any unit. Pictures in which it is not seen are left out. */
export type MouthLook = { time: number; open: number };

/** How lips go with what is sung. */
export type Lips = {
  /** seconds by which they come after what is heard; negative before it */
  late: number;
  /** 0..1; from {@link allowed.heard} on it is believed */
  sure: number;
};

/** samples between two looks at the song: 10 ms, which is also a row of them */
const hop = 80;
/** rows by which lips may be off, and between two trials */
const [reach, step] = [50, 2];
/** rows from which on a place in the song is another one, and how many of those are tried at the most and at the least */
const [elsewhere, mostElsewhere, leastElsewhere] = [100, 500, 100];
/** share of the looks that has to lie on the song */
const leastOnSong = 0.8;
/** seconds to each side within which a mouth is held against how far it mostly is open */
const usual = 0.5;
/** looks and seconds of seen mouth below which nothing is said */
const [leastLooks, leastSeconds] = [100, 8];
/** how much a band counts that says nothing new, as a share of what bands say in the mean */
const ridge = 0.1;
/** standard deviations of other places by which the best one has to stand out before it is believed, and is sure: among 180 mouths that went to another text none did by 3.6 */
const [leastOut, sureOut] = [4, 6];

/** Less its mean within {@link usual} to each side. */
function againstUsual(looks: readonly MouthLook[]): number[] {
  let [from, until, sum] = [0, 0, 0];
  return looks.map(({ time, open }) => {
    while (until < looks.length && looks[until].time <= time + usual) sum += looks[until++].open;
    while (looks[from].time < time - usual) sum -= looks[from++].open;
    return open - sum / (until - from);
  });
}

/** A look's place among the rows of the song, and how far its mouth is open against the usual. */
type Placed = { row: number; open: number };

/**
 * How well bands of the song tell how far a mouth is open, -1..1, once each counts as much as serves best: the
 * correlation of what they tell with what is seen.
 * @see Hoerl & Kennard 1970 (ridge regression)
 * @returns NaN where too many looks lie beside the song
 */
function toldBy(values: Float32Array, looks: readonly Placed[], shift: number): number {
  const rows = values.length / bandCount;
  const square = Array.from({ length: bandCount }, () => new Array<number>(bandCount).fill(0));
  const [along, means, row] = [0, 1, 2].map(() => new Array<number>(bandCount).fill(0));
  let [count, mean, power] = [0, 0, 0];
  for (const look of looks) {
    const place = look.row + shift;
    const first = Math.floor(place);
    if (first < 0 || first + 1 >= rows) continue;
    const part = place - first;
    const at = first * bandCount;
    for (let band = 0; band < bandCount; band++)
      row[band] = values[at + band] * (1 - part) + values[at + bandCount + band] * part;
    for (let band = 0; band < bandCount; band++) {
      const own = square[band];
      for (let other = 0; other <= band; other++) own[other] += row[band] * row[other];
      along[band] += row[band] * look.open;
      means[band] += row[band];
    }
    count++;
    mean += look.open;
    power += look.open * look.open;
  }
  if (count < leastOnSong * looks.length) return NaN;
  let trace = 0;
  for (let band = 0; band < bandCount; band++) {
    for (let other = 0; other <= band; other++) {
      square[band][other] -= (means[band] * means[other]) / count;
      square[other][band] = square[band][other];
    }
    along[band] -= (means[band] * mean) / count;
    trace += square[band][band];
  }
  const held = square.map((own, band) =>
    own.map((value, other) => value + (band === other ? (ridge * trace) / bandCount : 0)),
  );
  const weights = solveLinear(held, along);
  if (!weights) return 0;
  let [together, told] = [0, 0];
  for (let band = 0; band < bandCount; band++) {
    together += weights[band] * along[band];
    for (let other = 0; other < bandCount; other++)
      told += weights[band] * weights[other] * square[band][other];
  }
  const both = told * (power - (mean * mean) / count);
  return both > 0 ? together / Math.sqrt(both) : 0;
}

/**
 * How lips go with what is sung in a song: by which bands of pitch become louder as the mouth opens, wherever in the
 * take the voice lies, tried at each shift. It is believed where the song tells the mouth far better there than
 * anywhere else. Mouths open before they are heard (Chandrasekaran and others 2009), differently from sound to sound:
 * a tenth of a second is as close as it can be known.
 * @param song mono, at 8 kHz or more
 * @param playback where the take lies on it
 * @param looks rising in time
 * @returns null where too little of a mouth or of the song is there to tell
 */
export function alignLips(song: Sound, playback: Alignment, looks: readonly MouthLook[]): Lips | null {
  const first = looks[0]?.time ?? 0;
  const last = looks[looks.length - 1]?.time ?? 0;
  if (looks.length < leastLooks || last - first < leastSeconds) return null;
  const { rows, rate, values } = bandLevels(slowDown(song, listenRate), hop);
  const opens = againstUsual(looks);
  const middle = windowSize / 2 / (rate * hop);
  const placed = looks.map(({ time }, index) => ({
    row: (onReference(playback, time) - middle) * rate,
    open: opens[index],
  }));
  const [begin, end] = [placed[0].row, placed[placed.length - 1].row];
  const slack = (1 - leastOnSong) * (end - begin);
  const others = [
    { from: -begin - slack, until: -elsewhere },
    { from: elsewhere, until: rows - end + slack },
  ].map(({ from, until }) => ({ from: Math.ceil(from), length: Math.max(0, Math.floor(until - from)) }));
  const apart = Math.max(
    step,
    Math.ceil(others.reduce((sum, { length }) => sum + length, 0) / mostElsewhere),
  );
  const far = others
    .flatMap(({ from, length }) =>
      Array.from({ length: Math.ceil(length / apart) }, (_, index) => from + apart * index),
    )
    .map((shift) => toldBy(values, placed, shift))
    .filter((value) => !Number.isNaN(value));
  if (far.length < leastElsewhere) return null;
  const near = Array.from({ length: (2 * reach) / step + 1 }, (_, index) =>
    toldBy(values, placed, index * step - reach),
  );
  let best = 0;
  for (let at = 1; at < near.length; at++) if (near[at] > near[best]) best = at;
  const isWithin = best > 0 && best < near.length - 1;
  const [before, own, after] = [near[best - 1] ?? NaN, near[best], near[best + 1] ?? NaN];
  const bend = before - 2 * own + after;
  const part = isWithin && bend < 0 ? (before - after) / (2 * bend) : 0;
  const mean = far.reduce((sum, value) => sum + value, 0) / far.length;
  const spread = Math.sqrt(far.reduce((sum, value) => sum + (value - mean) ** 2, 0) / far.length);
  const out = (own - mean) / spread;
  const isAhead = isWithin && own > Math.max(...far);
  return {
    late: -((best + part) * step - reach) / rate,
    sure: isAhead ? Math.min(1, Math.max(0, (out - leastOut) / (sureOut - leastOut))) : 0,
  };
}
