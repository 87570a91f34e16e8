import type { Affine } from '../geometry/affine';
import type { Bounds, Size } from '../geometry/size';
import { foldIndex } from './edges';
import type { Edges } from './node';

/** Weights of the four neighbours at a share 0..1 between the middle two. @see Catmull & Rom 1974 */
export function cubicWeights(t: number): [number, number, number, number] {
  const [t2, t3] = [t * t, t * t * t];
  return [
    -0.5 * t + t2 - 0.5 * t3,
    1 - 2.5 * t2 + 1.5 * t3,
    0.5 * t + 2 * t2 - 1.5 * t3,
    -0.5 * t2 + 0.5 * t3,
  ];
}

const fineness = 256;
const table = Float32Array.from(
  { length: (fineness + 1) * 4 },
  (_, at) => cubicWeights((at >> 2) / fineness)[at & 3],
);

/** For each output place along one axis: the four source places around it and their weights. */
type Taps = { places: Int32Array; weights: Float32Array; inside: Uint8Array; exact: boolean };

/**
 * @param scale source places for each output place
 * @param offset source place of the output's edge
 */
function tapsAlong(
  scale: number,
  offset: number,
  from: number,
  until: number,
  length: number,
  edges: Edges,
): Taps {
  const count = Math.max(0, until - from);
  const taps: Taps = {
    places: new Int32Array(4 * count),
    weights: new Float32Array(4 * count),
    inside: new Uint8Array(count),
    exact: true,
  };
  for (let step = 0; step < count; step++) {
    const place = scale * (from + step + 0.5) + offset;
    const first = Math.floor(place - 0.5);
    const fine = ((place - 0.5 - first) * fineness + 0.5) | 0;
    for (let tap = 0; tap < 4; tap++) {
      taps.places[4 * step + tap] = foldIndex(first + tap - 1, 0, length, edges);
      taps.weights[4 * step + tap] = table[4 * fine + tap];
    }
    taps.inside[step] = place < 0 || place > length ? 0 : 255;
    taps.exact &&= fine === 0;
  }
  return taps;
}

/** A map that keeps rows rows: the weights of rows and columns are the same everywhere, so that each is worked out once. */
function resampleStraight(
  source: Uint8Array,
  from: Size,
  [a, , , d, e, f]: Affine,
  into: Uint8Array,
  to: Size,
  { left, top, right, bottom }: Bounds,
  inside: Uint8Array | null,
  edges: Edges,
): void {
  const { width, height } = from;
  const across = tapsAlong(a, e, left, right, width, edges);
  const down = tapsAlong(d, f, top, bottom, height, edges);
  const [p, w] = [across.places, across.weights];
  const line = new Float32Array(width);
  for (let y = top; y < bottom; y++) {
    const row = 4 * (y - top);
    const lines = [0, 1, 2, 3].map((tap) => down.places[row + tap] * width);
    if (down.exact) line.set(source.subarray(lines[1], lines[1] + width));
    else {
      const [w0, w1, w2, w3] = down.weights.subarray(row, row + 4);
      const [l0, l1, l2, l3] = lines;
      for (let x = 0; x < width; x++)
        line[x] = w0 * source[l0 + x] + w1 * source[l1 + x] + w2 * source[l2 + x] + w3 * source[l3 + x];
    }
    let at = y * to.width + left;
    for (let x = left, tap = 0; x < right; x++, tap += 4, at++) {
      const sum =
        w[tap] * line[p[tap]] +
        w[tap + 1] * line[p[tap + 1]] +
        w[tap + 2] * line[p[tap + 2]] +
        w[tap + 3] * line[p[tap + 3]];
      into[at] = sum < 0 ? 0 : sum > 255 ? 255 : sum + 0.5;
      if (inside) inside[at] = across.inside[x - left] & down.inside[y - top];
    }
  }
}

/**
 * Draws a plane through an affine map with cubic weights.
 * @param back output pixels to source pixels, measured from the corners
 * @param inside gets 0 where the source does not reach, else 255
 * @param edges what lies beyond the source; what an empty edge is near to is its own last pixel
 */
export function resamplePlane(
  source: Uint8Array,
  from: Size,
  back: Affine,
  into: Uint8Array,
  to: Size,
  bounds: Bounds,
  inside: Uint8Array | null,
  edges: Edges = 'empty',
): void {
  const { width, height } = from;
  const [a, b, c, d, e, f] = back;
  if (b === 0 && c === 0) return resampleStraight(source, from, back, into, to, bounds, inside, edges);
  for (let y = bounds.top; y < bounds.bottom; y++) {
    for (let x = bounds.left; x < bounds.right; x++) {
      const px = a * (x + 0.5) + c * (y + 0.5) + e;
      const py = b * (x + 0.5) + d * (y + 0.5) + f;
      const at = y * to.width + x;
      if (inside) inside[at] = px < 0 || py < 0 || px > width || py > height ? 0 : 255;
      const fx = px - 0.5;
      const fy = py - 0.5;
      const ix = Math.floor(fx);
      const iy = Math.floor(fy);
      const wx = ((fx - ix) * fineness + 0.5) | 0;
      const wy = ((fy - iy) * fineness + 0.5) | 0;
      let sum = 0;
      if (ix > 0 && iy > 0 && ix + 2 < width && iy + 2 < height) {
        let line = (iy - 1) * width + ix - 1;
        for (let row = 0; row < 4; row++, line += width) {
          sum +=
            table[wy * 4 + row] *
            (table[wx * 4] * source[line] +
              table[wx * 4 + 1] * source[line + 1] +
              table[wx * 4 + 2] * source[line + 2] +
              table[wx * 4 + 3] * source[line + 3]);
        }
      } else {
        for (let row = 0; row < 4; row++) {
          const yy = foldIndex(iy + row - 1, 0, height, edges) * width;
          for (let column = 0; column < 4; column++) {
            const xx = foldIndex(ix + column - 1, 0, width, edges);
            sum += table[wy * 4 + row] * table[wx * 4 + column] * source[yy + xx];
          }
        }
      }
      into[at] = sum < 0 ? 0 : sum > 255 ? 255 : sum + 0.5;
    }
  }
}
