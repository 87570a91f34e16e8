import type * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { action, lockedKit, lockedUntouched, plain, plates } from '../shots';
import { emptyFreeze, freezeSchema, mostPieces } from './settings';
import { instantField, poseSlot } from './slots';

/** A pose is frozen and built up from pieces on the beat. */
export const freezeFilm: FilmRecipe<z.infer<typeof freezeSchema>> = {
  kind: 'freeze-stack',
  title: 'Freeze stack',
  settings: freezeSchema,
  start: emptyFreeze,
  fields: {
    pieces: number('Pieces', '', 2, mostPieces),
    lean: number('The cuts lean', '°', -60, 60, 5, 'not at all'),
    turn: number('Each piece turns', '°', 0, 360),
    size: number('Each piece begins at a size of', '%', 10, 300, 5),
    flight: number('Each piece flies for', 'frames', 1, 120),
    from: choice('The pieces come from', {
      sides: 'both sides in turn',
      above: 'above',
      below: 'below',
      place: 'their own place',
    }),
    shake: number('The picture shakes by', 'px', 0, 100, 1, 'nothing'),
    by: choice('The pose is cut out', {
      plate: 'by the clean plate',
      person: 'by finding the person',
      both: 'by the clean plate and the person',
      backdrop: 'by the colour of its backdrop',
      'backdrop-person': 'by the colour of its backdrop and the person',
    }),
    after: choice('Then the picture', { stands: 'stands', runs: 'runs on' }),
    [instantField]: { kind: 'instant', label: 'The pose in the take', slot: poseSlot.key },
  },
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
