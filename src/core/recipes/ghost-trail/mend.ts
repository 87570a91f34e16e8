import { figureAt } from '../../footage/figures';
import type { Point } from '../../geometry/size';
import { mostMendPoints, type Mend } from '../../model/mend';
import { timeOfFrame } from '../../time/rate';
import { fileInFrame, frameInFile } from '../cutouts';
import type { Material } from '../material';
import type { Outline, Ruler } from '../recipe';
import { wholeGhost } from './settings';
import { moveSlot } from './slots';
import { figuresOf, frameShowing, ghostFrames, secondsOf, type GhostMoment } from './trail';

/** ten-thousandths of the picture are finer than any hand */
const rounded = (value: number): number => Math.round(value * 1e4) / 1e4;

/** As many of some points as a stroke may have, evenly. */
const fewer = (points: readonly Point[]): Point[] => {
  const step = Math.max(1, (points.length - 1) / (mostMendPoints - 1));
  const count = Math.min(points.length, mostMendPoints);
  return Array.from({ length: count }, (_, index) => points[Math.round(index * step)]);
};

/** Who is cut out of the picture of the take at a frame, to be put right by strokes; null where no copy shows it. */
export function ghostOutline(
  moment: GhostMoment,
  material: Material,
  ruler: Ruler,
  frame: number,
): Outline | null {
  const { project } = ruler;
  const source = material.takes[moveSlot.key]?.measure?.size;
  const figures = figuresOf(material);
  const at = secondsOf(moment, ruler);
  const figure = figureAt(figures ?? [], at(frame));
  if (!source || !figure || frame >= ghostFrames(moment, ruler).lands) return null;
  const { mends } = wholeGhost(moment.settings);
  const half = timeOfFrame(project.rate, 1) / 2;
  const isHere = ({ seconds }: Mend) => Math.abs(seconds - figure.seconds) < half;
  const inFile = (points: readonly Point[]): Point[] =>
    frameInFile(points, source, project).map(([x, y]): Point => [
      rounded(x / source.width),
      rounded(y / source.height),
    ]);
  const onFrames = mends.map(({ seconds }) => frameShowing(moment, ruler, seconds));
  return {
    title: 'who is cut out',
    setting: 'mends',
    rings: figure.rings.map((ring) => ring.map((point) => fileInFrame(point, source, project))),
    state: 'solved',
    keys: [...new Set(onFrames)].sort((one, other) => one - other),
    ...(mends.some(isHere) ? { without: mends.filter((mend) => !isHere(mend)) } : {}),
    mend: ({ keep, points, wide }) => {
      const [[from], [until]] = inFile([
        [0, 0],
        [wide, 0],
      ]);
      const stroke: Mend = {
        seconds: figure.seconds,
        keep,
        points: fewer(inFile(points)),
        wide: Math.max(0.001, rounded(until - from)),
      };
      return [...mends, stroke];
    },
  };
}
