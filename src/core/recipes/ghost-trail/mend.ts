import { figureAt } from '../../footage/figures';
import type { Material } from '../material';
import { mendOutline } from '../mend-outline';
import type { Outline, Ruler } from '../recipe';
import { wholeGhost } from './settings';
import { moveSlot } from './slots';
import { figuresOf, frameShowing, ghostFrames, secondsOf, type GhostMoment } from './trail';

/** Who is cut out of the picture of the take at a frame, to be put right by strokes; null where no copy shows it. */
export function ghostOutline(
  moment: GhostMoment,
  material: Material,
  ruler: Ruler,
  frame: number,
): Outline | null {
  const source = material.takes[moveSlot.key]?.measure?.size;
  const figure = figureAt(figuresOf(material) ?? [], secondsOf(moment, ruler)(frame));
  if (!source || !figure || frame >= ghostFrames(moment, ruler).lands) return null;
  const { mends } = wholeGhost(moment.settings);
  return mendOutline(ruler, figure, source, mends, (seconds) => frameShowing(moment, ruler, seconds));
}
