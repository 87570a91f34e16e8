import * as z from 'zod/mini';
import { choice, type FilmRecipe } from '../film';
import { overPlate } from '../shots';

const settings = z.object({ way: z.enum(['vanishes', 'appears']), at: z.enum(['once', 'beam']) });

/** Somebody vanishes from the picture, or appears in it. */
export const vanish: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'vanish',
  title: 'Vanish and appear',
  settings,
  start: { way: 'vanishes', at: 'once' },
  fields: {
    way: choice('What the performer does', { vanishes: 'vanishes', appears: 'appears' }),
    at: choice('How', { once: 'at once', beam: 'in a glow' }),
  },
  sayFilm: () => ['The performer ', { field: 'way' }, ' ', { field: 'at' }, '.'],
  film: ({ at }, footing) =>
    overPlate(
      {
        key: 'there',
        title: 'With the performer in it',
        note: 'Hold the pose where it happens for four seconds.',
        least: 4,
      },
      footing,
      {
        joins: ['the whole frame: plate against take'],
        cautions: ['lights'],
        mask: at === 'beam' ? Math.min(1, 24 / footing.frames) : 0,
        saving: 'Film the plate within the same minute, so that light and leaves match.',
        energy: 0.5,
      },
    ),
};
