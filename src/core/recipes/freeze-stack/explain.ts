import { mediaIn, type MediaNode, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { rowsOfTake, tellLaid, tellMask } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { tellShake } from '../ground-shake';
import { freezeAnchors, shakeOf, type FreezeMoment } from './build';
import { wholeFreeze } from './settings';
import { pieceAnchor, poseSlot } from './slots';

/** What light is to be taken out of a layer. */
function tellSpill({ content: { without } }: MediaNode): string[] {
  if (!without) return [];
  const [red, green, blue] = without.map(Math.round);
  return [`Take the light of its backdrop out of it: spill of red ${red}, green ${green}, blue ${blue}.`];
}

/** A freeze stack in steps and numbers that fit any editor. */
export function explainFreeze(moment: FreezeMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const { pieces, shake } = wholeFreeze(moment.settings);
  const anchors = freezeAnchors(moment, ruler);
  const steps = mediaIn(tree).map((node) => {
    const piece = Number(node.id.slice(poseSlot.key.length + 1));
    const anchor = anchors.find(({ name }) => name === pieceAnchor(piece, pieces));
    return {
      title: node.name,
      text: [
        tellLaid(node, project.rate),
        ...(anchor
          ? [
              'One picture of it stands all the time.',
              ...node.mattes.map((matte) => tellMask(matte, node.from)),
              ...tellSpill(node),
              `It turns and grows about the middle of its cut, and lands on frame ${anchor.frame} (${beatLabel(grid, anchor.position)}).`,
            ]
          : []),
      ].join(' '),
      rows: rowsOfTake(node, project),
    };
  });
  const hits = anchors.slice(1, -1).map(({ frame }) => frame);
  return [...steps, ...tellShake(tree, project, shakeOf(moment, ruler), hits, shake)];
}
