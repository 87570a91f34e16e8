import * as z from 'zod/mini';
import { choice, type FilmRecipe } from '../film';
import { action, lockedKit, lockedUntouched, plain, plates, wildSound } from '../shots';

const settings = z.object({ way: z.enum(['take-off', 'landing', 'both']) });

/** A jump that does not come down, or a landing out of nowhere. */
export const takeOff: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'take-off',
  title: 'Take-off and landing',
  settings,
  start: { way: 'both' },
  fields: {
    way: choice('What is seen', {
      'take-off': 'a take-off',
      landing: 'a landing',
      both: 'a take-off and a landing',
    }),
  },
  sayFilm: () => ['There is ', { field: 'way' }, '.'],
  film({ way }, footing) {
    const fast = { seconds: 2, speed: 2, footing };
    return plain(
      [
        ...plates(footing.seconds + 2 * footing.handle),
        ...(way === 'landing'
          ? []
          : [
              action(
                'up',
                'Jump: the way up',
                'Push off hard and straight; feet leave the floor on the mark.',
                fast,
                { after: ['first-plate'], takes: 5 },
              ),
            ]),
        ...(way === 'take-off'
          ? []
          : [
              action(
                'down',
                'Landing in a strong pose',
                'Step off something low, land on the mark and hold.',
                fast,
                { after: ['first-plate'], takes: 5 },
              ),
            ]),
        wildSound('floor', 'push-off and landing'),
      ],
      {
        untouched: lockedUntouched,
        joins: ['round the whole body, in the air'],
        kit: [...lockedKit, 'mat out of frame'],
        cautions: ['heights', 'lights'],
        risk: 3,
        mask: 2 / footing.frames,
        mend: Math.min(1, 4 / footing.frames),
        saving: 'Nothing but wall and floor behind the jump: only four frames are cut out.',
        energy: 0.9,
        draws: [{ name: 'ground shake', scale: 1.04 }],
        travel: 3,
      },
    );
  },
};
