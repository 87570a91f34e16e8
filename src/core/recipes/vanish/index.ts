import { z } from 'zod';
import { choice, type FilmRecipe } from '../film';
import { action, lockedKit, lockedUntouched, plain, plates } from '../shots';

const settings = z.object({ way: z.enum(['vanishes', 'appears']), at: z.enum(['once', 'beam']) });

/** Somebody vanishes from the picture, or appears in it. */
export const vanish: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'vanish',
  title: 'Vanish and appear',
  settings,
  start: { way: 'vanishes', at: 'once' },
  fields: {
    way: choice('What she does', { vanishes: 'vanishes', appears: 'appears' }),
    at: choice('How', { once: 'at once', beam: 'in a glow' }),
  },
  sayFilm: () => ['She ', { field: 'way' }, ' ', { field: 'at' }, '.'],
  film: ({ at }, footing) =>
    plain(
      [
        ...plates(footing.seconds + 2 * footing.handle),
        action(
          'there',
          'With her in it',
          'Hold the pose where it happens for four seconds.',
          { seconds: Math.max(footing.seconds, 4), footing },
          { after: ['first-plate'] },
        ),
      ],
      {
        untouched: lockedUntouched,
        joins: ['the whole frame: plate against take'],
        kit: lockedKit,
        cautions: ['lights'],
        risk: 1,
        mask: at === 'beam' ? Math.min(1, 24 / footing.frames) : 0,
        saving: 'Film the plate within the same minute, so that light and leaves match.',
        energy: 0.5,
      },
    ),
};
