import type * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { action, plain } from '../shots';
import { emptyWhip, whipSchema } from './settings';

/** A whip from one picture into the next that the camera never made. */
export const whipFilm: FilmRecipe<z.infer<typeof whipSchema>> = {
  kind: 'built-whip',
  title: 'Built whip',
  settings: whipSchema,
  start: emptyWhip,
  fields: {
    direction: choice('Direction', {
      left: 'to the left',
      right: 'to the right',
      up: 'upwards',
      down: 'downwards',
    }),
    frames: number('The whip takes', 'frames', 4, 60),
    edges: choice('What fills the edges', {
      mirrored: 'filled with mirrored copies',
      scaled: 'hidden by scaling up',
    }),
    blur: number('Blur of the movement', '°', 0, 360, 15, 'no blur'),
  },
  sayFilm: () => [
    'The picture whips ',
    { field: 'direction' },
    ' into the next place over ',
    { field: 'frames' },
    '.',
  ],
  film: (_, footing) =>
    plain(
      [
        action(
          'out',
          'Out of the first place',
          'End the action early and keep still for two seconds; the whip eats the rest.',
          { seconds: footing.seconds / 2, footing },
          { same: [] },
        ),
        action(
          'in',
          'Into the second place',
          'Be still for two seconds, then begin.',
          { seconds: footing.seconds / 2, footing },
          { same: ['direction', 'size in the frame'], second: true },
        ),
      ],
      {
        joins: ['the fastest frame, in the middle of the blur'],
        kit: ['tripod'],
        risk: 1,
        saving: 'Mirrored edges cost nothing; plain edges without people look best mirrored.',
        energy: 0.9,
        travel: 4,
      },
    ),
};
