import * as z from 'zod/mini';
import { choice, type FilmRecipe } from '../film';
import { action, plain } from '../shots';

const settings = z.object({ direction: z.enum(['left', 'right', 'up', 'down']) });

/** Two swings of the camera, joined where both are nothing but blur. */
export const cameraWhip: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'camera-whip',
  title: 'Camera whip',
  settings,
  start: { direction: 'right' },
  fields: {
    direction: choice('Direction', {
      left: 'to the left',
      right: 'to the right',
      up: 'upwards',
      down: 'downwards',
    }),
  },
  sayFilm: () => ['The camera swings ', { field: 'direction' }, ' out of one shot and into the next.'],
  film: (_, footing) =>
    plain(
      [
        action(
          'out',
          'Swing out',
          'Swing past the end of the action, not up to it. Keep the speed.',
          { seconds: footing.seconds / 2, footing },
          { takes: 5, same: [] },
        ),
        action(
          'in',
          'Swing in',
          'Same direction, same speed, come to rest on the subject.',
          { seconds: footing.seconds / 2, footing },
          { takes: 5, same: ['direction', 'speed of the move'], second: true },
        ),
        action(
          'spare',
          'Spare whip',
          'One more over a plain surface, for anywhere in the film.',
          { seconds: 1, footing },
          { takes: 2, same: ['direction'] },
        ),
      ],
      {
        joins: ['the fastest frame of both swings'],
        kit: ['tripod with a free head'],
        risk: 2,
        saving: 'Swing too far rather than too little: a whip that stops early cannot be joined.',
        energy: 1,
        travel: 4,
      },
    ),
};
