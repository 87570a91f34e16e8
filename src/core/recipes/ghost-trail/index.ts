import * as z from 'zod/mini';
import { number, type FilmRecipe } from '../film';
import { overPlate } from '../shots';

const settings = z.object({
  copies: z.int().check(z.minimum(2), z.maximum(40)),
  apart: z.int().check(z.minimum(1), z.maximum(30)),
});

/** Fading copies follow a movement. */
export const ghostTrail: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'ghost-trail',
  title: 'Ghost trail',
  settings,
  // 15 copies, one frame apart: CRAFT.md, starting values.
  start: { copies: 15, apart: 1 },
  fields: { copies: number('Copies', '', 2, 40), apart: number('Apart', 'frames', 1, 30) },
  sayFilm: () => [
    { field: 'copies' },
    ' fading copies follow the performer, ',
    { field: 'apart' },
    ' apart.',
  ],
  film: (_, footing) =>
    overPlate(
      {
        key: 'move',
        title: 'The movement',
        note: 'Move across the frame, not towards the camera; nothing swings behind you.',
      },
      footing,
      {
        mask: 1,
        saving: 'A plate and a plain background: then the cut-out is found by itself.',
        energy: 0.7,
        travel: 0.5,
      },
    ),
};
