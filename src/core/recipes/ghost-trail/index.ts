import type { Material } from '../material';
import type { Recipe, Ruler, Sentence, View } from '../recipe';
import { boxRound, fileInFrame, sayCutoutBy } from '../cutouts';
import { figureAt } from '../../footage/figures';
import { examineGhost } from './examine';
import { explainGhost } from './explain';
import { ghostFilm } from './film';
import { ghostOutline } from './mend';
import { wholeGhost } from './settings';
import { ghostSlots, inFront, moveSlot } from './slots';
import { buildGhost, figuresOf, ghostAnchors, ghostWorks, type GhostMoment } from './trail';
import { ghostWords } from './words';

/** The moment in a sentence; each quantity is edited where it stands. */
const sayGhost = (moment: GhostMoment, _ruler: Ruler, material: Material): Sentence => [
  'From ',
  { anchor: 'start' },
  ', ',
  { field: 'copies' },
  ' fading copies follow the performer of ',
  { slot: moveSlot.key, part: 'take', dye: moveSlot.dye },
  ', which begins at ',
  { slot: moveSlot.key, part: 'start', dye: moveSlot.dye },
  ', ',
  { field: 'apart' },
  ' apart, the first at ',
  { field: 'first', value: wholeGhost(moment.settings).first },
  '. The performer is cut out ',
  { field: 'by' },
  sayCutoutBy(wholeGhost(moment.settings).by, material),
  '. On ',
  { anchor: 'lands' },
  ' the copies run into one, and the take runs on until ',
  { anchor: 'end' },
  '.',
];

const views: View[] = [
  { id: 'trail', title: 'Trail' },
  { id: 'front', title: 'Cut out', alone: inFront },
  { id: 'mend', title: 'Mend', alone: moveSlot.key, unmoved: true, outline: true },
  { id: moveSlot.key, title: 'As filmed', alone: moveSlot.key },
];

/** Late copies of a performer follow them, ever fainter, and run into them on the beat. */
export const ghostTrail: Recipe<GhostMoment> = {
  ...ghostFilm,
  slots: ghostSlots,
  suggests: () => moveSlot.key,
  anchors: ghostAnchors,
  sounds: (anchor) => (anchor === 'lands' ? { sound: 'whoosh', by: 'loudest' } : null),
  showsFrom: ({ start }) => start,
  ofTakes: { mends: [] },
  say: sayGhost,
  views,
  outline: ghostOutline,
  landing: (_, { project }, material) => {
    const size = material.takes[moveSlot.key]?.measure?.size;
    const last = figureAt(figuresOf(material) ?? [], Infinity);
    const box = size && last && boxRound(last.rings.flat().map((point) => fileInFrame(point, size, project)));
    return box
      ? { who: 'the performer', at: [(box.left + box.right) / 2, (box.top + box.bottom) / 2] }
      : null;
  },
  slotAt: () => null,
  works: ghostWorks,
  build: buildGhost,
  examine: examineGhost,
  words: ghostWords,
  explain: explainGhost,
};
