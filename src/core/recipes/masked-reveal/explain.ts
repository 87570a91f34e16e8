import { mediaIn, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { rowsOfTake, tellLaid } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { carrier } from './follow';
import { revealFrames, type RevealMoment } from './takes';
import { wholeReveal } from './settings';
import { beforeSlot } from './slots';

const edges = {
  line: ({ angle }: { angle: number }) =>
    `a straight edge that moves towards ${angle}° (0° to the right, 90° downwards), evenly`,
  circle: ({ across, down }: { across: number; down: number }) =>
    `a circle that grows evenly from ${across} % across and ${down} % down`,
  drawn: () => 'a drawn shape whose corners move evenly from key to key',
  falling: () => 'a level edge that falls from the top, from rest and ever faster',
};

/** A reveal in steps and numbers that fit any editor. */
export function explainReveal(moment: RevealMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const settings = wholeReveal(moment.settings);
  const { lands, done } = revealFrames(moment, ruler);
  const carried = carrier(moment);
  const course = carried
    ? `from frame ${lands} (${beatLabel(grid, moment.lands)}) on; it goes with what lies under it in the ${carried.title}, and needs the keys below`
    : `from frame ${lands} (${beatLabel(grid, moment.lands)}), where nothing of it shows yet, to frame ${done}, where the change is over`;
  return mediaIn(tree).map((node) => ({
    title: node.name,
    text: [
      tellLaid(node, project.rate),
      ...(node.id.startsWith(beforeSlot.key) || node.mattes.length === 0
        ? []
        : [
            `It shows behind ${edges[settings.edge](settings)}: ${course}. Feather the edge by ${settings.soft} px in all, half on each side.`,
          ]),
    ].join(' '),
    rows: rowsOfTake(node, project),
  }));
}
