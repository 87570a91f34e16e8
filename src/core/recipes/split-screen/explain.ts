import { mediaIn, secondsAt, type Node } from '../../picture/node';
import { formatClock, formatTimecode } from '../../time/timecode';
import { rowsOfTake, tellGrade, tellMask } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import type { SplitMoment } from './build';

/** A split in steps and numbers that fit any editor. */
export function explainSplit(_moment: SplitMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project } = ruler;
  const code = (frame: number) => formatTimecode(frame, project.rate);
  return mediaIn(tree).map((node) => ({
    title: node.name,
    text: [
      `Lay the take from ${code(node.from)} until ${code(node.until)}; its picture at ${formatClock(secondsAt(node, node.from))} of the file shows first.`,
      'Give it the size and place in the numbers.',
      ...node.mattes.map((matte) => tellMask(matte, node.from)),
      ...(node.grade ? [tellGrade(node.grade)] : []),
    ].join(' '),
    rows: rowsOfTake(node, project),
  }));
}
