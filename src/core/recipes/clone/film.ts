import type { Shadows } from '../../footage/seam-task';
import { furtherOf, mostCopies } from './copies';
import { cloneSchema, emptyClone, type CloneSettings } from './settings';
import { choice, number, type FilmRecipe, type Filming, type Footing } from '../film';
import { action, lockedKit, lockedSame, lockedUntouched, plain, plates, wildSound } from '../shots';

type CloneWay = 'meet' | 'contact' | 'shared' | 'mirror';

const ways: Record<CloneWay, string> = {
  meet: 'meets a copy',
  contact: 'touches the copy',
  shared: 'hands an object to the copy',
  mirror: 'is answered out of a mirror',
};

const shadowWays: Record<Shadows, string> = { kept: 'kept', hidden: 'hidden' };

const notes: Record<CloneWay, string> = {
  meet: 'Stay in your own zone; look at where the other one will be.',
  contact: 'Aim at an imagined copy of the same height. Film closer, further, straighter, lower.',
  shared: 'Put the object down where the other one takes it up, and do not touch it again.',
  mirror: 'Hold the pose in silence for the length of the answer, before and after each line.',
};

const furtherNote = 'Stand where none of the others stands or passes; look at where they will be.';

/** A touch has to meet a copy that is not there: one of these will fit. Common practice, no published source. */
const contactVariations = ['closer', 'further', 'straighter', 'lower'] as const;

/** Frames in which a limb crosses the join, as a share of the moment. Common practice, no published source. */
const crossing: Record<CloneWay, number> = { meet: 0, contact: 0.12, shared: 0.08, mirror: 0.02 };

function film(settings: CloneSettings, footing: Footing): Filming {
  const { way = 'meet' } = settings;
  const { seconds } = footing;
  const held = way === 'mirror' ? seconds * 2 : seconds;
  const takes = way === 'contact' ? 6 : 3;
  const length = { seconds: held, footing };
  return plain(
    [
      ...plates(seconds + 2 * footing.handle),
      action('left', 'Left: first role', notes[way], length, { takes, after: ['first-plate'] }),
      action('right', 'Right: the copy', notes[way], length, {
        takes,
        ...(way === 'contact' ? { variations: contactVariations } : {}),
        same: way === 'contact' ? [...lockedSame, 'eye height'] : lockedSame,
        ...(way === 'shared' ? { straightAfter: 'left' } : { after: ['left'] }),
      }),
      ...furtherOf({ settings }).map(({ key, title }) =>
        action(key, `${title[0].toUpperCase()}${title.slice(1)}`, furtherNote, length, {
          takes: 3,
          after: ['right'],
        }),
      ),
      ...(way === 'contact' || way === 'shared'
        ? [wildSound('touch', way === 'shared' ? 'the object' : 'the touch')]
        : []),
    ],
    {
      untouched: [...lockedUntouched, ...(way === 'shared' ? ['the object between both parts'] : [])],
      joins: ['an edge between both zones: door frame, cabinet, corner of a wall'],
      kit: lockedKit,
      props: way === 'shared' ? ['the object that changes hands'] : way === 'mirror' ? ['mirror'] : [],
      cautions: way === 'contact' ? ['contact', 'lights'] : ['lights'],
      risk: way === 'meet' ? 1 : way === 'mirror' ? 2 : 3,
      mask: way === 'meet' ? 0 : crossing[way] * 2,
      mend: crossing[way],
      saving:
        'Keep hands on their own side until the touch itself; soft light hides what a rough mask leaves.',
      energy: 0.4,
      ...(way === 'contact' || way === 'shared' ? { touching: true } : {}),
    },
  );
}

/** A performer meets a copy of themself. */
export const cloneFilm: FilmRecipe<CloneSettings> = {
  kind: 'clone',
  title: 'Clone',
  called: 'Meets a copy',
  settings: cloneSchema,
  start: emptyClone,
  fields: {
    way: choice('What happens between them', ways),
    first: choice('Who is there first', { left: 'left', right: 'right' }),
    front: choice('Who is in front', { copy: 'the copy', first: 'who was there first' }),
    shadows: choice('Their shadows on the set', shadowWays),
    copies: number('How many of them', '', 2, mostCopies),
    fade: number('Frames over which the copy appears', 'frames', 0, 96, 1, 'at once'),
    feather: number('Softness of the join', 'px', 0, 200),
  },
  sayFilm: () => ['The performer ', { field: 'way' }, '; there are ', { field: 'copies' }, ' of them.'],
  film,
};
