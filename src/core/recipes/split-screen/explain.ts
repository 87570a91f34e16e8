import { mediaIn, type Node } from '../../picture/node';
import { rowsOfTake, tellLaid, tellMask } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import type { SplitMoment } from './build';

/** A split in steps and numbers that fit any editor. */
export function explainSplit(_moment: SplitMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project } = ruler;
  return mediaIn(tree).map((node) => ({
    title: node.name,
    text: [
      tellLaid(node, project.rate),
      node.transforms.at(-1)?.is === 'move'
        ? 'Give it the size and place in the numbers, which push it so that the followed point stays in the middle of the panel.'
        : 'Give it the size and place in the numbers.',
      ...node.mattes.map((matte) => tellMask(matte, node.from)),
    ].join(' '),
    rows: rowsOfTake(node, project),
  }));
}
