import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import type { Moment } from '../model/records';
import { coverScale } from '../motion/edge-cover';
import { mediaIn, type Node } from '../picture/node';
import type { Anchor, Ruler } from '../recipes/recipe';
import { layerMove, movesOf, wholeMove } from './move';
import { wholeLayer } from './schema';
import { frameOfKey } from './track';

/** enlarged by more than this the softness is said. @see CRAFT.md, picture reserve */
const mostCover = 1.1;

const handTroubles = {
  'hand.lost': ({ facts, measured }) =>
    `${measured} of the keys set by hand counted from something that this moment no longer has (${facts.names}). They wait, and move nothing. Put it back, or take those keys out under “Keys by hand”.`,
  'hand.enlarged': ({ measured, allowed }) =>
    `The picture is enlarged by ${measured}, so that its movement shows no edge; more than ${allowed} begins to look soft. Move it less, enlarge it where it is keyed, or film with more picture around.`,
  'hand.bare': ({ facts, measured }) =>
    `Where “${facts.layer}” is moved by hand, black shows at the edge of the frame. Give it a size of ${measured} or more on every key, or move it less.`,
} satisfies Words;
type HandCode = keyof typeof handTroubles;
export const handWords: Words = handTroubles;

/**
 * What is wrong with the keys of a moment that were set by hand.
 * @param built the picture without them
 */
export function examineHand(
  moment: Moment,
  built: Node,
  anchors: readonly Anchor[],
  ruler: Ruler,
): Finding<HandCode>[] {
  const where = { moment: moment.id };
  const findings: Finding<HandCode>[] = [];
  const layers = mediaIn(built).map(({ id }) => id);
  const lost = Object.entries(moment.keys ?? {}).flatMap(([layer, values]) => {
    const gone = layers.length > 0 && layer !== wholeLayer && !layers.includes(layer);
    return Object.values(values)
      .flat()
      .filter((key) => gone || frameOfKey(key, anchors, ruler) === null)
      .map(({ from }) => (gone ? layer : from));
  });
  if (lost.length > 0)
    findings.push({
      code: 'hand.lost',
      severity: 'fix',
      where,
      measured: { value: lost.length, unit: 'count' },
      facts: { names: [...new Set(lost)].join(', ') },
    });
  const whole = wholeMove(moment, built, anchors, ruler);
  if (whole && whole.cover > mostCover)
    findings.push({
      code: 'hand.enlarged',
      severity: 'watch',
      where,
      measured: { value: whole.cover - 1, unit: 'share' },
      allowed: { value: mostCover - 1, unit: 'share' },
    });
  const [back] = mediaIn(built);
  const move = back && back.edges === 'empty' ? layerMove(moment, back.id, anchors, ruler) : null;
  const cover = move ? coverScale(movesOf(move.step, back), ruler.project) : 1;
  if (move && cover > 1.002)
    findings.push({
      code: 'hand.bare',
      severity: 'watch',
      where,
      measured: { value: cover, unit: 'share' },
      facts: { layer: back.name },
    });
  return findings;
}
