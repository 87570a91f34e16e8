import type { Point } from '../../geometry/size';
import { followedPoints, tapsToFollow } from '../follow-point';
import type { Material } from '../material';
import type { Outline, Recipe, Ruler, Sentence, View } from '../recipe';
import { buildSplit, panelBeats, slotsOf, splitAnchors, splitWorks, type SplitMoment } from './build';
import { examineSplit } from './examine';
import { explainSplit } from './explain';
import { splitFilm } from './film';
import { panelsOf } from './panels';
import { panelSlots, pushedField } from './slots';
import { wholeSplit } from './settings';
import { splitWords } from './words';

/** The instant at which a panel comes. */
const comesAt = ({ settings }: SplitMoment, index: number): string =>
  index === 0 ? 'start' : index === settings.panels - 1 ? 'lands' : panelSlots[index].key;

/** The moment in a sentence; each quantity is edited where it stands. */
const saySplit = (moment: SplitMoment): Sentence => [
  'The frame is cut into ',
  { field: 'panels' },
  ' ',
  { field: 'cut' },
  ...(wholeSplit(moment.settings).cut === 'grid' ? [] : [', leaning ', { field: 'lean' }]),
  ', with ',
  { field: 'gutter' },
  ' between them.',
  ...slotsOf(moment).flatMap(({ key, title, dye }, index): Sentence => [
    ` The ${title} comes on `,
    { anchor: comesAt(moment, index), dye },
    ' with ',
    { slot: key, part: 'take', dye },
    ' from ',
    { slot: key, part: 'start', dye },
    ', ',
    tapsToFollow(moment, key).length > 0
      ? 'following what is tapped'
      : { field: pushedField(index + 1), value: wholeSplit(moment.settings).pushed[index + 1] ?? 0 },
    '.',
  ]),
  ' All stay until ',
  { anchor: 'end' },
  '.',
];

const views: View[] = [
  { id: 'split', title: 'Split' },
  ...panelSlots.map(({ key }, index) => ({ id: `cut-${key}`, title: `Cut ${index + 1}`, outline: key })),
];

/** The outline of one panel, the first where nobody says which. */
function outline(
  moment: SplitMoment,
  _: Material,
  { project }: Ruler,
  _frame: number,
  slot?: string,
): Outline | null {
  const index = slot ? slotsOf(moment).findIndex(({ key }) => key === slot) : 0;
  if (index < 0) return null;
  const { key, title } = panelSlots[index];
  const { ring } = panelsOf(moment.settings, project)[index];
  return {
    title: `the cut of the ${title}`,
    setting: `drawn.${key}`,
    again: `Cut the ${title} evenly again`,
    rings: [ring.map(([x, y]): Point => [x / project.width, y / project.height])],
    state: wholeSplit(moment.settings).drawn[key] ? 'drawn' : 'guessed',
  };
}

/** The frame splits into panels, each with its own take, framing and beat. */
export const splitScreen: Recipe<SplitMoment> = {
  ...splitFilm,
  slots: panelSlots,
  runsOn: true,
  slotsIn: slotsOf,
  suggests: () => panelSlots[0].key,
  framesItself: true,
  anchors: splitAnchors,
  sounds: (anchor) => (anchor === 'start' || anchor === 'end' ? null : { sound: 'click', by: 'loudest' }),
  showsFrom: (moment, slot) =>
    panelBeats(moment)[panelSlots.findIndex(({ key }) => key === slot)] ?? moment.start,
  ofTakes: {},
  say: saySplit,
  views,
  outline,
  landing: (moment) => {
    const unit = { width: 1, height: 1 };
    const { box } = panelsOf({ ...moment.settings, gutter: 0, lean: 0 }, unit)[moment.settings.panels - 1];
    return { who: 'the last panel', at: [(box.left + box.right) / 2, (box.top + box.bottom) / 2] };
  },
  slotAt: () => null,
  followed: (moment, { project }, material, slot) => followedPoints(moment, material, slot, project),
  works: splitWorks,
  build: buildSplit,
  examine: examineSplit,
  words: splitWords,
  explain: explainSplit,
};
