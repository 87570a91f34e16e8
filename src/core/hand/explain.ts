import type { Moment } from '../model/records';
import type { Node } from '../picture/node';
import { afterOthers, rowsOfWhole } from '../recipes/explain-node';
import type { Anchor, Ruler, Step } from '../recipes/recipe';
import { wholeMove } from './move';
import { wholeHandheld } from './schema';

/**
 * The movement of the whole picture by hand as the last step of a sheet; that of layers stands with what else is said
 * of those.
 * @param built the picture without it
 */
export function explainHand(moment: Moment, built: Node, anchors: readonly Anchor[], ruler: Ruler): Step[] {
  const whole = wholeMove(moment, built, anchors, ruler);
  if (!whole) return [];
  const { strength } = wholeHandheld(moment.handheld);
  const why = strength > 0 ? ` It sways by ${strength} % of the width, as if it were held in a hand.` : '';
  const rows = rowsOfWhole(
    { ...built, transforms: [whole.step], shutter: null, edges: 'empty' },
    ruler.project,
  );
  return [
    {
      title: 'Move all of it',
      text: `Group everything and move the group with the numbers below.${why} In them it is enlarged to ${(100 * whole.cover).toFixed(2)} %, so that no edge shows.`,
      rows: built.transforms.length > 0 ? rows.map(afterOthers) : rows,
    },
  ];
}
