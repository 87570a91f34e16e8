import { median } from '../statistics';
import { refuse } from '../error';
import type { Placement } from '../geometry/placement';
import { checkSameSize, lumaOf, type GrayImage, type RgbaImage } from '../picture/image';
import { pyramidOf, type Level } from './pyramid';

/** Places of a level that carry position, with what a small move does to each. */
type Anchors = { level: Level; x: Float32Array; y: Float32Array; value: Float32Array; slope: Float32Array };
export type Reference = { width: number; height: number; gray: GrayImage; anchors: Anchors[] };

const finest = 8_000;
const coarser = 2_500;

/** Chooses the strongest slopes of every part of the picture, so that no single object decides. */
function anchorsOf(level: Level): Anchors {
  const { width, height, data } = level;
  const cells = Math.max(1, Math.round(Math.min(width, height) / 24));
  const columns = Math.max(1, Math.round((cells * width) / height));
  const perCell = Math.ceil(Math.min(finest, width * height * 0.5) / (cells * columns));
  const chosen: number[] = [];
  const strength = new Float32Array(width * height);
  for (let row = 1; row < height - 1; row++) {
    for (let column = 1; column < width - 1; column++) {
      const at = row * width + column;
      const across = data[at + 1] - data[at - 1];
      const down = data[at + width] - data[at - width];
      strength[at] = Math.sqrt(across * across + down * down) / 2;
    }
  }
  for (let cellY = 0; cellY < cells; cellY++) {
    for (let cellX = 0; cellX < columns; cellX++) {
      const places: number[] = [];
      const bottom = Math.min(height - 2, Math.floor(((cellY + 1) * height) / cells));
      const right = Math.min(width - 2, Math.floor(((cellX + 1) * width) / columns));
      for (let row = Math.max(2, Math.floor((cellY * height) / cells)); row < bottom; row++) {
        for (let column = Math.max(2, Math.floor((cellX * width) / columns)); column < right; column++) {
          // Strength before the point, place after it, so that plain numbers sort by strength.
          const at = row * width + column;
          if (strength[at] > 1) places.push(Math.round(strength[at] * 8) + at / (width * height));
        }
      }
      const sorted = Float64Array.from(places).sort().reverse().subarray(0, perCell);
      for (const value of sorted) chosen.push(Math.round((value % 1) * width * height));
    }
  }
  const count = chosen.length;
  const anchors: Anchors = {
    level,
    x: new Float32Array(count),
    y: new Float32Array(count),
    value: new Float32Array(count),
    slope: new Float32Array(count * 4),
  };
  chosen.forEach((at, index) => {
    const x = (at % width) + 0.5 - width / 2;
    const y = Math.floor(at / width) + 0.5 - height / 2;
    const gx = (data[at + 1] - data[at - 1]) / 2;
    const gy = (data[at + width] - data[at - width]) / 2;
    anchors.x[index] = x;
    anchors.y[index] = y;
    anchors.value[index] = data[at];
    anchors.slope.set([gx, gy, gy * x - gx * y, gx * x + gy * y], index * 4);
  });
  return anchors;
}

/** Prepares a reference once for many frames. An RGBA picture is taken by its luma, several as their mean. */
export function prepareReference(image: GrayImage | RgbaImage | RgbaImage[]): Reference {
  const list = Array.isArray(image) ? image : [image];
  if (list.length === 0) refuse('no-reference', 'There is no reference picture. Choose a clean plate first.');
  const grays = list.map((one) => (isRgba(one) ? lumaOf(one) : one));
  const [first] = grays;
  for (const other of grays) checkSameSize(first, other);
  const data = new Float32Array(first.width * first.height);
  for (const gray of grays) for (let at = 0; at < data.length; at++) data[at] += gray.data[at] / grays.length;
  const gray = { width: first.width, height: first.height, data };
  return { width: first.width, height: first.height, gray, anchors: pyramidOf(gray).map(anchorsOf) };
}

const isRgba = (image: GrayImage | RgbaImage): image is RgbaImage =>
  image.data.length === image.width * image.height * 4;

