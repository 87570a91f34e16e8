import { withShapeAt } from '../../shapes/keyed';
import type { Material } from '../material';
import type { Outline, Recipe, Ruler, Sentence, View } from '../recipe';
import { timeOfFrame } from '../../time/rate';
import { buildReveal } from './build';
import { beginsAt, revealAnchors, revealFrames, type RevealMoment } from './takes';
import { drawnKeys } from './edge';
import { edgeAt } from './follow';
import { examineReveal } from './examine';
import { explainReveal } from './explain';
import { revealFilm } from './film';
import { wholeReveal } from './settings';
import { afterSlot, beforeSlot, fallSlot, fallsField, revealedSlot, revealSlots } from './slots';
import { revealWords } from './words';
import { revealWorks } from './works';

/** Where each take begins to fall. */
function fallsIn(moment: RevealMoment, ruler: Ruler): Sentence {
  const { start, lands } = revealFrames(moment, ruler);
  const since = timeOfFrame(ruler.project.rate, lands - start);
  const at = (slot: string, later: number) => beginsAt(moment, ruler, slot) + later;
  return [
    ', which begins in the first take at ',
    { field: fallsField(beforeSlot.key), value: at(beforeSlot.key, since), dye: beforeSlot.dye },
    ' and in the second at ',
    { field: fallsField(fallSlot.key), value: at(fallSlot.key, 0), dye: fallSlot.dye },
  ];
}

/** The moment in a sentence; each quantity is edited where it stands. */
function sayReveal(moment: RevealMoment, ruler: Ruler): Sentence {
  const { settings } = moment;
  const into = revealedSlot(settings);
  const at: Record<RevealMoment['settings']['edge'], Sentence> = {
    line: [', moving towards ', { field: 'angle' }, ' (0° right, 90° down)'],
    circle: [', from ', { field: 'across' }, ' across and ', { field: 'down' }, ' down'],
    falling: fallsIn(moment, ruler),
    drawn: [', which ', { field: 'follows' }],
  };
  const { closer, fast } = wholeReveal(settings);
  return [
    'From ',
    { anchor: 'start' },
    ' shows ',
    { slot: beforeSlot.key, part: 'take', dye: beforeSlot.dye },
    ' from ',
    { slot: beforeSlot.key, part: 'start', dye: beforeSlot.dye },
    '. On ',
    { anchor: 'lands', dye: into.dye },
    ' it begins to change behind ',
    { field: 'edge' },
    ...at[settings.edge],
    ...(settings.edge === 'drawn' ? [] : [', over ', { field: 'frames' }]),
    ', into ',
    { slot: into.key, part: 'take', dye: into.dye },
    ' from ',
    { slot: into.key, part: 'start', dye: into.dye },
    ', until ',
    { anchor: 'end' },
    '. The edge is ',
    { field: 'soft' },
    ' soft. While it changes the takes run at ',
    { field: 'fast', value: fast },
    ', and after it the picture is closer by ',
    { field: 'closer', value: closer },
    '.',
  ];
}

const views: View[] = [
  { id: 'whole', title: 'Reveal' },
  { id: beforeSlot.key, title: 'Before', alone: beforeSlot.key, asFilmed: true },
  { id: afterSlot.key, title: 'After', alone: afterSlot.key, asFilmed: true },
  { id: fallSlot.key, title: 'What falls', alone: fallSlot.key, asFilmed: true },
  { id: 'edge', title: 'Edge', outline: true },
];

/** The edge on the frame that is looked at, where it is drawn. */
function outline(moment: RevealMoment, material: Material, ruler: Ruler, frame: number): Outline | null {
  const { settings } = moment;
  if (settings.edge !== 'drawn') return null;
  const keys = drawnKeys(settings, ruler.project);
  const { shape, follows } = wholeReveal(settings);
  // The circle that grows until somebody draws lies round nothing that could be followed.
  const kept = shape || follows === 'nothing' ? keys : [];
  const after = Math.max(0, frame - revealFrames(moment, ruler).lands);
  const others = keys.filter((key) => key.after !== after);
  return {
    title: 'the edge',
    setting: 'shape',
    rings: [edgeAt(moment, ruler, material, after)],
    state: settings.shape ? 'drawn' : 'guessed',
    drawn: (ring) => withShapeAt(kept, after, ring),
    keys: keys.map((key) => revealFrames(moment, ruler).lands + key.after),
    ...(others.length > 0 && others.length < keys.length ? { without: others } : {}),
  };
}

/** Something changes behind an edge that crosses the picture: two takes of one locked camera. */
export const maskedReveal: Recipe<RevealMoment> = {
  ...revealFilm,
  slots: revealSlots,
  runsOn: true,
  slotsIn: ({ settings }) => [revealSlots[0], beforeSlot, revealedSlot(settings)],
  // Of what falls no pose is held.
  pairs: (moment) =>
    moment && revealedSlot(moment.settings) === fallSlot
      ? { slots: [beforeSlot, fallSlot], by: ['lock', 'light'] }
      : { slots: [beforeSlot, afterSlot], by: ['lock', 'light', 'pose', 'eyes'] },
  suggests: () => beforeSlot.key,
  anchors: revealAnchors,
  sounds: (anchor) => (anchor === 'lands' ? { sound: 'cloth', by: 'start' } : null),
  showsFrom: ({ start, lands }, slot) => (slot === beforeSlot.key ? start : lands),
  ofTakes: { shape: null, falls: {} },
  say: sayReveal,
  views,
  outline,
  landing: ({ settings: { edge, across = 50, down = 50 } }) => ({
    who: 'the change',
    at: edge === 'circle' ? [across / 100, down / 100] : [0.5, 0.5],
  }),
  slotAt: () => null,
  works: revealWorks,
  build: buildReveal,
  examine: examineReveal,
  words: revealWords,
  explain: explainReveal,
};
