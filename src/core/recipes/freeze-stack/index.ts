import * as z from 'zod/mini';
import { number, type FilmRecipe } from '../film';
import { action, lockedKit, lockedUntouched, plain, plates } from '../shots';

const settings = z.object({
  pieces: z.int().check(z.minimum(2), z.maximum(24)),
  turn: z.number().check(z.minimum(0), z.maximum(360)),
});

/** A pose is frozen and built up from pieces on the beat. */
export const freezeStack: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'freeze-stack',
  title: 'Freeze stack',
  settings,
  // 35° of turn: CRAFT.md, starting values of the freeze piece.
  start: { pieces: 4, turn: 35 },
  fields: { pieces: number('Pieces', '', 2, 24), turn: number('Each piece turns', '°', 0, 360) },
  sayFilm: () => [
    'The pose is frozen and built from ',
    { field: 'pieces' },
    ' pieces that turn ',
    { field: 'turn' },
    ' as they land.',
  ],
  film: ({ pieces }, footing) =>
    plain(
      [
        ...plates(6),
        action(
          'pose',
          'The pose',
          'Hold it for three seconds, limbs clear of the body, nothing of you over the frame edge.',
          { seconds: 3, footing },
          { after: ['first-plate'], takes: 4 },
        ),
      ],
      {
        untouched: lockedUntouched,
        joins: ['along the outline of each piece'],
        kit: lockedKit,
        cautions: ['lights'],
        risk: 1,
        mask: 0,
        mend: Math.min(1, pieces / footing.frames),
        saving: 'A plain background behind the pose; limbs apart, so that each piece has its own outline.',
        energy: 0.7,
        draws: [{ name: 'shake on landing', scale: 1.03 }],
        travel: 1,
      },
    ),
};
