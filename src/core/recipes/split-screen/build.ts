import type { MomentOf } from '../../model/records';
import { fillOf } from '../../model/slots';
import type { Affine } from '../../geometry/affine';
import type { Size } from '../../geometry/size';
import { groupOf, outlineMatte, type Node } from '../../picture/node';
import { evenly, pinAnchor, spanAnchors } from '../anchors';
import { timeOfFrame } from '../../time/rate';
import { followWork } from '../follow-point';
import type { Material, Work } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { followingIn, pushedBy } from './follow';
import { panelsOf, type Panel } from './panels';
import { wholeSplit } from './settings';
import { panelSlots } from './slots';

export type SplitMoment = MomentOf<'split-screen'>;

const titles = { start: 'The first panel comes on', lands: 'The last panel comes on', end: 'Ends on' };

/** The slots of the panels that there are. */
export const slotsOf = ({ settings }: Pick<SplitMoment, 'settings'>) => panelSlots.slice(0, settings.panels);

/** The beat on which each panel comes: the first at the beginning, the last where it lands, the others between. */
export function panelBeats(moment: SplitMoment): number[] {
  const { start, lands, settings, pins = {} } = moment;
  const last = settings.panels - 1;
  return slotsOf(moment).map(({ key }, index) => {
    if (index === 0) return start;
    return index === last ? lands : (pins[key] ?? evenly(start, lands, index, last));
  });
}

/** The instants of a split: one for each panel, and its end. */
export function splitAnchors(moment: SplitMoment, ruler: Ruler): Anchor[] {
  const { start, lands } = moment;
  const [first, last, end] = spanAnchors(moment, ruler, titles, 'The frame is split');
  const placed = panelBeats(moment);
  const others = slotsOf(moment)
    .slice(1, -1)
    .map(({ key, title }, index) =>
      pinAnchor(ruler, {
        name: key,
        title: `The ${title} comes on`,
        position: placed[index + 1],
        between: [start - 0.25, lands + 0.25],
        marks: title,
      }),
    );
  return [first, ...others, last, end];
}

/** The frame on which each panel comes, and the one after the last. */
export function splitFrames(moment: SplitMoment, ruler: Ruler) {
  const anchors = splitAnchors(moment, ruler).map(({ frame }) => frame);
  const start = anchors[0];
  return { start, comes: anchors.slice(0, -1), end: Math.max(start + 1, anchors[anchors.length - 1]) };
}

/** How much a file is enlarged to fill a panel. */
export const scaleIn = ({ box }: Panel, source: Size): number =>
  Math.max((box.right - box.left) / source.width, (box.bottom - box.top) / source.height);

/** A file's pixels into a panel, which it fills; what is over on one side is pushed by a share of it. */
export function intoPanel(panel: Panel, source: Size, pushed: number): Affine {
  const { box } = panel;
  const scale = scaleIn(panel, source);
  const spare = [box.right - box.left - source.width * scale, box.bottom - box.top - source.height * scale];
  const [left, top] = spare.map((one) => (one / 2) * (1 - pushed / 100));
  const [x, y] = (
    [
      [box.left + left, box.left, box.right - source.width * scale],
      [box.top + top, box.top, box.bottom - source.height * scale],
    ] as const
  ).map(([at, most, least]) => {
    // Where nothing is enlarged, pixels stay pixels of all planes, as long as the panel is still filled.
    const even = 2 * Math.round(at / 2);
    return scale === 1 && even <= most && even >= least ? even : at;
  });
  return [scale, 0, 0, scale, x, y];
}

/** How a take lies in its panel before anything is followed in it; null where none is there. @param index 0 for the first panel */
export function placedIn(moment: SplitMoment, ruler: Ruler, { takes }: Material, index: number) {
  const { key } = slotsOf(moment)[index];
  const chosen = takes[key] ?? null;
  const source = chosen?.measure?.size;
  if (!source) return null;
  const { comes, end } = splitFrames(moment, ruler);
  const panel = panelsOf(moment.settings, ruler.project)[index];
  const into = intoPanel(panel, source, wholeSplit(moment.settings).pushed[index + 1] ?? 0);
  return { slot: key, chosen, panel, source, into, from: comes[index], until: end };
}

/** Following what is tapped in the panels. */
export function splitWorks(moment: SplitMoment, ruler: Ruler, material: Material): Work[] {
  const { project } = ruler;
  const { comes, end } = splitFrames(moment, ruler);
  return slotsOf(moment).flatMap(({ key }, index) => {
    const { at } = fillOf(moment, key);
    return followWork(moment, material, key, project, [
      at,
      at + timeOfFrame(project.rate, end - comes[index]),
    ]);
  });
}

/** The picture of a split: each take in its own panel, from its beat on. */
export function buildSplit(moment: SplitMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const size = { width: project.width, height: project.height };
  const { start, comes, end } = splitFrames(moment, ruler);
  const { gutter } = wholeSplit(moment.settings);
  const panels = panelsOf(moment.settings, size);
  // Without a gutter they lie over each other by a pixel, or a leaning cut would let the black through.
  const outlines = gutter === 0 ? panelsOf({ ...moment.settings, gutter: -1 }, size) : panels;
  const nodes = slotsOf(moment).flatMap(({ key, title }, index) => {
    const placed = placedIn(moment, ruler, material, index);
    if (!placed) return [];
    return takeNode(
      project,
      key,
      `${title[0].toUpperCase()}${title.slice(1)}: ${placed.chosen.take.name}`,
      placed.chosen,
      {
        from: comes[index],
        until: end,
        at: fillOf(moment, key).at,
        into: { is: 'map', matrix: placed.into },
      },
      {
        mattes: [outlineMatte('parent', [{ frame: start, rings: [outlines[index].ring] }], 0)],
        transforms: pushedBy(followingIn(placed, moment, ruler, material), comes[index], size),
      },
    );
  });
  return groupOf('shot', size, { from: start, until: end }, nodes);
}
