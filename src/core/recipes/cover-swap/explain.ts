import { mediaIn, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { rowsOfTake, tellLaid, tellMask } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { coverFrames, type CoverMoment } from './build';
import { patchSlot } from './slots';

/** A cover swap in steps and numbers that fit any editor. */
export function explainCover(moment: CoverMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const { lands, gone } = coverFrames(moment, ruler);
  return mediaIn(tree).map((node) => ({
    title: node.name,
    text: [
      tellLaid(node, project.rate),
      ...(node.id === patchSlot.key
        ? [
            'One picture of it stands all the time.',
            ...node.mattes.map((matte) => tellMask(matte, node.from)),
            `It begins to go on frame ${lands} (${beatLabel(grid, moment.lands)}) and is gone on frame ${Math.max(lands, gone)}.`,
          ]
        : []),
    ].join(' '),
    rows: rowsOfTake(node, project),
  }));
}
