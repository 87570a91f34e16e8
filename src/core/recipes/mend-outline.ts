import type { Figure } from '../footage/figures';
import type { Point, Size } from '../geometry/size';
import { mostMendPoints, type Mend } from '../model/mend';
import { timeOfFrame } from '../time/rate';
import { fileInFrame, frameInFile } from './cutouts';
import type { Outline, Ruler } from './recipe';

/** ten-thousandths of the picture are finer than any hand */
const rounded = (value: number): number => Math.round(value * 1e4) / 1e4;

/** As many of some points as a stroke may have, evenly. */
const fewer = (points: readonly Point[]): Point[] => {
  const step = Math.max(1, (points.length - 1) / (mostMendPoints - 1));
  const count = Math.min(points.length, mostMendPoints);
  return Array.from({ length: count }, (_, index) => points[Math.round(index * step)]);
};

/**
 * Who is cut out of one picture of a take, to be put right by strokes.
 * @param figure the picture, as it was cut out
 * @param source pixels of the take
 * @param mends the strokes so far, a setting of the moment
 * @param frameShowing the frame on which the take shows a picture of some seconds
 */
export function mendOutline(
  { project }: Ruler,
  figure: Figure,
  source: Size,
  mends: readonly Mend[],
  frameShowing: (seconds: number) => number,
): Outline {
  const half = timeOfFrame(project.rate, 1) / 2;
  const isHere = ({ seconds }: Mend) => Math.abs(seconds - figure.seconds) < half;
  const inFile = (points: readonly Point[]): Point[] =>
    frameInFile(points, source, project).map(([x, y]): Point => [
      rounded(x / source.width),
      rounded(y / source.height),
    ]);
  const onFrames = mends.map(({ seconds }) => frameShowing(seconds));
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