/** Catmull-Rom value at a point in pixels from the corner, edges repeated. */
function sample({ width, height, data }: Level, px: number, py: number): number {
  const fx = px - 0.5;
  const fy = py - 0.5;
  const x = Math.floor(fx);
  const y = Math.floor(fy);
  const tx = fx - x;
  const ty = fy - y;
  const x1 = -0.5 * tx + tx * tx - 0.5 * tx * tx * tx;
  const x2 = 1 - 2.5 * tx * tx + 1.5 * tx * tx * tx;
  const x3 = 0.5 * tx + 2 * tx * tx - 1.5 * tx * tx * tx;
  const x4 = -0.5 * tx * tx + 0.5 * tx * tx * tx;
  let sum = 0;
  for (let row = -1; row < 3; row++) {
    const yy = y + row < 0 ? 0 : y + row >= height ? height - 1 : y + row;
    const base = yy * width;
    const inside = x > 0 && x + 2 < width;
    const line = inside
      ? x1 * data[base + x - 1] + x2 * data[base + x] + x3 * data[base + x + 1] + x4 * data[base + x + 2]
      : x1 * data[base + clampIndex(x - 1, width)] +
        x2 * data[base + clampIndex(x, width)] +
        x3 * data[base + clampIndex(x + 1, width)] +
        x4 * data[base + clampIndex(x + 2, width)];
    const t = ty;
    const weight =
      row === -1
        ? -0.5 * t + t * t - 0.5 * t * t * t
        : row === 0
          ? 1 - 2.5 * t * t + 1.5 * t * t * t
          : row === 1
            ? 0.5 * t + 2 * t * t - 1.5 * t * t * t
            : -0.5 * t * t + 0.5 * t * t * t;
    sum += weight * line;
  }
  return sum;
}

const clampIndex = (index: number, size: number) => (index < 0 ? 0 : index >= size ? size - 1 : index);

/** Solves a small symmetric system in place by elimination with pivots; null where it has no answer. */
export function solveLinear(matrix: number[][], right: number[]): number[] | null {
  const size = right.length;
  const rows = matrix.map((row, index) => [...row, right[index]]);
  for (let pivot = 0; pivot < size; pivot++) {
    let best = pivot;
    for (let row = pivot + 1; row < size; row++) {
      if (Math.abs(rows[row][pivot]) > Math.abs(rows[best][pivot])) best = row;
    }
    if (Math.abs(rows[best][pivot]) < 1e-12) return null;
    [rows[pivot], rows[best]] = [rows[best], rows[pivot]];
    for (let row = 0; row < size; row++) {
      if (row === pivot) continue;
      const factor = rows[row][pivot] / rows[pivot][pivot];
      for (let column = pivot; column <= size; column++) rows[row][column] -= factor * rows[pivot][column];
    }
  }
  return rows.map((row, index) => row[size] / row[index]);
}

/** A similarity as complex numbers about the centre: z becomes (mr + i mi) z + (tx + i ty). */
type Similarity = { mr: number; mi: number; tx: number; ty: number };

/** Best whole-pixel shift of the smallest level by robust difference. */
function coarseShift(anchors: Anchors, frame: Level): { tx: number; ty: number } {
  const { width, height, data } = frame;
  const reach = Math.max(3, Math.round(Math.min(width, height) * 0.14));
  const step = Math.max(1, Math.floor(anchors.x.length / 700));
  const brighter = median(data) - median(anchors.level.data);
  let best = { tx: 0, ty: 0, cost: Infinity };
  for (let ty = -reach; ty <= reach; ty++) {
    for (let tx = -reach; tx <= reach; tx++) {
      let [sum, count] = [0, 0];
      for (let index = 0; index < anchors.x.length; index += step) {
        const x = Math.floor(anchors.x[index] + width / 2) + tx;
        const y = Math.floor(anchors.y[index] + height / 2) + ty;
        if (x < 0 || y < 0 || x >= width || y >= height) continue;
        const off = Math.abs(data[y * width + x] - anchors.value[index] - brighter);
        sum += off < 24 ? off : 24;
        count++;
      }
      if (count * step * 3 < anchors.x.length) continue;
      const cost = sum / count + 0.02 * Math.hypot(tx, ty);
      if (cost < best.cost) best = { tx, ty, cost };
    }
  }
  return best;
}

