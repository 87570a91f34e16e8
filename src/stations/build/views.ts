import { bare, nodesIn, type Node } from '@/core/picture/node';
import type { View } from '@/core/recipes/recipe';
import type { Showing } from '@/ui/stage/use-painter';

/** Keys of the views, in the order in which a kind names them. */
export const viewKeys = ['Q', 'W', 'E', 'R', 'T', 'Y', 'U', 'I'] as const;

/** What a view paints; null where the take that it looks at is missing. What is looked at by itself exists from its own first frame on. */
export function showingOf(view: View, tree: Node, frame: number): Showing | null {
  if (!view.alone) return { tree, against: null, frame };
  const node = (id: string | undefined) => nodesIn(tree).find((one) => one.id === id);
  const [one, other] = [node(view.alone), node(view.against)];
  if (!one || (view.against && !other)) return null;
  return {
    tree: bare(one),
    against: other ? bare(other) : null,
    frame: Math.max(frame, one.from, other?.from ?? frame),
  };
}
