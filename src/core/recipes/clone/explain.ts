import { plateSlot } from '../../model/slots';
import { isHeld, mediaIn, secondsAt, type MediaNode, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { formatClock, formatTimecode } from '../../time/timecode';
import { rowsOfTake, tellGrade, tellMask } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { repeatsMove } from '../repeats';
import { cloneFrames } from './build';
import { furtherAnchors } from './copies';
import type { CloneMoment } from './material';

/** A clone in steps and numbers that fit any editor. */
export function explainClone(moment: CloneMoment, ruler: Ruler, material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const { lands } = cloneFrames(moment, ruler);
  const instants = furtherAnchors(moment, ruler);
  const code = (frame: number) => formatTimecode(frame, project.rate);
  const tell = (node: MediaNode): string => {
    const span = `from ${code(node.from)} until ${code(node.until)}`;
    const texts = [
      isHeld(node)
        ? `Put one picture of the clean plate at the back, ${span}.`
        : `${node.id === plateSlot ? 'Let the clean plate run at the back' : 'Lay the take over what is there'} ${span}. ` +
          `Its picture at ${formatClock(secondsAt(node, node.from))} of the file shows first.`,
    ];
    const [mask] = node.mattes;
    const own = instants.find(({ name }) => name === node.id);
    if (own) texts.push(`It first shows on ${beatLabel(grid, own.position)}, frame ${own.frame}.`);
    else if (node.id !== plateSlot && node.from === lands && mask)
      texts.push(`It first shows on ${beatLabel(grid, moment.lands)}, frame ${lands}.`);
    if (node.transforms.some((one) => one.is === 'move'))
      texts.push(
        repeatsMove(material)
          ? `Move it with the numbers below, so that it follows the camera of the ${moment.settings.first} take.`
          : 'Move it back to where the plate stands with the numbers below.',
      );
    if (node.grade) texts.push(tellGrade(node.grade));
    if (mask) texts.push(tellMask(mask, node.from));
    return texts.join(' ');
  };
  return mediaIn(tree).map((node) => ({
    title: node.name,
    text: tell(node),
    rows: rowsOfTake(node, { width: project.width, height: project.height }),
  }));
}
