import * as z from 'zod/mini';
import { scaleForShift } from '../../camera/reserve';
import { choice, number, type FilmRecipe } from '../film';
import { plain, wildSound } from '../shots';

const settings = z.object({
  way: z.enum(['hit', 'handheld']),
  strength: z.number().check(z.minimum(0.2), z.maximum(10)),
});

/** The picture shakes on a hit, or gets a handheld feel. */
export const shake: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'shake',
  title: 'Shake',
  settings,
  // 105 % hides the edges of 2.4 %: CRAFT.md, handheld feel.
  start: { way: 'hit', strength: 2.4 },
  fields: {
    way: choice('What kind', { hit: 'on the hit', handheld: 'as if handheld' }),
    strength: number('How far, of the width', '%', 0.2, 10, 0.2),
  },
  sayFilm: () => [
    'The picture shakes ',
    { field: 'way' },
    ', up to ',
    { field: 'strength' },
    ' of its width.',
  ],
  film: ({ way, strength }) =>
    plain(way === 'hit' ? [wildSound('hit', 'the hit')] : [], {
      risk: 0,
      draws: [{ name: way === 'hit' ? 'shake' : 'handheld feel', scale: scaleForShift(strength, 100) }],
      saving: 'Film above delivery size: the shake then costs no sharpness.',
      energy: 0.8,
      travel: way === 'hit' ? strength / 10 : 0.05,
    }),
};
