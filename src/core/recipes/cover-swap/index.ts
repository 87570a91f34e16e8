import type { Recipe, Sentence, View } from '../recipe';
import { buildCover, coverAnchors, patchOf, type CoverMoment } from './build';
import { examineCover } from './examine';
import { explainCover } from './explain';
import { coverFilm } from './film';
import { wholeCover } from './settings';
import { coverSlots, patchSlot, swapSlot } from './slots';
import { coverWords } from './words';
import { coverWorks } from './works';
import type { Point } from '../../geometry/size';

/** The moment in a sentence; each quantity is edited where it stands. */
const sayCover = (): Sentence => [
  'From ',
  { anchor: 'start' },
  ' to ',
  { anchor: 'end' },
  ' shows ',
  { slot: swapSlot.key, part: 'take', dye: swapSlot.dye },
  ' from ',
  { slot: swapSlot.key, part: 'start', dye: swapSlot.dye },
  '. A patch of ',
  { slot: patchSlot.key, part: 'take', dye: patchSlot.dye },
  ' at ',
  { slot: patchSlot.key, part: 'start', dye: patchSlot.dye },
  ', ',
  { field: 'soft' },
  ' soft, hides the object until ',
  { anchor: 'lands', dye: patchSlot.dye },
  ' and goes over ',
  { field: 'frames' },
  '.',
];

const views: View[] = [
  { id: 'whole', title: 'Covered' },
  { id: swapSlot.key, title: 'The swap', alone: swapSlot.key },
  { id: 'patch-outline', title: 'Patch', outline: true },
];

const middleOf = (ring: readonly Point[]): Point => [
  ring.reduce((sum, [x]) => sum + x, 0) / ring.length,
  ring.reduce((sum, [, y]) => sum + y, 0) / ring.length,
];

/** A piece of the empty set hides an object until its beat. */
export const coverSwap: Recipe<CoverMoment> = {
  ...coverFilm,
  slots: coverSlots,
  runsOn: true,
  suggests: () => swapSlot.key,
  anchors: coverAnchors,
  sounds: (anchor) => (anchor === 'lands' ? { sound: 'click', by: 'loudest' } : null),
  showsFrom: ({ start }) => start,
  ofTakes: {},
  say: sayCover,
  views,
  outline: (moment) => ({
    title: 'the patch',
    setting: 'patch',
    rings: [patchOf(moment)],
    state: wholeCover(moment.settings).patch ? 'drawn' : 'guessed',
  }),
  landing: (moment) => ({ who: 'what was hidden', at: middleOf(patchOf(moment)) }),
  slotAt: () => null,
  works: coverWorks,
  build: buildCover,
  examine: examineCover,
  words: coverWords,
  explain: explainCover,
};
