import type { MomentOf } from '../../model/records';
import { fillOf } from '../../model/slots';
import type { Size } from '../../geometry/size';
import { groupOf, outlineMatte, type Node, type Transform } from '../../picture/node';
import { evenly, pinAnchor, spanAnchors } from '../anchors';
import type { Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
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
export function intoPanel(panel: Panel, source: Size, pushed: number): Transform {
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
  return { is: 'map', matrix: [scale, 0, 0, scale, x, y] };
}

/** The picture of a split: each take in its own panel, from its beat on. */
export function buildSplit(moment: SplitMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const size = { width: project.width, height: project.height };
  const { start, comes, end } = splitFrames(moment, ruler);
  const { pushed, gutter } = wholeSplit(moment.settings);
  const panels = panelsOf(moment.settings, size);
  // Without a gutter they lie over each other by a pixel, or a leaning cut would let the black through.
  const outlines = gutter === 0 ? panelsOf({ ...moment.settings, gutter: -1 }, size) : panels;
  const nodes = slotsOf(moment).flatMap(({ key, title }, index) => {
    const chosen = material.takes[key] ?? null;
    if (!chosen?.measure) return [];
    return takeNode(
      project,
      key,
      `${title[0].toUpperCase()}${title.slice(1)}: ${chosen.take.name}`,
      chosen,
      {
        from: comes[index],
        until: end,
        at: fillOf(moment, key).at,
        into: intoPanel(panels[index], chosen.measure.size, pushed[index + 1] ?? 0),
      },
      { mattes: [outlineMatte('parent', [{ frame: start, rings: [outlines[index].ring] }], 0)] },
    );
  });
  return groupOf('shot', size, { from: start, until: end }, nodes);
}
