import { median } from '../statistics';
import { strongestNear, type Onsets } from './onsets';
import { changeAt, type Tonal } from './tonal';

export type Bars = {
  /** seconds; the beats that were given, moved to where bars put them */
  beats: number[];
  downbeats: number[];
  beatsPerBar: number;
  /** how well the walk meets what it should, a beat; about 0..3 */
  score: number;
};

/** Parts of a beat by which all found beats may lie beside the music's. */
const everyShift = [0, 1 / 4, 1 / 3, 1 / 2, 2 / 3, 3 / 4];

/** What it costs to change the shift within a song; less where the found beats stumble. */
const flip = 25;
const flipAtStumble = 2;

/** Values about their mean in units of their spread, within 2.5. */
function normalised(rows: number[][]): number[][] {
  const flat = rows.flat();
  const mean = flat.reduce((sum, value) => sum + value, 0) / flat.length;
  const spread = Math.sqrt(flat.reduce((sum, value) => sum + (value - mean) ** 2, 0) / flat.length) || 1;
  return rows.map((row) => row.map((value) => Math.max(-2.5, Math.min(2.5, (value - mean) / spread))));
}

/**
 * Puts found beats on the music's beats and into bars: a walk along them, each beat with a shift and a place in
 * its bar. On a beat something starts, low sounds above all; a short note leads into it rather than away from
 * it; on the first of a bar the notes change.
 * @param found seconds, at least four
 * @param lengths beats a bar that are considered; there is one answer for each
 * @param shifted false keeps the beats where they are
 * @param firsts times that must be the first of a bar
 */
export function findBars(
  found: readonly number[],
  onsets: Onsets,
  tonal: Tonal,
  lengths: readonly number[],
  shifted = true,
  firsts: readonly number[] = [],
): Bars[] {
  const shifts = shifted ? everyShift : [0];
  const gaps = found.map((time, i) => (i + 1 < found.length ? found[i + 1] - time : time - found[i - 1]));
  const gap = median(gaps);
  const place = (i: number, shift: number) => found[i] + shifts[shift] * Math.min(gaps[i], gap * 1.3);
  const weigh = (what: (time: number) => number) =>
    normalised(found.map((_, i) => shifts.map((_, shift) => what(place(i, shift)))));
  const all = (time: number) => strongestNear(onsets.all, onsets, time);
  const beside = (time: number, side: number) =>
    Math.max(all(time + (side * gap) / 4), all(time + (side * gap) / 3));
  // Roots, since that something starts counts for more than how loudly.
  const starts = weigh((time) => all(time) ** 0.3);
  const low = weigh((time) => Math.sqrt(strongestNear(onsets.low, onsets, time)));
  const leads = weigh((time) => beside(time, -1) - beside(time, 1));
  const change = weigh((time) => changeAt(tonal, time, 2 * gap));
  const given = found.map((time) => firsts.some((first) => Math.abs(first - time) < gap / 4));

  const walk = (length: number): Bars => {
    const states = shifts.length * length;
    const gain = (i: number, state: number) => {
      const shift = Math.floor(state / length);
      const accent = change[i][shift] + 0.5 * low[i][shift] + (given[i] ? 50 : 0);
      const beat = starts[i][shift] + 0.4 * low[i][shift] + 1.3 * leads[i][shift];
      return beat + (state % length === 0 ? accent : -accent / Math.max(1, length - 1));
    };
    let total = Array.from({ length: states }, (_, state) => gain(0, state));
    const back: Int16Array[] = [];
    for (let i = 1; i < found.length; i++) {
      const from = new Int16Array(states);
      const before = total;
      const best = before.indexOf(Math.max(...before));
      const jump = before[best] - (Math.abs(gaps[i - 1] / gap - 1) > 0.2 ? flipAtStumble : flip);
      total = before.map((_, state) => {
        const same = state - (state % length) + ((state + length - 1) % length);
        from[state] = before[same] >= jump ? same : best;
        return Math.max(before[same], jump) + gain(i, state);
      });
      back.push(from);
    }
    const score = Math.max(...total) / found.length;
    const path = [total.indexOf(Math.max(...total))];
    for (let i = back.length - 1; i >= 0; i--) path.unshift(back[i][path[0]]);
    const beats: number[] = [];
    const downbeats: number[] = [];
    path.forEach((state, i) => {
      const time = place(i, Math.floor(state / length));
      if (beats.length > 0 && time - beats[beats.length - 1] < gap * 0.5) return;
      beats.push(time);
      if (state % length === 0) downbeats.push(time);
    });
    return { beats, downbeats, beatsPerBar: length, score };
  };
  return lengths.map(walk);
}
