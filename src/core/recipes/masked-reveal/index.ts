import type { Recipe, Sentence, View } from '../recipe';
import { buildReveal, revealAnchors, type RevealMoment } from './build';
import { examineReveal } from './examine';
import { explainReveal } from './explain';
import { revealFilm } from './film';
import { beforeSlot, revealedSlot, revealSlots } from './slots';
import { revealWords } from './words';

/** The moment in a sentence; each quantity is edited where it stands. */
function sayReveal({ settings }: RevealMoment): Sentence {
  const into = revealedSlot(settings);
  const at: Record<RevealMoment['settings']['edge'], Sentence> = {
    line: [', moving towards ', { field: 'angle' }, ' (0° right, 90° down)'],
    circle: [', from ', { field: 'across' }, ' across and ', { field: 'down' }, ' down'],
    falling: [],
  };
  return [
    'From ',
    { anchor: 'start' },
    ' shows ',
    { slot: beforeSlot.key, part: 'take', dye: beforeSlot.dye },
    ' from ',
    { slot: beforeSlot.key, part: 'start', dye: beforeSlot.dye },
    '. On ',
    { anchor: 'lands', dye: into.dye },
    ' it begins to change behind ',
    { field: 'edge' },
    ...at[settings.edge],
    ', over ',
    { field: 'frames' },
    ', into ',
    { slot: into.key, part: 'take', dye: into.dye },
    ' from ',
    { slot: into.key, part: 'start', dye: into.dye },
    ', until ',
    { anchor: 'end' },
    '. The edge is ',
    { field: 'soft' },
    ' soft.',
  ];
}

const views: View[] = [
  { id: 'whole', title: 'Reveal' },
  { id: beforeSlot.key, title: 'Before', alone: beforeSlot.key },
];

/** Something changes behind an edge that crosses the picture: two takes of one locked camera. */
export const maskedReveal: Recipe<RevealMoment> = {
  ...revealFilm,
  slots: revealSlots,
  slotsIn: ({ settings }) => [revealSlots[0], beforeSlot, revealedSlot(settings)],
  suggests: () => beforeSlot.key,
  anchors: revealAnchors,
  sounds: (anchor) => (anchor === 'lands' ? { sound: 'cloth', by: 'start' } : null),
  showsFrom: ({ start, lands }, slot) => (slot === beforeSlot.key ? start : lands),
  ofTakes: {},
  say: sayReveal,
  views,
  outline: () => null,
  landing: ({ settings: { edge, across = 50, down = 50 } }) => ({
    who: 'the change',
    at: edge === 'circle' ? [across / 100, down / 100] : [0.5, 0.5],
  }),
  slotAt: () => null,
  works: () => [],
  build: buildReveal,
  examine: examineReveal,
  words: revealWords,
  explain: explainReveal,
};
