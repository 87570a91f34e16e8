import * as z from 'zod/mini';
import { choice, type FilmRecipe } from '../film';
import { overPlate } from '../shots';

const settings = z.object({ rest: z.enum(['grey', 'dark', 'blurred', 'frozen']) });

/** One thing keeps its colour, light or movement while the rest loses it. */
export const isolate: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'isolate',
  title: 'Isolate',
  settings,
  start: { rest: 'grey' },
  fields: {
    rest: choice('The rest is', { grey: 'grey', dark: 'dark', blurred: 'blurred', frozen: 'frozen' }),
  },
  sayFilm: () => ['The performer stays as filmed; the rest is ', { field: 'rest' }, '.'],
  film: (_, footing) =>
    overPlate(
      { key: 'take', title: 'The take', note: 'Clothes in a colour that the set does not have.' },
      footing,
      {
        mask: 1,
        mend: 0.05,
        saving: 'A plate, and clothes unlike the set: then nothing is cut out by hand.',
        energy: 0.4,
      },
    ),
};
