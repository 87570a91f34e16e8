import type { Layer } from '@/core/picture/layers';
import type { View } from '@/core/recipes/recipe';
import { still } from '@/core/motion/keyframes';

/** Keys of the views, in the order in which a kind names them. */
export const viewKeys = ['Q', 'W', 'E', 'R', 'T', 'Y', 'U', 'I'] as const;

/** A layer by itself, over the whole frame. */
const alone = (layers: readonly Layer[], id: string | undefined): Layer[] =>
  layers.filter((layer) => layer.id === id).map((layer) => ({ ...layer, mask: null, opacity: still(1) }));

/** What a view paints. What is looked at by itself exists from its own first frame on. */
export function showingOf(
  view: View,
  layers: Layer[],
  frame: number,
): { layers: Layer[]; against: Layer[] | null; frame: number } {
  if (!view.alone) return { layers, against: null, frame };
  const [one, other] = [alone(layers, view.alone), alone(layers, view.against)];
  return {
    layers: one,
    against: view.against ? other : null,
    frame: Math.max(frame, ...[...one, ...other].map(({ from }) => from)),
  };
}
