import type * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { action, lockedKit, lockedUntouched, plain, plates, wildSound } from '../shots';
import { emptyLeap, leapSchema } from './settings';
import { downSlot, upSlot } from './slots';

/** A jump that does not come down, or a landing out of nowhere. */
export const leapFilm: FilmRecipe<z.infer<typeof leapSchema>> = {
  kind: 'take-off',
  title: 'Take-off and landing',
  settings: leapSchema,
  start: emptyLeap,
  fields: {
    way: choice('What is seen', {
      'take-off': 'a take-off',
      landing: 'a landing',
      both: 'a take-off and a landing',
      raised: 'a jump that is higher than it was',
    }),
    streak: number('The streak takes', 'frames', 1, 8),
    push: number('Push-off and landing take', 'frames', 0, 60),
    fast: number('They run at', '%', 25, 800, 5),
    raise: number('It is higher by', '%', 1, 100, 1),
    shake: number('The ground shakes by', 'px', 0, 100, 1, 'nothing'),
    left: { kind: 'instant', label: 'The last picture in the air', slot: upSlot.key },
    met: { kind: 'instant', label: 'The picture in which the feet meet the floor', slot: downSlot.key },
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
        ...(way === 'take-off' || way === 'raised'
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
        mask: (way === 'raised' ? 12 : 2) / footing.frames,
        mend: Math.min(1, 4 / footing.frames),
        saving: 'Nothing but wall and floor behind the jump: only four frames are cut out.',
        energy: 0.9,
        draws: [{ name: 'ground shake', scale: 1.04 }],
        travel: 3,
      },
    );
  },
};
