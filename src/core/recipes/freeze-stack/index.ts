import type { Recipe, Ruler, Sentence, View } from '../recipe';
import {
  buildFreeze,
  cutsOf,
  flightOf,
  freezeAnchors,
  freezeWorks,
  frozenAt,
  piecesOf,
  type FreezeMoment,
} from './build';
import { examineFreeze } from './examine';
import { explainFreeze } from './explain';
import { freezeFilm } from './film';
import { freezeSlots, instantField, pieceAnchor, poseSlot } from './slots';
import { freezeWords } from './words';

/** The moment in a sentence; each quantity is edited where it stands. */
const sayFreeze = (moment: FreezeMoment, ruler: Ruler): Sentence => [
  'From ',
  { anchor: 'start' },
  ' the set is empty. The pose of ',
  { slot: poseSlot.key, part: 'take', dye: poseSlot.dye },
  ' at ',
  { field: instantField, value: frozenAt(moment), dye: poseSlot.dye },
  ' is built from ',
  { field: 'pieces' },
  ' pieces, which come from ',
  { field: 'from' },
  ', turned ',
  { field: 'turn' },
  ' and at ',
  { field: 'size' },
  ' of their size, over ',
  { field: 'flight', value: flightOf(moment, ruler) },
  '. They land on ',
  ...piecesOf(moment).flatMap((piece, index): Sentence => [
    index === 0 ? '' : index === moment.settings.pieces - 1 ? ' and ' : ', ',
    { anchor: pieceAnchor(piece, moment.settings.pieces) },
  ]),
  ', and the picture shakes by ',
  { field: 'shake' },
  '. Then it ',
  { field: 'after' },
  ' until ',
  { anchor: 'end' },
  '.',
];

const views: View[] = [{ id: 'stack', title: 'Built up' }];

/** A pose is frozen and built up from pieces, each landing on its own beat. */
export const freezeStack: Recipe<FreezeMoment> = {
  ...freezeFilm,
  slots: freezeSlots,
  suggests: () => poseSlot.key,
  anchors: freezeAnchors,
  sounds: (anchor) => (anchor === 'start' || anchor === 'end' ? null : { sound: 'thump', by: 'loudest' }),
  showsFrom: ({ start }) => start,
  ofTakes: { frozen: null },
  say: sayFreeze,
  views,
  outline: () => null,
  landing: (moment, { project }, material) => {
    const [[left, top], , [right, bottom]] = cutsOf(moment, material, project)[moment.settings.pieces - 1];
    return { who: 'the last piece', at: [(left + right) / 2, (top + bottom) / 2] };
  },
  slotAt: () => null,
  works: freezeWorks,
  build: buildFreeze,
  examine: examineFreeze,
  words: freezeWords,
  explain: explainFreeze,
};
