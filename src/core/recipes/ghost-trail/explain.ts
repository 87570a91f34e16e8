import { mediaIn, type MediaNode, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { maskedAs, rowsOfTake, tellLaid, tellMask } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { inFront, moveSlot } from './slots';
import { ghostFrames, type GhostMoment } from './trail';

/** A ghost trail in steps and numbers that fit any editor: the outlines once, and the copies by how late they are. */
export function explainGhost(moment: GhostMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const { lands } = ghostFrames(moment, ruler);
  const nodes = mediaIn(tree);
  const front = nodes.find(({ id }) => id === inFront);
  const on = `frame ${lands} (${beatLabel(grid, moment.lands)})`;
  const step = (node: MediaNode): Step => {
    if (node.id === moveSlot.key || !front)
      return { title: node.name, text: tellLaid(node, project.rate), rows: rowsOfTake(node, project) };
    if (node === front)
      return {
        title: node.name,
        text: [
          tellLaid(node, project.rate),
          'It lies over all copies.',
          ...node.mattes.map((matte) => tellMask(matte, node.from)),
          'The outline has a key for each of its pictures.',
        ].join(' '),
        rows: rowsOfTake(node, project),
      };
    const opacity = Math.round(100 * node.opacity[0].value);
    return {
      title: node.name,
      text: `${tellLaid(node, project.rate)} Cut it out as “${front.name}”, whose outlines belong to the same pictures of the file, and let it show at ${opacity} %. It stays behind, follows, and runs into the performer on ${on}.`,
      rows: [...rowsOfTake({ ...node, mattes: [] }, project), maskedAs(node, front)],
    };
  };
  return nodes.map(step);
}
