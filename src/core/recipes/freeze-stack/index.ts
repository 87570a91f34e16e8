import { sayCutoutBy } from '../cutouts';
import type { Material } from '../material';
import type { Recipe, Ruler, Sentence, View } from '../recipe';
import {
  buildFreeze,
  cutOutline,
  cutsOf,
  flightOf,
  freezeAnchors,
  freezeWorks,
  frozenAt,
  piecesOf,
  poseOutline,
  type FreezeMoment,
} from './build';
import { examineFreeze } from './examine';
import { explainFreeze } from './explain';
import { freezeFilm } from './film';
import { freezeSlots, instantField, pieceAnchor, poseSlot } from './slots';
import { mostPieces, wholeFreeze } from './settings';
import { freezeWords } from './words';

/** What the cut of a piece is called among the outlines of a moment. */
const pieceKey = (piece: number): string => `piece-${piece}`;

/** The moment in a sentence; each quantity is edited where it stands. */
const sayFreeze = (moment: FreezeMoment, ruler: Ruler, material: Material): Sentence => [
  'From ',
  { anchor: 'start' },
  ' the set is empty. The pose of ',
  { slot: poseSlot.key, part: 'take', dye: poseSlot.dye },
  ' at ',
  { field: instantField, value: frozenAt(moment), dye: poseSlot.dye },
  ' is cut out ',
  { field: 'by' },
  sayCutoutBy(wholeFreeze(moment.settings).by, material),
  ' and built from ',
  { field: 'pieces' },
  ' pieces, whose cuts lean ',
  { field: 'lean', value: wholeFreeze(moment.settings).lean },
  ', which come from ',
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

const views: View[] = [
  { id: 'stack', title: 'Built up' },
  { id: 'outline', title: 'Outline', alone: `${poseSlot.key}-1`, unmoved: true, outline: true },
  ...Array.from({ length: mostPieces }, (_, index) => ({
    id: `cut-${index + 1}`,
    title: `Cut ${index + 1}`,
    alone: `${poseSlot.key}-1`,
    unmoved: true as const,
    outline: pieceKey(index + 1),
  })),
];

/** A pose is frozen and built up from pieces, each landing on its own beat. */
export const freezeStack: Recipe<FreezeMoment> = {
  ...freezeFilm,
  slots: freezeSlots,
  holds: true,
  suggests: () => poseSlot.key,
  anchors: freezeAnchors,
  sounds: (anchor) => (anchor === 'start' || anchor === 'end' ? null : { sound: 'thump', by: 'loudest' }),
  showsFrom: ({ start }) => start,
  ofTakes: { frozen: null, outline: null, cuts: {} },
  say: sayFreeze,
  views,
  outline: (moment, material, ruler, _frame, slot) => {
    if (!slot) return poseOutline(moment, ruler, material);
    const piece = piecesOf(moment).find((one) => pieceKey(one) === slot);
    return piece ? cutOutline(moment, ruler, material, piece) : null;
  },
  landing: (moment, { project }, material) => {
    const cut = cutsOf(moment, material, project)[moment.settings.pieces - 1];
    const middle = (axis: 0 | 1) => cut.reduce((sum, point) => sum + point[axis], 0) / cut.length;
    return { who: 'the last piece', at: [middle(0), middle(1)] };
  },
  slotAt: () => null,
  works: freezeWorks,
  build: buildFreeze,
  examine: examineFreeze,
  words: freezeWords,
  explain: explainFreeze,
};
