import * as z from 'zod/mini';
import { number, type FilmRecipe } from '../film';
import { action, plain } from '../shots';

const settings = z.object({ panels: z.int().check(z.minimum(2), z.maximum(9)) });

/** The frame splits into panels, each with its own shot. */
export const splitScreen: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'split-screen',
  title: 'Split screen',
  settings,
  start: { panels: 3 },
  fields: { panels: number('Panels', '', 2, 9) },
  sayFilm: () => ['The frame splits into ', { field: 'panels' }, ' panels.'],
  film: ({ panels }, footing) =>
    plain(
      Array.from({ length: panels }, (_, index) =>
        action(
          `panel-${index + 1}`,
          `Panel ${index + 1}`,
          'Keep the action in the middle third: the sides are cut away.',
          { seconds: footing.seconds, footing },
          { same: index === 0 ? [] : ['exposure', 'light'], takes: 2 },
        ),
      ),
      {
        joins: ['the straight edges of the panels'],
        kit: ['tripod'],
        risk: 1,
        // A panel shows a part of a frame whose height fills it: nothing is enlarged.
        draws: [],
        energy: 0.8,
      },
    ),
};
