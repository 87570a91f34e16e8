import { followedPoints, tapsToFollow } from '../follow-point';
import type { Recipe, Sentence, View } from '../recipe';
import { buildCover, coverAnchors, coverFrames, patchOf, type CoverMoment } from './build';
import { examineCover } from './examine';
import { explainCover } from './explain';
import { coverFilm } from './film';
import { patchAlong } from './follow';
import { wholeCover } from './settings';
import { coverSlots, patchSlot, swapSlot } from './slots';
import { coverWords } from './words';
import { coverWorks } from './works';
import type { Point } from '../../geometry/size';

/** The moment in a sentence; each quantity is edited where it stands. */
const sayCover = (moment: CoverMoment): Sentence => [
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
  tapsToFollow(moment, swapSlot.key).length > 0
    ? ' soft, goes along with what is tapped and hides it until '
    : ' soft, hides the object until ',
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
  holds: true,
  runsOn: true,
  pairs: () => ({ slots: [swapSlot, patchSlot], by: ['lock', 'light'] }),
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
  landing: (moment, ruler, material) => {
    const { start, lands } = coverFrames(moment, ruler);
    const span = { from: start, until: lands + 1 };
    const keys = patchAlong(moment, patchOf(moment), ruler, material, span);
    return { who: 'what was hidden', at: middleOf(keys[keys.length - 1].ring) };
  },
  slotAt: () => null,
  followed: (moment, { project }, material, slot) => followedPoints(moment, material, slot, project),
  works: coverWorks,
  build: buildCover,
  examine: examineCover,
  words: coverWords,
  explain: explainCover,
};
