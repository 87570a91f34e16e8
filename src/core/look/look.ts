import { gentle } from '../motion/easing';
import { still, type Track } from '../motion/keyframes';
import { groupOf, nodeOf, type Effect, type Node } from '../picture/node';
import type { Moment } from '../model/records';
import type { Anchor, Ruler, Step } from '../recipes/recipe';
import { changedIn, lookQuantities, tones, wholeLook, type LookQuantity } from './schema';

/** size of grains and length of waves in shares of the frame's height, softness and threshold of the glow */
const [grain, waves, glowing, bright] = [1 / 540, 1 / 9, 1 / 45, 0.55];

/** How much of a quantity there is at each frame: all of the time, or struck on the landing. */
function trackOf(moment: Moment, anchors: readonly Anchor[], name: LookQuantity, factor: number): Track {
  const look = wholeLook(moment.look);
  const value = look[name] * factor;
  if (look.when === 'always') return still(value);
  const lands = anchors.find((anchor) => anchor.name === 'lands')?.frame ?? 0;
  const plain = lookQuantities[name].plain * factor;
  return [
    { frame: lands - 1, value: plain, ease: 'hold' },
    { frame: lands, value, ease: gentle },
    { frame: lands + look.dies, value: plain, ease: 'hold' },
  ];
}

/** The effects of a look, in the order in which light would meet them: the lens first, the print last. */
function effectsOf(moment: Moment, anchors: readonly Anchor[], height: number): Effect[] {
  const changed = changedIn(moment.look);
  const has = (...names: LookQuantity[]) => names.some((name) => changed.includes(name));
  const of = (name: LookQuantity) => trackOf(moment, anchors, name, 1);
  const share = (name: LookQuantity) => trackOf(moment, anchors, name, 1 / 100);
  const look = wholeLook(moment.look);
  const effects: (Effect | false)[] = [
    has('bend') && { is: 'bend', amount: share('bend') },
    has('wave') && { is: 'wave', by: of('wave'), length: height * waves, turned: still(0) },
    has('zoom') && { is: 'zoom', share: share('zoom') },
    has('sweep') && { is: 'directional', length: of('sweep'), angle: still(look.along) },
    has('blur') && { is: 'blur', radius: of('blur') },
    has('square') && { is: 'box', reach: of('square') },
    has('fringe') && { is: 'split', x: of('fringe'), y: still(0) },
    has('glow') && { is: 'glow', radius: still(height * glowing), from: bright, amount: share('glow') },
    has('brightness', 'saturation', 'hue') && {
      is: 'colours',
      brightness: share('brightness'),
      saturation: share('saturation'),
      hue: of('hue'),
    },
    has('tone') && { is: 'tint', rgb: [...tones[look.toneOf]], amount: share('tone') },
    has('negative') && { is: 'negative', amount: share('negative') },
    has('corners') && { is: 'vignette', amount: share('corners') },
  ];
  return effects.filter((effect) => effect !== false);
}

/** A picture with the look of its moment; the same object where that is as filmed. */
export function withLook(tree: Node, moment: Moment, anchors: readonly Anchor[], ruler: Ruler): Node {
  const changed = changedIn(moment.look);
  if (changed.length === 0) return tree;
  const { width, height } = ruler.project;
  const span = { from: tree.from, until: tree.until };
  const grains = nodeOf({
    id: 'grain',
    name: 'Grain',
    ...span,
    content: { is: 'noise', seed: 1, grain: Math.max(1, height * grain) },
    opacity: trackOf(moment, anchors, 'grain', 1 / 100),
    blend: 'overlay',
  });
  const looked = groupOf('look', { width, height }, span, [tree], {
    effects: effectsOf(moment, anchors, height),
  });
  return changed.includes('grain') ? groupOf('grained', { width, height }, span, [looked, grains]) : looked;
}

/** The look as a step of a sheet. */
export function explainLook(moment: Moment, anchors: readonly Anchor[]): Step[] {
  const changed = changedIn(moment.look);
  if (changed.length === 0) return [];
  const look = wholeLook(moment.look);
  const toned = changed.includes('tone') ? ` The tone is ${look.toneOf}.` : '';
  const turned = changed.includes('sweep') ? ` The line of the blur is turned by ${look.along}°.` : '';
  const hit =
    look.when === 'hit' ? ` It is struck on the landing and dies away over ${look.dies} frames.` : '';
  return [
    {
      title: 'Give it its look',
      text: `Group everything and lay these on the group, in this order.${toned}${turned}${hit}`,
      rows: changed.flatMap((name) =>
        trackOf(moment, anchors, name, 1).map(({ frame, value, ease }) => ({
          frame,
          layer: 'everything',
          what: lookQuantities[name].title.toLowerCase(),
          value,
          unit: lookQuantities[name].unit,
          then: ease === 'hold' ? ('holds' as const) : ('eases' as const),
          ...(ease === 'hold' ? {} : { curve: ease }),
        })),
      ),
    },
  ];
}
