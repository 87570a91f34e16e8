import type { Recipe, Sentence, View } from '../recipe';
import { buildWhip, whipAnchors, type WhipMoment } from './build';
import { examineWhip } from './examine';
import { explainWhip } from './explain';
import { whipFilm } from './film';
import { whipSlots } from './slots';
import { whipWords } from './words';

const [out, into] = whipSlots;

/** The moment in a sentence; each quantity is edited where it stands. */
const sayWhip = (): Sentence => [
  'From ',
  { anchor: 'start' },
  ' the first place shows, in ',
  { slot: out.key, part: 'take', dye: out.dye },
  ' from ',
  { slot: out.key, part: 'start', dye: out.dye },
  '. On ',
  { anchor: 'lands', dye: into.dye },
  ' the picture whips ',
  { field: 'direction' },
  ' over ',
  { field: 'frames' },
  ' into the second place, in ',
  { slot: into.key, part: 'take', dye: into.dye },
  ' from ',
  { slot: into.key, part: 'start', dye: into.dye },
  ', until ',
  { anchor: 'end' },
  '. Its edges are ',
  { field: 'edges' },
  '; the shutter is open for ',
  { field: 'blur' },
  '.',
];

const views: View[] = [
  { id: 'whole', title: 'Whip' },
  { id: out.key, title: 'First place', alone: out.key },
  { id: into.key, title: 'Second place', alone: into.key },
];

/** A whip from one picture into the next that the camera never made: both fly, the cut hides in the fastest frame. */
export const builtWhip: Recipe<WhipMoment> = {
  ...whipFilm,
  slots: whipSlots,
  inTurn: [out.key, into.key],
  suggests: () => out.key,
  anchors: whipAnchors,
  sounds: (anchor) => (anchor === 'lands' ? { sound: 'whoosh', by: 'loudest' } : null),
  showsFrom: ({ start, lands }, slot) => (slot === into.key ? lands : start),
  ofTakes: {},
  say: sayWhip,
  views,
  outline: () => null,
  landing: () => ({ who: 'the cut', at: [0.5, 0.5] }),
  slotAt: () => null,
  works: () => [],
  build: buildWhip,
  examine: examineWhip,
  words: whipWords,
  explain: explainWhip,
};
