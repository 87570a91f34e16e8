import { followedPoints } from '../follow-point';
import type { Recipe, Ruler, Sentence, View } from '../recipe';
import { buildRamp, instantOf, posesOf, rampAnchors, type RampMoment } from './build';
import { examineRamp } from './examine';
import { explainRamp } from './explain';
import { rampFilm } from './film';
import { instantField, passSlot, poseAnchor } from './slots';
import { rampWords } from './words';
import { rampWorks } from './works';

/** The moment in a sentence; each quantity is edited where it stands. */
const sayRamp = (moment: RampMoment, ruler: Ruler): Sentence => [
  'From ',
  { anchor: 'start' },
  ' to ',
  { anchor: 'end' },
  ' the picture shows ',
  { slot: passSlot.key, part: 'take', dye: passSlot.dye },
  ' from ',
  { slot: passSlot.key, part: 'start', dye: passSlot.dye },
  ', at ',
  { field: 'slow' },
  ' on ',
  { field: 'poses' },
  moment.settings.poses === 1 ? ' pose: ' : ' poses: ',
  ...posesOf(moment).flatMap((pose, index): Sentence => [
    index === 0 ? 'its ' : ', its ',
    { field: instantField(pose), value: instantOf(moment, ruler, pose).seconds, dye: passSlot.dye },
    ' on ',
    { anchor: poseAnchor(pose) },
  ]),
  '. Between them it runs as fast as it has to, ',
  { field: 'fast' },
  ' at the most, and changes its speed over ',
  { field: 'ease' },
  ' of the way. It is enlarged on every other pose by ',
  { field: 'zoom' },
  ', and where pictures are lacking it ',
  { field: 'lacking' },
  '.',
];

const views: View[] = [
  { id: 'ramp', title: 'Ramp' },
  { id: passSlot.key, title: 'As filmed', alone: passSlot.key, asFilmed: true, unmoved: true },
];

/** Time bends round poses: each shows on its beat, slow there and as fast between as it has to be. */
export const speedRamp: Recipe<RampMoment> = {
  ...rampFilm,
  slots: [passSlot],
  suggests: () => passSlot.key,
  anchors: rampAnchors,
  sounds: (anchor) => {
    if (anchor === 'lands') return { sound: 'riser', by: 'end' };
    return anchor === 'start' || anchor === 'end' ? null : { sound: 'whoosh', by: 'end' };
  },
  showsFrom: ({ start }) => start,
  ofTakes: { instants: {} },
  say: sayRamp,
  views,
  outline: () => null,
  landing: () => null,
  followed: (moment, { project }, material, slot) => followedPoints(moment, material, slot, project),
  slotAt: () => passSlot.key,
  works: rampWorks,
  build: buildRamp,
  examine: examineRamp,
  words: rampWords,
  explain: explainRamp,
};
