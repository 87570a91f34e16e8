import { bare, nodesIn, running, secondsAt, type MediaNode, type Node } from '@/core/picture/node';
import type { Rate } from '@/core/time/rate';
import type { Moment } from '@/core/model/records';
import { slotsInUse } from '@/core/recipes/built';
import type { Recipe, View } from '@/core/recipes/recipe';
import type { Showing } from '@/ui/stage/use-painter';

/** Keys of the views, in the order in which a kind names them. */
export const viewKeys = ['Q', 'W', 'E', 'R', 'T', 'Y', 'U', 'I', 'O', 'P'] as const;

/** The views of a kind that one moment has something for. */
export function viewsIn(moment: Moment, recipe: Recipe): View[] {
  const used = slotsInUse(moment, recipe).map(({ key }) => key);
  const unused = recipe.slots.map(({ key }) => key).filter((key) => !used.includes(key));
  return recipe.views.filter(({ alone }) => !alone || !unused.includes(alone));
}

/** What a view paints; null where the take that it looks at is missing. What is looked at by itself exists from its own first frame on. */
export function showingOf(view: View, tree: Node, frame: number, rate: Rate): Showing | null {
  if (!view.alone) return { tree, against: null, frame };
  const node = (id: string | undefined) => nodesIn(tree).find((one) => one.id === id);
  const [one, other] = [node(view.alone), node(view.against)];
  if (!one || (view.against && !other)) return null;
  return {
    tree: bare(view.asFilmed ? asFilmed(one as MediaNode, rate) : one),
    against: other ? bare(other) : null,
    frame: Math.max(frame, one.from, other?.from ?? frame),
  };
}

/** A take as fast as it was filmed, from the picture that it begins with. */
const asFilmed = (node: MediaNode, rate: Rate): MediaNode => ({
  ...node,
  content: {
    ...node.content,
    time: running(secondsAt(node, node.from), node.from, node.until, rate),
  },
});
