import { still } from '../../motion/keyframes';
import { groupOf, type Matte, type Node } from '../../picture/node';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { revealKeys } from './edge';
import { edgeKeys } from './follow';
import { wholeReveal } from './settings';
import { beforeSlot, revealedSlot } from './slots';
import { revealFrames, revealTakes, type RevealMoment } from './takes';

/** The picture of a reveal: the take before the change, and over it the other behind its moving edge. */
export function buildReveal(moment: RevealMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const size = { width: project.width, height: project.height };
  const { start, lands, end } = revealFrames(moment, ruler);
  const { soft } = wholeReveal(moment.settings);
  const keys = revealKeys(moment.settings, lands, size, edgeKeys(moment, ruler, material));
  const edge: Matte = {
    space: 'parent',
    shape: { is: 'outline', keys, between: 'moves' },
    inverted: false,
    grow: still(0),
    feather: still(soft),
  };
  return groupOf('shot', size, { from: start, until: end }, [
    ...revealTakes(moment, ruler, material, beforeSlot),
    ...(lands < end ? revealTakes(moment, ruler, material, revealedSlot(moment.settings), [edge]) : []),
  ]);
}
