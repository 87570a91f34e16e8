import { fillOf, plateSlot, tapsOf } from '../../model/slots';
import type { Landing, Outline, Recipe, Ruler, Sentence, View } from '../recipe';
import type { Material } from '../material';
import { plate } from '../slots';
import { crossingsOf } from './where-crossing';
import { buildClone, cloneAnchors, cloneFrames, keysBefore, keysHanded, keysOfFurther } from './build';
import { ringsAt } from './keys';
import { copiesOf, drawnFurther, furtherOf, furtherSeamIn, furtherSlots, positionOfFurther } from './copies';
import { examineClone } from './examine';
import { explainClone } from './explain';
import { cloneFilm } from './film';
import { drawnHanded, handed, handedSeam, handsOver } from './hand-over';
import { cloneMaterial, otherSide, seamIn, shadowsOf, type CloneMoment } from './material';
import { clonePairs, cloneSlots, slotOfSide, suggestCloneSlot } from './slots';
import { cloneWords } from './words';
import { cloneWorks } from './works';

/** The moment in a sentence; each quantity is edited where it stands. */
function sayClone(moment: CloneMoment, ruler: Ruler, material: Material): Sentence {
  const { first, fade } = moment.settings;
  const copy = otherSide(first);
  const [mine, other] = [first, copy].map((side) => slotOfSide(side).dye);
  return [
    'The performer ',
    { field: 'way' },
    '. From ',
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
    ...(handsOver(moment) ? ['. The object changes hands on ', { anchor: handed }] : []),
    '. Both stay until ',
    { anchor: 'end' },
    ', with ',
    { slot: plateSlot, part: 'take' },
    ' behind them; the join is ',
    { field: 'feather' },
    ' soft',
    ...(crossingsOf(moment, cloneFrames(moment, ruler), material).length > 0
      ? ['; where they cross, in front is ', { field: 'front' }]
      : []),
    ...(throwsShadows(moment, material) ? ['; shadows on the set are ', { field: 'shadows' }] : []),
    '.',
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

/** Whether shadows were found in any take of it, or are hidden as it is. */
const throwsShadows = (moment: CloneMoment, material: Material): boolean =>
  shadowsOf(moment) === 'hidden' ||
  [
    seamIn(material.solved),
    handedSeam(material),
    ...furtherOf(moment).map(({ key }) => furtherSeamIn(material, key)),
  ].some((seam) => seam?.shadows.some((one) => one !== null));

const views: View[] = [
  { id: 'joined', title: 'Joined' },
  ...cloneSlots.map(({ key }) => ({ id: key, title: key === 'left' ? 'Left' : 'Right', alone: key })),
  { id: plateSlot, title: 'Plate', alone: plateSlot },
  { id: 'difference', title: 'Difference', alone: 'left', against: 'right' },
  { id: 'join', title: 'Join', outline: true },
  { id: 'join-handed', title: 'Join after it', outline: handed },
  ...furtherSlots.map(({ key, title }) => ({
    id: key,
    title: `${title[0].toUpperCase()}${title.slice(1)}`,
    alone: key,
  })),
  ...furtherSlots.map(({ key, title }) => ({
    id: `join-${key}`,
    title: `Join of the ${title.split(' ')[0]}`,
    outline: key,
  })),
];

/** The frame of the film at which an outline is looked at. */
type OnFrame = { frame: number };
const wholeFilm = { from: -Infinity, until: Infinity };

/** The outline of a further copy. */
const outlineOfFurther = (moment: CloneMoment, material: Material, slot: string, on: OnFrame): Outline => ({
  title: `the join of the ${furtherSlots.find(({ key }) => key === slot)?.title}`,
  setting: `seams.${slot}`,
  rings: ringsAt(keysOfFurther(moment, material, slot, wholeFilm), on.frame),
  state: drawnFurther(moment, slot)
    ? 'drawn'
    : furtherSeamIn(material, slot)?.rings.length
      ? 'solved'
      : 'guessed',
});

/** The outline from the hand-over on. */
const outlineHanded = (moment: CloneMoment, material: Material, { frame }: OnFrame): Outline => ({
  title: 'the join after the hand-over',
  setting: `seams.${handed}`,
  rings: ringsAt(keysHanded(moment, material, wholeFilm), frame),
  state: drawnHanded(moment) ? 'drawn' : handedSeam(material) ? 'solved' : 'guessed',
});

const firstOutline = (moment: CloneMoment, material: Material, { frame }: OnFrame): Outline => ({
  title: 'the join',
  setting: 'seam',
  rings: ringsAt(keysBefore(moment, material, wholeFilm), frame),
  state: moment.settings.seam ? 'drawn' : seamIn(material.solved) ? 'solved' : 'guessed',
});

/** The outline that is meant; null where this moment has none of that name. */
function outlineOf(moment: CloneMoment, material: Material, on: OnFrame, slot?: string): Outline | null {
  if (!slot) return firstOutline(moment, material, on);
  if (slot === handed) return handsOver(moment) ? outlineHanded(moment, material, on) : null;
  const further = furtherOf(moment).some(({ key }) => key === slot);
  return further ? outlineOfFurther(moment, material, slot, on) : null;
}

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
  runsOn: true,
  leads: ({ settings }) => settings.first,
  // An answer out of a mirror is the same take at another time.
  slotsIn: (moment) => [
    plate,
    ...cloneSlots.map((slot) => (moment.settings.way === 'mirror' ? { ...slot, open: true as const } : slot)),
    ...furtherOf(moment),
  ],
  pairs: () => clonePairs,
  suggests: suggestCloneSlot,
  anchors: cloneAnchors,
  sounds: (anchor) => (anchor === 'start' || anchor === 'end' ? null : { sound: 'click', by: 'loudest' }),
  showsFrom: (moment, slot) => {
    const { settings, start, lands } = moment;
    if (furtherSlots.some(({ key }) => key === slot)) return positionOfFurther(moment, slot);
    return slot === otherSide(settings.first) ? lands : start;
  },
  ofTakes: { seam: null, seams: {} },
  say: sayClone,
  views,
  outline: (moment, material, _ruler, frame, slot) => outlineOf(moment, material, { frame }, slot),
  landing,
  slotAt: ([x]) => (x < 0.5 ? 'left' : 'right'),
  works: cloneWorks,
  build: buildClone,
  examine: examineClone,
  words: cloneWords,
  explain: explainClone,
};
