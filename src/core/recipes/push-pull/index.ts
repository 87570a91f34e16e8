import * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { action, plain } from '../shots';

const settings = z.object({
  way: z.enum(['in', 'out']),
  near: z.number().check(z.minimum(0.3), z.maximum(20)),
  far: z.number().check(z.minimum(0.4), z.maximum(40)),
});

/** The camera moves one way while the picture zooms the other: the background bends. */
export const pushPull: FilmRecipe<z.infer<typeof settings>> = {
  kind: 'push-pull',
  title: 'Push-pull',
  settings,
  start: { way: 'in', near: 1.5, far: 3 },
  fields: {
    way: choice('The camera moves', { in: 'in', out: 'out' }),
    near: number('Nearest to the subject', 'm', 0.3, 20, 0.1),
    far: number('Furthest from the subject', 'm', 0.4, 40, 0.1),
  },
  sayFilm: () => [
    'The camera moves ',
    { field: 'way' },
    ' between ',
    { field: 'near' },
    ' and ',
    { field: 'far' },
    ' while the picture zooms against it.',
  ],
  film({ near, far }, footing) {
    // The subject's height in the frame goes with 1 / distance; the picture's scale is that ratio.
    const scale = Math.max(1, Math.max(near, far) / Math.min(near, far));
    return plain(
      [
        action(
          'push',
          'The move',
          'Even speed, subject in the middle and still; measure its height in the frame at both ends.',
          { seconds: footing.seconds, footing },
          { takes: 5, same: ['exposure', 'light'] },
        ),
      ],
      {
        kit: ['slider, dolly or a smooth floor', 'tape measure'],
        cautions: ['lights'],
        risk: 2,
        draws: [{ name: 'push-pull', scale }],
        saving: 'Layered background, closer subject, faster move. A flat scene gives nothing.',
        energy: 0.6,
        travel: 0.2,
      },
    );
  },
};
