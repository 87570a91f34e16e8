import { gentle } from '../../motion/easing';
import { still, type Track } from '../../motion/keyframes';
import { groupOf, outlineMatte, type Node } from '../../picture/node';
import { takeNode } from '../take-node';
import type { Point } from '../../geometry/size';
import { type CloneMoment, cloneMaterial, otherSide, seamIn, straightSeam, type Side } from './material';
import type { Anchor, Ruler } from '../recipe';
import { fillOf, plateSlot } from '../../model/slots';
import { spanAnchors } from '../anchors';
import type { Material } from '../material';

/** The plate inside the seam, for the edge that a steadied copy leaves. */
export const underCopy = 'plate-under-copy';

const titles = { start: 'Begins on', lands: 'The copy appears on', end: 'Ends on' };

/** The instants of a clone. */
export const cloneAnchors = (moment: CloneMoment, ruler: Ruler): Anchor[] =>
  spanAnchors(moment, ruler, titles, 'Copy appears');

/** First frame, frame on which the copy appears, and the frame after the last. */
export function cloneFrames(moment: CloneMoment, ruler: Ruler) {
  const [start, lands, end] = cloneAnchors(moment, ruler).map((anchor) => anchor.frame);
  return { start, lands: Math.max(start, lands), end: Math.max(start + 1, end) };
}

/** The outline in force: drawn by hand, else solved, else straight; shares of the frame. */
export function ringsInForce({ settings }: CloneMoment, { solved }: Material): Point[][] {
  const found = seamIn(solved)?.rings ?? [];
  if (settings.seam) return [settings.seam];
  return found.length > 0 ? found : [straightSeam];
}

/**
 * The picture of a clone: the plate at the back, who is there from the start over the whole frame, and the copy
 * inside the seam from its beat on. Where steadying takes the copy's take off an edge, the plate shows there too.
 */
export function buildClone(moment: CloneMoment, ruler: Ruler, material: Material): Node {
  const chosen = cloneMaterial(material);
  const { settings } = moment;
  const { project } = ruler;
  const { width, height } = project;
  const { start, lands, end } = cloneFrames(moment, ruler);
  const rings = ringsInForce(moment, material).map((ring) =>
    ring.map(([x, y]): Point => [x * width, y * height]),
  );
  const first = settings.first;
  const copy = otherSide(first);
  const seam = outlineMatte(
    'parent',
    [{ frame: lands, rings }],
    settings.feather,
    // What is drawn is where the right take shows.
    copy === 'left',
  );
  const appear: Track =
    settings.fade > 0
      ? [
          { frame: lands - 1, value: 0, ease: gentle },
          { frame: lands - 1 + settings.fade, value: 1, ease: 'hold' },
        ]
      : still(1);
  const name = (side: Side) => `${side === 'left' ? 'Left' : 'Right'}: ${chosen[side]?.take.name ?? ''}`;
  const shown = (side: Side, from: number) => ({ from, until: end, at: fillOf(moment, side).at });
  return groupOf('shot', { width, height }, { from: start, until: end }, [
    ...takeNode(project, plateSlot, 'Clean plate', chosen.plate, {
      from: start,
      until: end,
      at: 0,
      hold: true,
    }),
    ...takeNode(project, first, name(first), chosen[first], shown(first, start)),
    ...(chosen[copy]?.take.steady
      ? takeNode(
          project,
          underCopy,
          'Clean plate under the copy',
          chosen.plate,
          { from: lands, until: end, at: 0, hold: true },
          { mattes: [seam], opacity: appear },
        )
      : []),
    ...takeNode(project, copy, name(copy), chosen[copy], shown(copy, lands), {
      mattes: [seam],
      opacity: appear,
    }),
  ]);
}
