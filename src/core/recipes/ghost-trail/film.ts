import type * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { overPlate } from '../shots';
import { emptyGhost, ghostSchema } from './settings';
import { moveSlot } from './slots';

/** Fading copies follow a movement. */
export const ghostFilm: FilmRecipe<z.infer<typeof ghostSchema>> = {
  kind: 'ghost-trail',
  title: 'Ghost trail',
  settings: ghostSchema,
  start: emptyGhost,
  fields: {
    copies: number('Copies', '', 2, 40),
    apart: number('Apart', 'frames', 1, 30),
    first: number('The first copy shows at', '%', 1, 100, 5),
    by: choice('The performer is cut out', {
      plate: 'by the clean plate',
      person: 'by finding the person',
      both: 'by the clean plate and the person',
      backdrop: 'by the colour of the backdrop',
      'backdrop-person': 'by the colour of the backdrop and the person',
    }),
  },
  sayFilm: () => [
    { field: 'copies' },
    ' fading copies follow the performer, ',
    { field: 'apart' },
    ' apart.',
  ],
  film: (_, footing) =>
    overPlate(
      {
        key: moveSlot.key,
        title: 'The movement',
        note: 'Move across the frame, not towards the camera, and come to rest on the beat; nothing swings behind you.',
      },
      footing,
      {
        mask: 1,
        saving:
          'A plate and a plain background: then the cut-out is found at once. Without a plate the person is found picture by picture, which takes longer.',
        energy: 0.7,
        travel: 0.5,
      },
    ),
};
