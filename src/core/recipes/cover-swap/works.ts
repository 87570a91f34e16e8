import type { UnderSpan, UnderTask } from '../../footage/under';
import type { Point } from '../../geometry/size';
import { fillOf } from '../../model/slots';
import { timeOfFrame } from '../../time/rate';
import { frameInFile } from '../cutouts';
import { followWork, tapsToFollow } from '../follow-point';
import type { Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { coverFrames, patchOf, type CoverMoment } from './build';
import { swapSlot } from './slots';

const under = 'under';

/** What moves under the patch while it is there, in seconds of the take; null while that is not known. */
export const underIn = ({ solved }: Material): readonly UnderSpan[] | null => {
  const answer = solved[under];
  return answer?.method === 'under-1' ? answer.spans : null;
};

/** Looks for what moves under the patch until it is gone; or where what it goes along with is. */
export function coverWorks(moment: CoverMoment, ruler: Ruler, material: Material): Work[] {
  const swap = material.takes[swapSlot.key];
  if (!swap?.measure) return [];
  const { project } = ruler;
  const { start, gone } = coverFrames(moment, ruler);
  const from = fillOf(moment, swapSlot.key).at;
  const until = from + timeOfFrame(project.rate, gone - start);
  // Under a patch that goes along with something, that moves.
  if (tapsToFollow(moment, swapSlot.key).length > 0)
    return followWork(moment, material, swapSlot.key, project, [from, until]);
  const { size } = swap.measure;
  const ring = frameInFile(patchOf(moment), size, project).map(([x, y]): Point => [
    x / size.width,
    y / size.height,
  ]);
  const task = (): UnderTask => ({ is: 'under', media: swap.take.media, from, until, ring });
  const { media, matrix } = swap.take;
  return [
    {
      name: under,
      title: 'what moves under the patch',
      is: 'under',
      parts: [media, matrix, from, until, ring],
      task,
    },
  ];
}
