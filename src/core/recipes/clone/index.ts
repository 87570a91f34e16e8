import { fillOf, plateSlot, tapsOf } from '../../model/slots';
import type { Landing, Outline, Recipe, Ruler, Sentence, View } from '../recipe';
import type { Material } from '../material';
import { plate } from '../slots';
import { buildClone, cloneAnchors, ringsInForce } from './build';
import { copiesOf, furtherOf, furtherSlots, positionOfFurther } from './copies';
import { examineClone } from './examine';
import { explainClone } from './explain';
import { cloneFilm } from './film';
import { cloneMaterial, otherSide, seamIn, type CloneMoment } from './material';
import { cloneSlots, slotOfSide, suggestCloneSlot } from './slots';
import { cloneWords } from './words';
import { cloneWorks } from './works';

/** The moment in a sentence; each quantity is edited where it stands. */
function sayClone(moment: CloneMoment): Sentence {
  const { first, fade } = moment.settings;
  const copy = otherSide(first);
  const [mine, other] = [first, copy].map((side) => slotOfSide(side).dye);
  return [
    'From ',
    { anchor: 'start' },
    ' the performer is on the ',
    { field: 'first', dye: mine },
    ' in ',
    { slot: first, part: 'take', dye: mine },
    ' from ',
    { slot: first, part: 'start', dye: mine },
    '. The copy appears on ',
    { anchor: 'lands', dye: other },
    fade > 0 ? ' over ' : ', ',
    { field: 'fade', dye: other },
    ', in ',
    { slot: copy, part: 'take', dye: other },
    ' from ',
    { slot: copy, part: 'start', dye: other },
    '. Both stay until ',
    { anchor: 'end' },
    ', with ',
    { slot: plateSlot, part: 'take' },
    ' behind them; the join is ',
    { field: 'feather' },
    ' soft.',
    ...furtherOf(moment).flatMap(({ key, title, dye }): Sentence => [
      ` The ${title} appears on `,
      { anchor: key, dye },
      ' in ',
      { slot: key, part: 'take', dye },
      ' from ',
      { slot: key, part: 'start', dye },
      '.',
    ]),
    ' There are ',
    { field: 'copies', value: copiesOf(moment) },
    ' of them.',
  ];
}

const views: View[] = [
  { id: 'joined', title: 'Joined' },
  ...cloneSlots.map(({ key }) => ({ id: key, title: key === 'left' ? 'Left' : 'Right', alone: key })),
  { id: plateSlot, title: 'Plate', alone: plateSlot },
  { id: 'difference', title: 'Difference', alone: 'left', against: 'right' },
  { id: 'join', title: 'Join', outline: true },
  ...furtherSlots.map(({ key, title }) => ({
    id: key,
    title: `${title[0].toUpperCase()}${title.slice(1)}`,
    alone: key,
  })),
];

const outline = (moment: CloneMoment, material: Material): Outline => ({
  title: 'the join',
  setting: 'seam',
  rings: ringsInForce(moment, material),
  state: moment.settings.seam ? 'drawn' : seamIn(material.solved) ? 'solved' : 'guessed',
});

/** The copy, where it was tapped, else where its take moves. */
function landing(moment: CloneMoment, _ruler: Ruler, material: Material): Landing {
  const copy = otherSide(moment.settings.first);
  const across = cloneMaterial(material)[copy]?.measure?.motion?.across ?? 0.5;
  return { who: 'copy', at: tapsOf(fillOf(moment, copy))[0]?.at ?? [across, 0.5] };
}

/** A performer meets a copy of themself: two takes of one locked camera, joined along a seam. */
export const clone: Recipe<CloneMoment> = {
  ...cloneFilm,
  slots: [plate, ...cloneSlots, ...furtherSlots],
  slotsIn: (moment) => [plate, ...cloneSlots, ...furtherOf(moment)],
  suggests: suggestCloneSlot,
  anchors: cloneAnchors,
  sounds: (anchor) => (anchor === 'start' || anchor === 'end' ? null : { sound: 'click', by: 'loudest' }),
  showsFrom: (moment, slot) => {
    const { settings, start, lands } = moment;
    if (furtherSlots.some(({ key }) => key === slot)) return positionOfFurther(moment, slot);
    return slot === otherSide(settings.first) ? lands : start;
  },
  ofTakes: { seam: null },
  say: sayClone,
  views,
  outline,
  landing,
  slotAt: ([x]) => (x < 0.5 ? 'left' : 'right'),
  works: cloneWorks,
  build: buildClone,
  examine: examineClone,
  words: cloneWords,
  explain: explainClone,
};
