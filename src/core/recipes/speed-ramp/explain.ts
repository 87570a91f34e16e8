import { sourceAt, speedAt } from '../../motion/time-map';
import { mediaIn, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { formatClock, formatTimecode } from '../../time/timecode';
import { rowsOfTake, tellGrade } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { rampAnchors, rampTime, type RampMoment } from './build';
import { isFollowing } from './follow';
import { passSlot } from './slots';

/** A ramp in steps and numbers that fit any editor: one second of the file for each frame where its speed changes. */
export function explainRamp(moment: RampMoment, ruler: Ruler, material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const size = { width: project.width, height: project.height };
  const solved = rampTime(moment, ruler);
  const poses = rampAnchors(moment, ruler).slice(1, -1);
  return mediaIn(tree).map((node) => {
    const code = (frame: number) => formatTimecode(frame, project.rate);
    if (node.id !== passSlot.key)
      return {
        title: node.name,
        text: 'Lay the next picture of the take over it, as opaque as the numbers say. Or leave this layer out, let the first one show its seconds as they are between the keys, and turn on the blending of frames in your editor.',
        rows: rowsOfTake(node, size),
      };
    const texts = [
      `Lay the take from ${code(node.from)} until ${code(node.until)}, and set which second of it shows at each frame as the numbers say.`,
      ...(solved
        ? poses.map(({ frame, position }, index) => {
            const song = timeOfFrame(project.rate, frame);
            const percent = Math.round(100 * speedAt(solved.map, song));
            return `Pose ${index + 1}: ${formatClock(sourceAt(solved.map, song))} of the file on frame ${frame} (${beatLabel(grid, position)}), at ${percent} %.`;
          })
        : []),
      ...(node.content.between
        ? [
            'Where a second lies between two pictures, turn on the making of pictures along what moves (optical flow) in your editor; the render has them already.',
          ]
        : []),
      ...(isFollowing(moment, material, project)
        ? [
            'It is pushed against the movement of the followed point, and enlarged so that no edge shows, as the numbers say.',
          ]
        : []),
      ...(node.grade ? [tellGrade(node.grade)] : []),
    ];
    return { title: node.name, text: texts.join(' '), rows: rowsOfTake(node, size) };
  });
}
