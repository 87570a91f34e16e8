import type { Size } from '@/core/geometry/size';
import { valueAt } from '@/core/motion/keyframes';
import { colourMatrix } from '@/core/picture/colour-matrix';
import { reachOf, samplesAlong } from '@/core/picture/middle';
import type { Effect } from '@/core/picture/node';
import type { Surfaces } from './surfaces';

/** One surface from another: what computes it, and with which numbers. */
export type Pass = readonly [
  shader: Parameters<Surfaces['paint']>[1],
  uniforms: Parameters<Surfaces['paint']>[2],
];

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

const gaussian = (deviation: number): Pass[] =>
  deviation <= 0.01
    ? []
    : [
        ['gaussian', { along: [1, 0], deviation }],
        ['gaussian', { along: [0, 1], deviation }],
      ];

/**
 * What makes an effect of a surface, one after the other; of a glow, what softens its light.
 * @param factor pixels painted a pixel of the delivery
 */
export function passesOf(effect: Effect, at: number, factor: number, size: Size): Pass[] {
  switch (effect.is) {
    case 'blur':
      return gaussian(valueAt(effect.radius, at) * factor);
    case 'glow':
      return gaussian(Math.max(0.01, valueAt(effect.radius, at)) * factor);
    case 'box': {
      const reach = valueAt(effect.reach, at) * factor;
      if (reach <= 0.01) return [];
      return [
        ['soften', { along: [1, 0], reach }],
        ['soften', { along: [0, 1], reach }],
      ];
    }
    case 'directional': {
      const [length, angle] = [valueAt(effect.length, at) * factor, radians(valueAt(effect.angle, at))];
      const line = [length * Math.cos(angle), length * Math.sin(angle)];
      return Math.abs(length) <= 0.01 ? [] : [['directional', { line, samples: samplesAlong(length) }]];
    }
    case 'zoom': {
      const share = valueAt(effect.share, at);
      const [, , furthest] = reachOf(size);
      return Math.abs(share) <= 1e-4 ? [] : [['zoom', { share, samples: samplesAlong(share * furthest) }]];
    }
    case 'split':
      return [['split', { by: [valueAt(effect.x, at) * factor, valueAt(effect.y, at) * factor] }]];
    case 'negative':
      return [['negative', { amount: valueAt(effect.amount, at) }]];
    case 'colours': {
      const [red, green, blue] = colourMatrix(
        valueAt(effect.brightness, at),
        valueAt(effect.saturation, at),
        valueAt(effect.hue, at),
      );
      return [['colours', { red: [...red], green: [...green], blue: [...blue] }]];
    }
    case 'tint':
      return [
        ['tint', { colour: effect.rgb.map((value) => value / 255), amount: valueAt(effect.amount, at) }],
      ];
    case 'vignette':
      return [['vignette', { amount: valueAt(effect.amount, at) }]];
    case 'wave':
      return [
        [
          'wave',
          {
            by: valueAt(effect.by, at) * factor,
            wavelength: effect.length * factor,
            turned: radians(valueAt(effect.turned, at)),
          },
        ],
      ];
    case 'bend':
      return [['bend', { amount: valueAt(effect.amount, at) }]];
  }
}