/** One level of inverse compositional alignment with gain, offset and Tukey weights; returns the residuals. */
function refine(anchors: Anchors, frame: Level, start: Similarity, rounds: number, most: number) {
  const count = anchors.x.length;
  const stride = Math.max(1, Math.ceil(count / most));
  const used = Math.floor((count + stride - 1) / stride);
  const values = new Float32Array(used);
  const residual = new Float32Array(used);
  let w = start;
  let [gain, offset] = [1, 0];
  let spread = 20;
  const thin = Math.max(1, Math.floor(used / 900));
  for (let round = 0; round < rounds; round++) {
    for (let index = 0, at = 0; at < count; index++, at += stride) {
      const x = w.mr * anchors.x[at] - w.mi * anchors.y[at] + w.tx + frame.width / 2;
      const y = w.mi * anchors.x[at] + w.mr * anchors.y[at] + w.ty + frame.height / 2;
      values[index] =
        x < 1 || y < 1 || x > frame.width - 1 || y > frame.height - 1 ? Number.NaN : sample(frame, x, y);
      residual[index] = values[index] - gain * anchors.value[at] - offset;
    }
    const sizes: number[] = [];
    for (let index = 0; index < used; index += thin)
      if (residual[index] === residual[index]) sizes.push(Math.abs(residual[index]));
    spread = Math.max(1, 1.4826 * median(sizes));
    const limit = 4.685 * spread;
    const sums = new Float64Array(27);
    const row = new Float64Array(6);
    for (let index = 0, at = 0; at < count; index++, at += stride) {
      const share = residual[index] / limit;
      if (!(share > -1 && share < 1)) continue;
      const weight = (1 - share * share) ** 2;
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
  return { w, residual, spread, gain };
}

/** `w` after the inverse of the small step `d`; the step was estimated on the reference's side. */
function composeInverse(w: Similarity, d: Similarity): Similarity {
  const size = d.mr * d.mr + d.mi * d.mi;
  const mr = (w.mr * d.mr + w.mi * d.mi) / size;
  const mi = (w.mi * d.mr - w.mr * d.mi) / size;
  return { mr, mi, tx: w.tx - (mr * d.tx - mi * d.ty), ty: w.ty - (mr * d.ty + mi * d.tx) };
}

/**
 * How `frame` lies against `reference`, to hundredths of a pixel, with moving things and changed light left out.
 * @throws CoreError `sizes-differ` where the pictures differ in size
 * @see Baker & Matthews 2004 (inverse compositional); robust weights after Tukey
 */
export function registerFrame(reference: GrayImage | Reference, frame: GrayImage): Placement {
  const prepared = 'anchors' in reference ? reference : prepareReference(reference);
  checkSameSize(prepared, frame);
  const none = { dx: 0, dy: 0, rotation: 0, scale: 1, agreement: 0 };
  const levels = pyramidOf(frame);
  const top = levels.length - 1;
  if (prepared.anchors[0].x.length < 60) return none;
  let w: Similarity = { mr: 1, mi: 0, ...coarseShift(prepared.anchors[top], levels[top]) };
  let last = refine(prepared.anchors[top], levels[top], w, 12, coarser);
  for (let level = top - 1; level >= 0; level--) {
    w = { ...last.w, tx: last.w.tx * 2, ty: last.w.ty * 2 };
    last = refine(
      prepared.anchors[level],
      levels[level],
      w,
      level === 0 ? 8 : 10,
      level === 0 ? finest : 5000,
    );
  }
  const { mr, mi, tx, ty } = last.w;
  const scale = Math.hypot(mr, mi);
  const allowed = Math.max(9, Math.min(3 * last.spread, 14));
  let fits = 0;
  for (const value of last.residual) if (Math.abs(value) < allowed) fits++;
  const result = {
    dx: tx,
    dy: ty,
    rotation: (Math.atan2(mi, mr) * 180) / Math.PI,
    scale,
    agreement: fits / last.residual.length,
  };
  // A picture without the reference's contrast "fits" by being flat: a covered lens, black, plain noise.
  const flat = last.gain < 0.15;
  return Object.values(result).every(Number.isFinite) && scale > 0.5 && scale < 2 && !flat ? result : none;
}
