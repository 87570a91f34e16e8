import * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { plain } from '../shots';

const settings = z.object({
  what: z.enum(['hits', 'texture']),
  strength: z.number().check(z.minimum(1), z.maximum(100)),
});

/** Light that strikes on the beat, or a texture laid over the picture. */
export const lightHits: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'light-hits',
  title: 'Overlay and light hits',
  settings,
  start: { what: 'hits', strength: 34 },
  fields: {
    what: choice('What is laid over', { hits: 'light that strikes on the beat', texture: 'a texture' }),
    strength: number('Strength', '%', 1, 100),
  },
  sayFilm: () => ['Over it lies ', { field: 'what' }, ' at ', { field: 'strength' }, '.'],
  film: ({ what }, footing) =>
    plain(
      what === 'texture'
        ? [
            {
              key: 'texture',
              what: 'still',
              title: 'Texture',
              note: 'A surface lit from the side, out of focus, in the dark: dust, cloth, water on glass.',
              seconds: Math.ceil(footing.seconds + 2 * footing.handle),
              speed: 1,
              takes: 1,
              same: [],
            },
          ]
        : [],
      {
        cautions: what === 'hits' ? ['flashing'] : [],
        risk: 0,
        saving: 'Light that an effect gives off must fall on everything near it, copies included.',
        energy: 0.6,
      },
    ),
};
