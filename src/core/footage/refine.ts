import { solveLinear } from '../linear-system';
import { cubicAt } from '../picture/cubic';
import { robustSpread, tukeyLimit, tukeyWeight } from '../robust';
import type { Level } from './pyramid';
import type { Anchors } from './reference';

/** A similarity as complex numbers about the centre: z becomes (mr + i mi) z + (tx + i ty). */
export type Similarity = { mr: number; mi: number; tx: number; ty: number };

/**
 * Which share of the errors tells how far they spread, and what it stays below in a normal distribution, in standard
 * deviations. With half of them a performer before two fifths of the places would decide; with fewer a place is told
 * less closely.
 */
export const quiet = { first: { share: 0.3, below: 0.3853 }, last: { share: 0.4, below: 0.5244 } };

/**
 * How a picture lies against a reference, and how its light differs: value = gain × reference + offset. `spread` is how
 * far what fits lies from that at most, in codes.
 */
export type Fit = { w: Similarity; gain: number; offset: number; spread: number };

/**
 * One level of inverse compositional alignment with gain, offset and Tukey weights; returns the residuals. The spread
 * only shrinks: where it may grow, a performer draws the light a little, more of him fits, and it ends up as his.
 * @see Yohai 1987, High breakdown-point and high efficiency robust estimates for regression: the scale is held
 */
export function refine(
  anchors: Anchors,
  frame: Level,
  start: Fit,
  rounds: number,
  most: number,
  told = quiet.first,
) {
  const count = anchors.x.length;
  const stride = Math.max(1, Math.ceil(count / most));
  const used = Math.floor((count + stride - 1) / stride);
  const values = new Float32Array(used);
  const residual = new Float32Array(used);
  let { w, gain, offset, spread } = start;
  const thin = Math.max(1, Math.floor(used / 900));
  for (let round = 0; round < rounds; round++) {
    for (let index = 0, at = 0; at < count; index++, at += stride) {
      const x = w.mr * anchors.x[at] - w.mi * anchors.y[at] + w.tx + frame.width / 2;
      const y = w.mi * anchors.x[at] + w.mr * anchors.y[at] + w.ty + frame.height / 2;
      values[index] =
        x < 1 || y < 1 || x > frame.width - 1 || y > frame.height - 1 ? Number.NaN : cubicAt(frame, x, y);
      residual[index] = values[index] - gain * anchors.value[at] - offset;
    }
    const sizes: number[] = [];
    for (let index = 0; index < used; index += thin)
      if (residual[index] === residual[index]) sizes.push(Math.abs(residual[index]));
    spread = Math.max(1, Math.min(spread, robustSpread(sizes, told)));
    const limit = tukeyLimit * spread;
    const sums = new Float64Array(27);
    const row = new Float64Array(6);
    for (let index = 0, at = 0; at < count; index++, at += stride) {
      const weight = tukeyWeight(residual[index] / limit);
      if (weight === 0) continue;
      row[0] = anchors.slope[at * 4];
      row[1] = anchors.slope[at * 4 + 1];
      row[2] = anchors.slope[at * 4 + 2];
      row[3] = anchors.slope[at * 4 + 3];
      row[4] = anchors.value[at];
      row[5] = 1;
      let place = 0;
      for (let i = 0; i < 6; i++) {
        const scaled = weight * row[i];
        for (let j = i; j < 6; j++) sums[place++] += scaled * row[j];
        sums[21 + i] += scaled * residual[index];
      }
    }
    const matrix = Array.from({ length: 6 }, () => new Array<number>(6).fill(0));
    let place = 0;
    for (let i = 0; i < 6; i++) for (let j = i; j < 6; j++) matrix[i][j] = matrix[j][i] = sums[place++];
    const step = solveLinear(matrix, Array.from(sums.subarray(21)));
    if (!step || !step.every(Number.isFinite)) break;
    gain += step[4];
    offset += step[5];
    const [dx, dy, turn, grow] = step.map((value) => value / Math.max(0.2, gain));
    const next = composeInverse(w, { mr: 1 + grow, mi: turn, tx: dx, ty: dy });
    const moved =
      Math.hypot(next.tx - w.tx, next.ty - w.ty) +
      (Math.hypot(next.mr - w.mr, next.mi - w.mi) * frame.width) / 2;
    w = next;
    if (moved < 0.004) break;
  }
  return { w, residual, spread, gain, offset };
}

/** `w` after the inverse of the small step `d`; the step was estimated on the reference's side. */
function composeInverse(w: Similarity, d: Similarity): Similarity {
  const size = d.mr * d.mr + d.mi * d.mi;
  const mr = (w.mr * d.mr + w.mi * d.mi) / size;
  const mi = (w.mi * d.mr - w.mr * d.mi) / size;
  return { mr, mi, tx: w.tx - (mr * d.tx - mi * d.ty), ty: w.ty - (mr * d.ty + mi * d.tx) };
}
