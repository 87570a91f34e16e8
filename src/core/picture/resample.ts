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
