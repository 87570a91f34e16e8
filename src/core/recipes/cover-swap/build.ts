import type { Point } from '../../geometry/size';
import type { MomentOf } from '../../model/records';
import { fillOf, plateSlot } from '../../model/slots';
import { linear } from '../../motion/easing';
import type { Track } from '../../motion/keyframes';
import { groupOf, outlineMatte, type Node } from '../../picture/node';
import { spanAnchors } from '../anchors';
import type { ChosenTake, Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { patchAlong } from './follow';
import { wholeCover } from './settings';
import { patchSlot, swapSlot } from './slots';

export type CoverMoment = MomentOf<'cover-swap'>;

const titles = { start: 'Begins on', lands: 'The patch goes on', end: 'Ends on' };

/** The instants of a cover swap. */
export const coverAnchors = (moment: CoverMoment, ruler: Ruler): Anchor[] =>
  spanAnchors(moment, ruler, titles, 'The patch goes');

/** Its first frame, the one on which the patch begins to go, that on which it is gone, and the one after its last. */
export function coverFrames(moment: CoverMoment, ruler: Ruler) {
  const [start, lands, last] = coverAnchors(moment, ruler).map(({ frame }) => frame);
  const end = Math.max(start + 1, last);
  const goes = Math.max(start, lands);
  return { start, lands: goes, gone: Math.min(end, goes + moment.settings.frames - 1), end };
}

/** A patch in the middle of the frame, until somebody draws one. */
export const usualPatch: Point[] = Array.from({ length: 8 }, (_, corner): Point => {
  const turn = ((corner + 0.5) * Math.PI) / 4;
  return [0.5 + 0.12 * Math.cos(turn), 0.5 + 0.2 * Math.sin(turn)];
});

/** The outline in force; shares of the frame. */
export const patchOf = ({ settings }: Pick<CoverMoment, 'settings'>): Point[] =>
  wholeCover(settings).patch ?? usualPatch;

/** What the patch shows: the take of the untouched object, else the plate. */
export const patchTake = ({ takes }: Material): ChosenTake | null =>
  takes[patchSlot.key] ?? takes[plateSlot] ?? null;

/** The picture of a cover swap: the take of the swap, and over the object a piece of the empty set until its beat. */
export function buildCover(moment: CoverMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const size = { width: project.width, height: project.height };
  const { start, lands, gone, end } = coverFrames(moment, ruler);
  const swap = material.takes[swapSlot.key] ?? null;
  const patch = patchTake(material);
  const until = Math.max(start + 1, gone);
  const keys = patchAlong(moment, patchOf(moment), ruler, material, { from: start, until }).map(
    ({ after, ring }) => ({
      frame: start + after,
      rings: [ring.map(([x, y]): Point => [x * size.width, y * size.height])],
    }),
  );
  const matte = outlineMatte('parent', keys, wholeCover(moment.settings).soft);
  const goes: Track =
    gone > lands
      ? [
          { frame: lands - 1, value: 1, ease: linear },
          { frame: gone, value: 0, ease: 'hold' },
        ]
      : [
          { frame: lands - 1, value: 1, ease: 'hold' },
          { frame: lands, value: 0, ease: 'hold' },
        ];
  return groupOf('shot', size, { from: start, until: end }, [
    ...takeNode(project, swapSlot.key, `Take of the swap: ${swap?.take.name ?? ''}`, swap, {
      from: start,
      until: end,
      at: fillOf(moment, swapSlot.key).at,
    }),
    ...takeNode(
      project,
      patchSlot.key,
      `Patch: ${patch?.take.name ?? ''}`,
      patch,
      { from: start, until, at: fillOf(moment, patchSlot.key).at, hold: true },
      {
        mattes: [{ ...matte, shape: { is: 'outline', keys, between: 'moves' } }],
        opacity: goes,
      },
    ),
  ]);
}
