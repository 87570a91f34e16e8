import { valueAt } from '../../motion/keyframes';
import { gaussianWeights } from '../gaussian';
import type { Effect } from '../node';
import { alongLine, bend, towardsMiddle, wave } from './bent';
import { colours, glow, negative, tint, vignette } from './colours';
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

/** Plain weights over a reach that need not be whole. */
function plain(reach: number): number[] {
  const whole = Math.floor(reach);
  const raw = Array.from({ length: 2 * whole + 3 }, (_, index) =>
    index === 0 || index === 2 * whole + 2 ? reach - whole : 1,
  );
  return raw.map((value) => value / (2 * reach + 1));
}

const softened = (surface: Surface, weights: readonly number[]): Surface =>
  along(along(surface, weights, 'x'), weights, 'y');

/** A surface with an effect on it, at a frame. */
export function withEffect(surface: Surface, effect: Effect, frame: number): Surface {
  switch (effect.is) {
    case 'blur': {
      const deviation = valueAt(effect.radius, frame);
      return deviation <= 0.01 ? surface : softened(surface, gaussianWeights(deviation));
    }
    case 'box': {
      const reach = valueAt(effect.reach, frame);
      return reach <= 0.01 ? surface : softened(surface, plain(reach));
    }
    case 'directional':
      return alongLine(surface, valueAt(effect.length, frame), valueAt(effect.angle, frame));
    case 'zoom':
      return towardsMiddle(surface, valueAt(effect.share, frame));
    case 'split':
      return split(surface, valueAt(effect.x, frame), valueAt(effect.y, frame));
    case 'glow': {
      const weights = gaussianWeights(Math.max(0.01, valueAt(effect.radius, frame)));
      return glow(surface, effect.from, valueAt(effect.amount, frame), (light) => softened(light, weights));
    }
    case 'colours':
      return colours(
        surface,
        valueAt(effect.brightness, frame),
        valueAt(effect.saturation, frame),
        valueAt(effect.hue, frame),
      );
    case 'tint':
      return tint(surface, effect.rgb, valueAt(effect.amount, frame));
    case 'negative':
      return negative(surface, valueAt(effect.amount, frame));
    case 'vignette':
      return vignette(surface, valueAt(effect.amount, frame));
    case 'wave':
      return wave(surface, valueAt(effect.by, frame), effect.length, valueAt(effect.turned, frame));
    case 'bend':
      return bend(surface, valueAt(effect.amount, frame));
  }
}
