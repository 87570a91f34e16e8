import * as z from 'zod/mini';
import { number, type FilmRecipe } from '../film';
import { action, lockedKit, lockedUntouched, plain, plates } from '../shots';

const settings = z.object({ things: z.int().check(z.minimum(1), z.maximum(12)) });

/** Something cut out of its shot flies through another. */
export const flyingCutout: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'flying-cutout',
  title: 'Flying cut-out',
  settings,
  start: { things: 1 },
  fields: { things: number('How many fly', '', 1, 12) },
  sayFilm: () => [{ field: 'things' }, ' cut-out(s) fly through the picture.'],
  film: ({ things }, footing) =>
    plain(
      [
        ...plates(footing.seconds + 2 * footing.handle),
        ...Array.from({ length: things }, (_, index) =>
          action(
            `thing-${index + 1}`,
            `Cut-out ${index + 1} before a plain screen`,
            'Lit from the side that it will fly past; screen colour furthest from its own.',
            { seconds: 3, footing },
            { after: ['first-plate'], same: ['light', 'exposure'], takes: 2 },
          ),
        ),
      ],
      {
        untouched: lockedUntouched,
        kit: [...lockedKit, 'key screen', 'lamp for the screen'],
        cautions: ['lights', 'rigging'],
        risk: 1,
        mend: 0.05,
        saving: 'Choose the screen colour on the Numbers page; keep the edge free of its spill.',
        energy: 0.7,
        travel: 1.5,
      },
    ),
};
