import { valueAt } from '../../motion/keyframes';
import type { Effect } from '../node';
import { clear, type Surface } from './surface';

/** Weighted means along one axis; what lies beyond the edge is the edge. */
function along({ width, height, data }: Surface, weights: readonly number[], step: 'x' | 'y'): Surface {
  const out = clear({ width, height });
  const reach = (weights.length - 1) / 2;
  const held = (value: number, length: number) => Math.min(length - 1, Math.max(0, value));
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 4;
      weights.forEach((weight, index) => {
        const xx = step === 'x' ? held(x + index - reach, width) : x;
        const yy = step === 'y' ? held(y + index - reach, height) : y;
        const from = (yy * width + xx) * 4;
        for (let channel = 0; channel < 4; channel++) out.data[at + channel] += weight * data[from + channel];
      });
    }
  }
  return out;
}

/** Gaussian weights out to four standard deviations, which add up to one. */
function gaussian(deviation: number): number[] {
  const reach = Math.max(1, Math.ceil(4 * deviation));
  const raw = Array.from({ length: 2 * reach + 1 }, (_, index) =>
    Math.exp(-((index - reach) ** 2) / (2 * deviation * deviation)),
  );
  const sum = raw.reduce((total, value) => total + value, 0);
  return raw.map((value) => value / sum);
}

/** One channel moved by parts of a pixel, evenly between neighbours; what lies beyond the edge is the edge. */
function shifted({ width, height, data }: Surface, channel: number, dx: number, dy: number): Float64Array {
  const out = new Float64Array(width * height);
  const value = (x: number, y: number) =>
    data[(Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x))) * 4 + channel];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [ix, iy] = [Math.floor(x - dx), Math.floor(y - dy)];
      const [tx, ty] = [x - dx - ix, y - dy - iy];
      const top = value(ix, iy) * (1 - tx) + value(ix + 1, iy) * tx;
      const bottom = value(ix, iy + 1) * (1 - tx) + value(ix + 1, iy + 1) * tx;
      out[y * width + x] = top * (1 - ty) + bottom * ty;
    }
  }
  return out;
}

function split(surface: Surface, x: number, y: number): Surface {
  const out = { ...surface, data: surface.data.slice() };
  const [red, blue] = [shifted(surface, 0, x, y), shifted(surface, 2, -x, -y)];
  for (let at = 0; at < out.data.length; at += 4) {
    const cover = out.data[at + 3];
    out.data[at] = Math.min(cover, red[at >> 2]);
    out.data[at + 2] = Math.min(cover, blue[at >> 2]);
  }
  return out;
}

function negative(surface: Surface, amount: number): Surface {
  const data = surface.data.map((value, at) => {
    const cover = surface.data[at | 3];
    return (at & 3) === 3 ? value : value + (cover - 2 * value) * amount;
  });
  return { ...surface, data };
}

/** A surface with an effect on it, at a frame. */
export function withEffect(surface: Surface, effect: Effect, frame: number): Surface {
  switch (effect.is) {
    case 'blur': {
      const deviation = valueAt(effect.radius, frame);
      if (deviation <= 0.01) return surface;
      const weights = gaussian(deviation);
      return along(along(surface, weights, 'x'), weights, 'y');
    }
    case 'split':
      return split(surface, valueAt(effect.x, frame), valueAt(effect.y, frame));
    case 'negative':
      return negative(surface, valueAt(effect.amount, frame));
  }
}
