import * as z from 'zod/mini';
import { number, type FilmRecipe } from '../film';
import { plain } from '../shots';

const settings = z.object({
  perSecond: z.number().check(z.minimum(0.2), z.maximum(12)),
  strength: z.number().check(z.minimum(1), z.maximum(100)),
});

/** Flashes between shots, or a flicker over them. */
export const flash: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'flash',
  title: 'Flash and flicker',
  settings,
  // Starting strength below a tenth of relative luminance: WCAG 2.2, general flash threshold.
  start: { perSecond: 2, strength: 9 },
  fields: {
    perSecond: number('Flashes a second', '', 0.2, 12, 0.1),
    strength: number('Strength', '%', 1, 100),
  },
  sayFilm: () => [
    { field: 'perSecond' },
    ' flashes a second at ',
    { field: 'strength' },
    ' strength, over pictures that are filmed anyway.',
  ],
  film: ({ perSecond, strength }) =>
    plain([], {
      cautions: ['flashing'],
      // More than three flashes a second of a tenth or more: WCAG 2.2, 2.3.1.
      risk: perSecond > 3 && strength >= 10 ? 3 : 0,
      saving: 'Stay at three flashes a second or under a tenth of full strength.',
      energy: 0.9,
    }),
};
