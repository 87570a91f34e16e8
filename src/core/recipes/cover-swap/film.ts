import type * as z from 'zod/mini';
import { number, type FilmRecipe } from '../film';
import { action, lockedKit, lockedUntouched, plain, plates, wildSound } from '../shots';
import { coverSchema, emptyCover } from './settings';

/** A piece of the plate hides an object until it is swapped for another. */
export const coverFilm: FilmRecipe<z.infer<typeof coverSchema>> = {
  kind: 'cover-swap',
  title: 'Cover swap',
  settings: coverSchema,
  start: emptyCover,
  fields: {
    objects: number('How many are swapped', '', 1, 12),
    frames: number('Each swap takes', 'frames', 1, 120),
    soft: number('The edge of the patch is soft by', 'px', 0, 400, 1, 'hard'),
  },
  sayFilm: () => [
    'A piece of the plate hides ',
    { field: 'objects' },
    ' thing(s); each swap takes ',
    { field: 'frames' },
    '.',
  ],
  film: ({ objects, frames }, footing) =>
    plain(
      [
        ...plates(footing.seconds + 2 * footing.handle),
        {
          ...action(
            'patch',
            'Patch: the object untouched',
            'The picture that later hides the swap. Do not touch the object.',
            { seconds: 4, footing },
            { after: ['first-plate'], takes: 1 },
          ),
          what: 'patch',
        },
        action(
          'swap',
          'The swap',
          'Hands leave the frame before and after; objects stand on their tape.',
          { seconds: footing.seconds, footing },
          {
            straightAfter: 'patch',
            dressing: true,
            same: ['camera', 'lens', 'exposure', 'light', 'objects'],
          },
        ),
        wildSound('swap', 'the swap'),
      ],
      {
        untouched: [...lockedUntouched, 'everything round the object'],
        joins: ['round the object, over plain surfaces'],
        kit: [...lockedKit, 'small tape for floor marks'],
        props: ['object and its replacement, close in colour'],
        cautions: ['lights'],
        risk: 2,
        mess: 1,
        mask: Math.min(1, (objects * frames) / footing.frames),
        mend: 0,
        saving: 'Give object and replacement one colour that is already on the set.',
        energy: 0.3,
      },
    ),
};
