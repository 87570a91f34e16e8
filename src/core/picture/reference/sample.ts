import { invertAffine, type Affine } from '../../geometry/affine';
import type { Bounds, Size } from '../../geometry/size';
import { foldIndex } from '../edges';
import { gradeColour, type Cdl } from '../grade';
import type { Edges } from '../node';
import { cubicWeights } from '../resample';
import { clear, type Surface } from './surface';

/** Colour and coverage at a point of a surface: cubic, kept in range. */
function sampleAt(source: Surface, px: number, py: number, box: Bounds, edges: Edges): number[] {
  const ix = Math.floor(px - 0.5);
  const iy = Math.floor(py - 0.5);
  const wx = cubicWeights(px - 0.5 - ix);
  const wy = cubicWeights(py - 0.5 - iy);
  const out = [0, 0, 0, 0];
  for (let row = 0; row < 4; row++) {
    const y = foldIndex(iy + row - 1, box.top, box.bottom, edges);
    for (let column = 0; column < 4; column++) {
      const x = foldIndex(ix + column - 1, box.left, box.right, edges);
      const weight = wx[column] * wy[row];
      const at = (y * source.width + x) * 4;
      for (let channel = 0; channel < 4; channel++) out[channel] += weight * source.data[at + channel];
    }
  }
  const cover = Math.min(1, Math.max(0, out[3]));
  return [...out.slice(0, 3).map((value) => Math.min(cover, Math.max(0, value))), cover];
}

function graded(cdl: Cdl, [red, green, blue, cover]: number[]): number[] {
  if (cover <= 0) return [0, 0, 0, 0];
  const codes = [red, green, blue].map((value) => (value / cover) * 255);
  return [...gradeColour(cdl, codes).map((value) => (value / 255) * cover), cover];
}

/** How a surface is drawn: which part of it, what lies beyond, and its colour decision. */
export type Drawing = { crop: Bounds | null; edges: Edges; grade: Cdl | null };

/**
 * Draws a surface through a map. Where it is shrunk, the mean of several points is taken for a pixel.
 * @param matrix pixels of a picture of `size` to pixels of the result
 * @param size what the surface is a picture of; a smaller surface is scaled up to it
 */
export function drawn(
  source: Surface,
  size: Size,
  matrix: Affine,
  { crop, edges, grade }: Drawing,
  into: Size,
): Surface {
  const out = clear(into);
  const [sx, sy] = [source.width / size.width, source.height / size.height];
  const part = crop ?? { left: 0, top: 0, right: size.width, bottom: size.height };
  const box = {
    left: Math.max(0, Math.round(part.left * sx)),
    top: Math.max(0, Math.round(part.top * sy)),
    right: Math.min(source.width, Math.round(part.right * sx)),
    bottom: Math.min(source.height, Math.round(part.bottom * sy)),
  };
  if (box.right <= box.left || box.bottom <= box.top) return out;
  const [a, b, c, d, e, f] = invertAffine(matrix);
  const shrink = Math.max(Math.hypot(a * sx, b * sy), Math.hypot(c * sx, d * sy));
  const steps = shrink > 1.3 ? Math.ceil(shrink) : 1;
  for (let y = 0; y < into.height; y++) {
    for (let x = 0; x < into.width; x++) {
      const at = (y * into.width + x) * 4;
      for (let step = 0; step < steps * steps; step++) {
        const ox = x + ((step % steps) + 0.5) / steps;
        const oy = y + (Math.floor(step / steps) + 0.5) / steps;
        const px = (a * ox + c * oy + e) * sx;
        const py = (b * ox + d * oy + f) * sy;
        const outside = px < box.left || py < box.top || px > box.right || py > box.bottom;
        if (edges === 'empty' && outside) continue;
        const found = sampleAt(source, px, py, box, edges);
        const values = grade ? graded(grade, found) : found;
        for (let channel = 0; channel < 4; channel++)
          out.data[at + channel] += values[channel] / (steps * steps);
      }
    }
  }
  return out;
}
