import { boxRound, cutoutIn, fileInFrame } from '../cutouts';
import type { Material } from '../material';
import type { Landing, Recipe, Ruler, Sentence, View } from '../recipe';
import { buildLeap, leapAnchors, leftAt, metAt, type LeapMoment } from './build';
import { examineLeap } from './examine';
import { explainLeap } from './explain';
import { leapFilm } from './film';
import { raisedOutline } from './raised';
import { cutoutOfSlot, downSlot, leapSlots, leavesPin, upSlot } from './slots';
import { leapWords } from './words';
import { leapWorks } from './works';

/** What is said of one of the two takes: which, from where it is looked at, its instant, and the beat of that. */
const sayTake = (
  { key: slot, dye }: typeof upSlot | typeof downSlot,
  begins: string,
  instant: { says: string; field: string; value: number },
  then: { says: string; anchor: string },
): Sentence => [
  begins,
  { slot, part: 'take', dye },
  ', looked for from ',
  { slot, part: 'start', dye },
  instant.says,
  { field: instant.field, value: instant.value, dye },
  then.says,
  { anchor: then.anchor },
  '. ',
];

/** A jump that is raised, in a sentence. */
const sayRaised: Sentence = [
  'From ',
  { anchor: 'start' },
  ' to ',
  { anchor: 'end' },
  ' there is ',
  { field: 'way' },
  ': ',
  { slot: upSlot.key, part: 'take', dye: upSlot.dye },
  ', looked for from ',
  { slot: upSlot.key, part: 'start', dye: upSlot.dye },
  ', is raised by ',
  { field: 'raise' },
  ' of the frame’s height, the feet meet the floor on ',
  { anchor: 'lands' },
  ', and the ground shakes by ',
  { field: 'shake' },
  '.',
];

/** The moment in a sentence; each quantity is edited where it stands. */
function sayLeap(moment: LeapMoment, _ruler: Ruler, material: Material): Sentence {
  const { way } = moment.settings;
  if (way === 'raised') return sayRaised;
  const up = sayTake(
    upSlot,
    'The performer jumps in ',
    { says: '; after the picture at ', field: 'left', value: leftAt(moment, material) },
    { says: ' they are gone, on ', anchor: way === 'both' ? leavesPin : 'lands' },
  );
  const down = sayTake(
    downSlot,
    'They land in ',
    { says: '; the feet meet the floor at ', field: 'met', value: metAt(moment, material) },
    { says: ', on ', anchor: 'lands' },
  );
  return [
    'From ',
    { anchor: 'start' },
    ' to ',
    { anchor: 'end' },
    ' there is ',
    { field: 'way' },
    '. ',
    ...(way === 'landing' ? [] : up),
    ...(way === 'take-off' ? [] : down),
    'Push-off and landing take ',
    { field: 'push' },
    ' at ',
    { field: 'fast' },
    ', the streak ',
    { field: 'streak' },
    ', and the ground shakes by ',
    { field: 'shake' },
    '.',
  ];
}

const views: View[] = [
  { id: 'leap', title: 'Leap' },
  { id: upSlot.key, title: 'Jump as filmed', alone: upSlot.key, asFilmed: true },
  { id: 'mend', title: 'Mend', alone: upSlot.key, asFilmed: true, outline: true },
  { id: downSlot.key, title: 'Landing as filmed', alone: downSlot.key, asFilmed: true },
];

/** The feet of whoever lands, or takes off. */
function landing(moment: LeapMoment, { project }: Ruler, material: Material): Landing | null {
  const slot = moment.settings.way === 'take-off' ? upSlot : downSlot;
  const size = material.takes[slot.key]?.measure?.size;
  const rings = cutoutIn(material, cutoutOfSlot(slot.key))?.rings ?? [];
  const box = size && boxRound(rings.flat().map((point) => fileInFrame(point, size, project)));
  return box
    ? { who: slot === upSlot ? 'the take-off' : 'the landing', at: [(box.left + box.right) / 2, box.bottom] }
    : null;
}

/** A jump that does not come down, a landing out of nowhere, or one after the other, with a streak out of the frame. */
export const takeOff: Recipe<LeapMoment> = {
  ...leapFilm,
  slots: leapSlots,
  holds: true,
  slotsIn: ({ settings: { way } }) =>
    leapSlots.filter(
      ({ key }) =>
        !(key === downSlot.key && (way === 'take-off' || way === 'raised')) &&
        !(key === upSlot.key && way === 'landing'),
    ),
  pairs: (moment) =>
    moment && moment.settings.way !== 'both'
      ? null
      : { slots: [upSlot, downSlot], by: ['lock', 'light', 'eyes'] },
  suggests: () => upSlot.key,
  anchors: leapAnchors,
  sounds: (anchor, { settings }) => {
    const leaves = settings.way === 'take-off' ? 'lands' : leavesPin;
    if (anchor === leaves) return { sound: 'whoosh', by: 'start' };
    return anchor === 'lands' ? { sound: 'thump', by: 'loudest' } : null;
  },
  showsFrom: ({ start, lands }, slot) => (slot === downSlot.key ? lands : start),
  ofTakes: { left: null, met: null, mends: [] },
  say: sayLeap,
  views,
  outline: raisedOutline,
  landing,
  slotAt: () => null,
  works: leapWorks,
  build: buildLeap,
  examine: examineLeap,
  words: leapWords,
  explain: explainLeap,
};
