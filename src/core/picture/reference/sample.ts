import { invertAffine, unmoved, type Affine } from '../../geometry/affine';
import type { Bounds, Size } from '../../geometry/size';
import { foldIndex } from '../edges';
import { gradeColour, type Cdl } from '../grade';
import type { Edges } from '../node';
import { cubicWeights } from '../resample';
import { clear, type Surface } from './surface';

/** Colour and coverage at a point of a surface: cubic, kept in range. */
function sampleAt(
  source: Surface,
  px: number,
  py: number,
  box: Bounds,
  edges: Edges,
  into: Float64Array,
): void {
  const ix = Math.floor(px - 0.5);
  const iy = Math.floor(py - 0.5);
  const wx = cubicWeights(px - 0.5 - ix);
  const wy = cubicWeights(py - 0.5 - iy);
  into.fill(0);
  for (let row = 0; row < 4; row++) {
    const line = foldIndex(iy + row - 1, box.top, box.bottom, edges) * source.width;
    for (let column = 0; column < 4; column++) {
      const weight = wx[column] * wy[row];
      const at = (line + foldIndex(ix + column - 1, box.left, box.right, edges)) * 4;
      into[0] += weight * source.data[at];
      into[1] += weight * source.data[at + 1];
      into[2] += weight * source.data[at + 2];
      into[3] += weight * source.data[at + 3];
    }
  }
  const cover = Math.min(1, Math.max(0, into[3]));
  for (let channel = 0; channel < 3; channel++) into[channel] = Math.min(cover, Math.max(0, into[channel]));
  into[3] = cover;
}

/** A colour decision on a sample, in place. */
function gradeSample(cdl: Cdl, sample: Float64Array): void {
  const cover = sample[3];
  if (cover <= 0) return;
  const codes = [sample[0], sample[1], sample[2]].map((value) => (value / cover) * 255);
  gradeColour(cdl, codes).forEach((value, channel) => (sample[channel] = (value / 255) * cover));
}

/** How a surface is drawn: which part of it, what lies beyond, and its colour decision. */
export type Drawing = { crop: Bounds | null; edges: Edges; grade: Cdl | null };

/**
 * Draws a surface through a map; one that fits as it is comes back itself. Where it is shrunk, the mean of several points is taken for a pixel.
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
  const same = source.width === into.width && source.height === into.height;
  if (same && !crop && !grade && matrix.every((value, index) => value === unmoved[index])) return source;
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
  const sample = new Float64Array(4);
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
        sampleAt(source, px, py, box, edges, sample);
        if (grade) gradeSample(grade, sample);
        for (let channel = 0; channel < 4; channel++)
          out.data[at + channel] += sample[channel] / (steps * steps);
      }
    }
  }
  return out;
}
