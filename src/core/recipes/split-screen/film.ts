import type * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { action, plain } from '../shots';
import { emptySplit, mostPanels, splitSchema } from './settings';
import { panelSlots, pushedField } from './slots';

/** The frame splits into panels, each with its own shot. */
export const splitFilm: FilmRecipe<z.infer<typeof splitSchema>> = {
  kind: 'split-screen',
  title: 'Split screen',
  settings: splitSchema,
  start: emptySplit,
  fields: {
    panels: number('Panels', '', 2, mostPanels),
    cut: choice('How the frame is cut', { columns: 'columns', rows: 'rows', grid: 'rows of panels' }),
    lean: number('The cuts lean', '°', -30, 30, 1, 'not at all'),
    gutter: number('Between two panels', 'px', 0, 200, 1, 'nothing'),
    ...Object.fromEntries(
      panelSlots.map((_, index) => [
        pushedField(index + 1),
        number(`Picture of panel ${index + 1} pushed aside`, '%', -100, 100, 5, 'in the middle'),
      ]),
    ),
  },
  sayFilm: () => ['The frame splits into ', { field: 'panels' }, ' panels.'],
  film: ({ panels }, footing) =>
    plain(
      panelSlots
        .slice(0, panels)
        .map(({ key }, index) =>
          action(
            key,
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
