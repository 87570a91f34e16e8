import { mediaIn, secondsAt, type MediaNode, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { formatClock, formatTimecode } from '../../time/timecode';
import { rowsOfTake, rowsOfWhole, tellGrade } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { halves, whipFrames, type WhipMoment } from './build';
import { whole } from './settings';

/** A whip in steps and numbers that fit any editor. */
export function explainWhip(moment: WhipMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const { cut, first, last } = whipFrames(moment, ruler);
  const { edges, blur } = whole(moment.settings);
  const code = (frame: number) => formatTimecode(frame, project.rate);
  const tell = (node: MediaNode): string => {
    const away = node.until === cut;
    const curve = halves[away ? 'out' : 'in'].join(', ');
    const texts = [
      `Lay the take from ${code(node.from)} until ${code(node.until)}; its picture at ${formatClock(secondsAt(node, node.from))} of the file shows first.`,
      away
        ? `It flies away from frame ${first} to the cut on frame ${cut} (${beatLabel(grid, moment.lands)}), ever faster: cubic-bezier(${curve}).`
        : `It flies in from the cut on frame ${cut} to frame ${last}, ever slower: cubic-bezier(${curve}).`,
    ];
    if (node.grade) texts.push(tellGrade(node.grade));
    return texts.join(' ');
  };
  const size = { width: project.width, height: project.height };
  return [
    ...mediaIn(tree).map((node) => ({ title: node.name, text: tell(node), rows: rowsOfTake(node, size) })),
    {
      title: 'Over both',
      text: [
        edges === 'mirrored'
          ? 'Fill what the flight uncovers with mirrored copies of the picture on all sides.'
          : 'The size in the numbers above keeps the edges out of the frame while the picture flies.',
        blur > 0
          ? `Blur the movement along its travel as a shutter of ${blur}° does: the mean over ${(blur / 360).toFixed(2)} of each frame.`
          : 'The movement is not blurred.',
      ].join(' '),
      rows: rowsOfWhole(tree, size),
    },
  ];
}
