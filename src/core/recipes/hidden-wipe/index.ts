import * as z from 'zod/mini';
import { choice, type FilmRecipe } from '../film';
import { action, plain } from '../shots';

const settings = z.object({ by: z.enum(['fills', 'passes']) });

/** A cut hidden behind something that fills the frame or passes through it, in both shots. */
export const hiddenWipe: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'hidden-wipe',
  title: 'Hidden wipe',
  settings,
  start: { by: 'passes' },
  fields: {
    by: choice('What hides the cut', {
      fills: 'something that fills the frame',
      passes: 'something that passes through the frame',
    }),
  },
  sayFilm: () => ['The cut hides behind ', { field: 'by' }, '.'],
  film({ by }, footing) {
    const passes = by === 'passes';
    const note = passes
      ? 'It crosses the whole frame, close to the lens.'
      : 'Go on until the frame is all one thing.';
    return plain(
      [
        action(
          'out',
          'Into the cover',
          note,
          { seconds: footing.seconds / 2, footing },
          { same: [], takes: 4 },
        ),
        action(
          'in',
          'Out of the cover',
          `${note} The same thing, the same way.`,
          { seconds: footing.seconds / 2, footing },
          { same: ['direction', 'speed of the move'], takes: 4, second: true },
        ),
      ],
      {
        joins: [passes ? 'along the edge of what passes' : 'where the frame is full'],
        props: ['what hides the cut'],
        risk: 2,
        mask: passes ? Math.min(1, 12 / footing.frames) : 0,
        saving: 'Let it fill the frame: then no mask is needed at all.',
        energy: 0.6,
        travel: 2,
      },
    );
  },
};
