import * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { plain } from '../shots';

const settings = z.object({
  way: z.enum(['creep', 'orbit']),
  scale: z.number().check(z.minimum(100), z.maximum(200)),
});

/** A still picture grows slowly, or words go round a circle. */
export const creepOrbit: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'creep-orbit',
  title: 'Creep and orbit',
  settings,
  // 100 to 110 %: CRAFT.md, title creep.
  start: { way: 'creep', scale: 110 },
  fields: {
    way: choice('What it does', { creep: 'grows', orbit: 'goes round' }),
    scale: number('Up to', '%', 100, 200),
  },
  sayFilm: () => ['A still ', { field: 'way' }, ', up to ', { field: 'scale' }, '.'],
  film: ({ scale }, footing) =>
    plain(
      [
        {
          key: 'still',
          what: 'still',
          title: 'Still, or a clip to take it from',
          note: 'Sharp, at full size; finish colour before it is taken from a clip.',
          seconds: Math.ceil(2 * footing.handle),
          speed: 1,
          takes: 2,
          same: [],
        },
      ],
      { draws: [{ name: 'creep', scale: scale / 100 }], risk: 0, energy: 0.2, travel: 0.01 },
    ),
};
