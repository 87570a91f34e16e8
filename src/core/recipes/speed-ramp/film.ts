import type * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { action, plain } from '../shots';
import { emptyRamp, mostPoses, rampSchema } from './settings';
import { instantField, passSlot } from './slots';

/** Time bends round poses: slow on them, fast between. */
export const rampFilm: FilmRecipe<z.infer<typeof rampSchema>> = {
  kind: 'speed-ramp',
  title: 'Speed ramp',
  settings: rampSchema,
  start: emptyRamp,
  fields: {
    slow: number('Speed on poses', '%', 5, 100, 5),
    fast: number('Speed between', '%', 100, 1000, 25),
    poses: number('Poses', '', 1, mostPoses),
    ease: number('The speed changes over', '%', 0, 100, 5, 'nothing: it steps'),
    zoom: number('Zoom on every other pose', '%', 0, 200, 5, 'nothing'),
    lacking: choice('Where pictures are lacking', {
      repeats: 'shows one twice',
      blends: 'blends two',
      moves: 'makes one along what moves',
    }),
    ...Object.fromEntries(
      Array.from({ length: mostPoses }, (_, index) => [
        instantField(index + 1),
        { kind: 'instant', label: `Pose ${index + 1} in the take`, slot: passSlot.key } as const,
      ]),
    ),
  },
  sayFilm: () => [
    'Time runs at ',
    { field: 'slow' },
    ' on ',
    { field: 'poses' },
    ' poses and at ',
    { field: 'fast' },
    ' between them.',
  ],
  film({ slow, fast, poses }, footing) {
    // Half of the time is spent on poses: footage of both halves, at their speeds.
    const seconds = (footing.seconds / 2) * (slow / 100 + fast / 100);
    return plain(
      [
        {
          ...action(
            'pass',
            'Pose, move, pose',
            'Stand still while the camera rests; change pose while it moves. Rehearse the path.',
            { seconds, footing },
            { takes: 5, same: ['exposure', 'light'] },
          ),
          speed: slow / 100,
        },
      ],
      {
        kit: ['gimbal or steady hands'],
        risk: 2,
        draws: [
          { name: 'steadying', scale: 1.1 },
          { name: 'following', scale: 1.08 },
        ],
        saving: `Leave room round the performer: steadying and following eat the edges of ${poses === 1 ? 'its pose' : poses === 2 ? 'both poses' : `all ${poses} poses`}.`,
        energy: 0.9,
        travel: 1.5,
      },
    );
  },
};
