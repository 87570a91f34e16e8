import type * as z from 'zod/mini';
import { choice, number, type FilmRecipe } from '../film';
import { action, lockedKit, lockedSame, lockedUntouched, plain, plates, wildSound } from '../shots';
import { emptyReveal, revealSchema } from './settings';
import { beforeSlot, fallsField, fallSlot } from './slots';

/** Something changes behind an edge that crosses the picture. */
export const revealFilm: FilmRecipe<z.infer<typeof revealSchema>> = {
  kind: 'masked-reveal',
  title: 'Masked reveal',
  settings: revealSchema,
  start: emptyReveal,
  fields: {
    edge: choice('What the change follows', {
      line: 'a line',
      circle: 'a circle',
      falling: 'something that falls',
      drawn: 'a drawn shape',
    }),
    follows: choice('The drawn shape', {
      nothing: 'stays where it is drawn',
      before: 'goes with what lies under it before',
      after: 'goes with what lies under it after',
    }),
    frames: number('The change takes', 'frames', 1, 240),
    angle: number('The edge moves towards', '°', 0, 345, 15),
    fast: number('Speed while it changes', '%', 50, 400, 10),
    closer: number('Closer after it', '%', 0, 200, 5, 'as it is'),
    ...Object.fromEntries(
      [beforeSlot, fallSlot].map(({ key, title }) => [
        fallsField(key),
        { kind: 'instant', label: `It begins to fall in the ${title}`, slot: key } as const,
      ]),
    ),
    soft: number('The edge is soft by', 'px', 0, 400, 1, 'hard'),
    across: number('Middle of the circle, across', '%', 0, 100, 1),
    down: number('Middle of the circle, down', '%', 0, 100, 1),
  },
  sayFilm: () => ['The performer changes behind ', { field: 'edge' }, ' over ', { field: 'frames' }, '.'],
  film({ edge, frames }, footing) {
    const { seconds } = footing;
    const falls = edge === 'falling';
    const same = [...lockedSame, 'feet' as const];
    return plain(
      [
        ...plates(seconds + 2 * footing.handle),
        action(
          'before',
          'Before the change',
          'Stand on the taped feet and hold still at the end.',
          { seconds, footing },
          { same, clothes: 'first', after: ['first-plate'] },
        ),
        action(
          'after',
          'After the change',
          'The shoes stayed in place: stand in them, take up the same pose.',
          { seconds, footing },
          { same, clothes: 'second', after: ['before'] },
        ),
        ...(falls
          ? [
              action(
                'fall',
                'What falls',
                'It must pass in front of the performer as the camera sees it. Rehearse dry.',
                { seconds: Math.min(seconds, 3), footing },
                { takes: 3, undoable: false, clothes: 'second', after: ['after'] },
              ),
              wildSound('fall', 'the fall'),
            ]
          : []),
      ],
      {
        untouched: [...lockedUntouched, 'the shoes on the floor'],
        joins: falls ? ['the falling edge itself'] : ['anywhere: the edge moves over the whole picture'],
        kit: [...lockedKit, ...(falls ? ['sheet for the floor', 'broom'] : [])],
        props: ['second clothes', ...(falls ? ['what falls, enough for every take'] : [])],
        cautions: falls ? ['matter', 'rigging', 'lights'] : ['lights'],
        risk: falls ? 3 : 2,
        mess: falls ? 3 : 0,
        mask: frames / footing.frames,
        mend: falls ? frames / footing.frames / 2 : 0,
        saving: 'Stand stiller: what moves between both takes has to be mended frame by frame.',
        energy: 0.5,
        travel: falls ? 1.5 : 0,
      },
    );
  },
};
