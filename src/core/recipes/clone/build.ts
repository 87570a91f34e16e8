import { gentle } from '../../motion/easing';
import { still, type Track } from '../../motion/keyframes';
import { groupOf, outlineMatte, type Matte, type MediaNode, type Node } from '../../picture/node';
import { withRepeats } from '../repeats';
import { takeNode } from '../take-node';
import type { Point } from '../../geometry/size';
import { drawnFurther, furtherAnchors, furtherSeamIn, furtherSlots, ringsOfFurther } from './copies';
import { drawnHanded, handedAnchors, handedFrame, handedSeam } from './hand-over';
import { keysOfSeam, type SeamKey } from './keys';
import { crossingLayers } from './where-crossing';
import { type CloneMoment, cloneMaterial, otherSide, seamIn, straightSeam, type Side } from './material';
import type { Anchor, Ruler } from '../recipe';
import { fillOf, plateSlot } from '../../model/slots';
import { spanAnchors } from '../anchors';
import type { Material } from '../material';

/** The plate inside a copy's outline, for the edge that a steadied copy leaves. */
const underId = (slot: string): string => `plate-under-${slot}`;

const titles = { start: 'Begins on', lands: 'The copy appears on', end: 'Ends on' };

/** The instants of a clone. */
export function cloneAnchors(moment: CloneMoment, ruler: Ruler): Anchor[] {
  const [start, lands, end] = spanAnchors(moment, ruler, titles, 'Copy appears');
  return [start, lands, ...handedAnchors(moment, ruler), ...furtherAnchors(moment, ruler), end];
}

/** First frame, frame on which the copy appears, and the frame after the last. */
export function cloneFrames(moment: CloneMoment, ruler: Ruler) {
  const [start, lands, end] = spanAnchors(moment, ruler, titles, '').map((anchor) => anchor.frame);
  return { start, lands: Math.max(start, lands), end: Math.max(start + 1, end) };
}

/** The outline in force: drawn by hand, else solved, else straight; shares of the frame. */
export function ringsInForce({ settings }: CloneMoment, { solved }: Material): Point[][] {
  const found = seamIn(solved)?.rings ?? [];
  if (settings.seam) return [settings.seam];
  return found.length > 0 ? found : [straightSeam];
}

/** The outline from the hand-over on: drawn, else solved, else as before it; shares of the frame. */
export function ringsHanded(moment: CloneMoment, material: Material): Point[][] {
  const drawn = drawnHanded(moment);
  if (drawn) return [drawn];
  const found = handedSeam(material)?.rings ?? [];
  return found.length > 0 ? found : ringsInForce(moment, material);
}

/** A stretch of frames of the film, its end excluded. */
type Frames = { from: number; until: number };

/** The outlines of the join of the first two over a stretch. */
export const keysBefore = (moment: CloneMoment, material: Material, frames: Frames): SeamKey[] =>
  keysOfSeam(ringsInForce(moment, material), moment.settings.seam ? null : seamIn(material.solved), frames);

/** The outlines from the hand-over on. */
export const keysHanded = (moment: CloneMoment, material: Material, frames: Frames): SeamKey[] =>
  keysOfSeam(ringsHanded(moment, material), drawnHanded(moment) ? null : handedSeam(material), frames);

/** The outlines of a further copy. */
export const keysOfFurther = (
  moment: CloneMoment,
  material: Material,
  slot: string,
  frames: Frames,
): SeamKey[] =>
  keysOfSeam(
    ringsOfFurther(moment, material, slot),
    drawnFurther(moment, slot) ? null : furtherSeamIn(material, slot),
    frames,
  );

/**
 * The picture of a clone: the plate at the back, who is there from the start over the whole frame, and the copy
 * inside the seam from its beat on; where they stand in one place, both are cut out, one behind the other. Where steadying takes the copy's take off an edge, the plate shows there too.
 */
export function buildClone(moment: CloneMoment, ruler: Ruler, material: Material): Node {
  const chosen = cloneMaterial(material);
  const { settings } = moment;
  const { project } = ruler;
  const { width, height } = project;
  const { start, lands, end } = cloneFrames(moment, ruler);
  const inPixels = (keys: readonly SeamKey[]): SeamKey[] =>
    keys.map(({ frame, rings }) => ({
      frame,
      rings: rings.map((ring) => ring.map(([x, y]): Point => [x * width, y * height])),
    }));
  const changes = handedFrame(moment, ruler, { lands, end });
  const first = settings.first;
  const copy = otherSide(first);
  const seam = outlineMatte(
    'parent',
    inPixels([
      ...keysBefore(moment, material, { from: lands, until: changes ?? end }),
      ...(changes === null ? [] : keysHanded(moment, material, { from: changes, until: end })),
    ]),
    settings.feather,
    // What is drawn is where the right take shows.
    copy === 'left',
  );
  const appear = (on: number): Track =>
    settings.fade > 0
      ? [
          { frame: on - 1, value: 0, ease: gentle },
          { frame: on - 1 + settings.fade, value: 1, ease: 'hold' },
        ]
      : still(1);
  const name = (side: Side) => `${side === 'left' ? 'Left' : 'Right'}: ${chosen[side]?.take.name ?? ''}`;
  const { takes } = material;
  /** A copy inside its outline, with the plate under it where steadying takes it off an edge. */
  const laid = (slot: string, called: string, from: number, matte: Matte): MediaNode[] => {
    const rest = { mattes: [matte], opacity: appear(from) };
    const under = { from, until: end, at: 0, hold: true };
    const into = takes[slot] ?? null;
    return [
      ...(into?.take.steady
        ? takeNode(project, underId(slot), 'Clean plate under the copy', chosen.plate, under, rest)
        : []),
      ...takeNode(project, slot, called, into, { from, until: end, at: fillOf(moment, slot).at }, rest),
    ];
  };
  const shot = groupOf('shot', { width, height }, { from: start, until: end }, [
    ...takeNode(project, plateSlot, 'Clean plate', chosen.plate, {
      from: start,
      until: end,
      at: 0,
      hold: true,
    }),
    ...takeNode(project, first, name(first), chosen[first], {
      from: start,
      until: end,
      at: fillOf(moment, first).at,
    }),
    ...laid(copy, name(copy), lands, seam),
    ...crossingLayers(moment, ruler, { start, lands, end }, material, appear(lands)),
    ...furtherAnchors(moment, ruler).flatMap(({ name: slot, frame }) => {
      const from = Math.min(Math.max(lands, frame), end - 1);
      const around = inPixels(keysOfFurther(moment, material, slot, { from, until: end }));
      const called = `${furtherSlots.find(({ key }) => key === slot)?.title}: ${takes[slot]?.take.name ?? ''}`;
      const matte = outlineMatte('parent', around, settings.feather);
      return laid(slot, `${called[0].toUpperCase()}${called.slice(1)}`, from, matte);
    }),
  ]);
  return withRepeats(shot, material, first, project);
}
