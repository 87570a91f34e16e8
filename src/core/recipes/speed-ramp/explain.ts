import { sourceAt, speedAt } from '../../motion/time-map';
import { mediaIn, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { formatClock, formatTimecode } from '../../time/timecode';
import { rowsOfTake, tellGrade } from '../explain-node';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { rampAnchors, rampTime, type RampMoment } from './build';

/** A ramp in steps and numbers that fit any editor: one second of the file for each frame where its speed changes. */
export function explainRamp(moment: RampMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const size = { width: project.width, height: project.height };
  const solved = rampTime(moment, ruler);
  const poses = rampAnchors(moment, ruler).slice(1, -1);
  return mediaIn(tree).map((node) => {
    const code = (frame: number) => formatTimecode(frame, project.rate);
    const texts = [
      `Lay the take from ${code(node.from)} until ${code(node.until)}, and set which second of it shows at each frame as the numbers say.`,
      ...(solved
        ? poses.map(({ frame, position }, index) => {
            const song = timeOfFrame(project.rate, frame);
            const percent = Math.round(100 * speedAt(solved.map, song));
            return `Pose ${index + 1}: ${formatClock(sourceAt(solved.map, song))} of the file on frame ${frame} (${beatLabel(grid, position)}), at ${percent} %.`;
          })
        : []),
      ...(node.grade ? [tellGrade(node.grade)] : []),
    ];
    return { title: node.name, text: texts.join(' '), rows: rowsOfTake(node, size) };
  });
}
