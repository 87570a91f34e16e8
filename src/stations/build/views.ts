import { bare, nodesIn, running, secondsAt, type MediaNode, type Node } from '@/core/picture/node';
import type { Rate } from '@/core/time/rate';
import type { Moment } from '@/core/model/records';
import { slotsInUse } from '@/core/recipes/built';
import type { Recipe, View } from '@/core/recipes/recipe';
import type { Showing } from '@/ui/stage/use-painter';

const viewKeys = ['Q', 'W', 'E', 'R', 'T', 'Y', 'U', 'I', 'O', 'P'];

/** The key of a view by its place in the order in which a kind names them; those far behind have none. */
export const viewKey = (index: number): string | null => viewKeys[index] ?? null;

/** The views of a kind that one moment has something for. @param hasOutline true where there is one to take hold of */
export function viewsIn(
  moment: Moment,
  recipe: Recipe,
  hasOutline: (slot: string | undefined) => boolean,
): View[] {
  const used = slotsInUse(moment, recipe).map(({ key }) => key);
  const unused = recipe.slots.map(({ key }) => key).filter((key) => !used.includes(key));
  return recipe.views.filter(
    ({ alone, outline }) =>
      (!alone || !unused.includes(alone)) && (!outline || hasOutline(outline === true ? undefined : outline)),
  );
}

/** What a view paints; null where the take that it looks at is missing. What is looked at by itself exists from its own first frame on. */
export function showingOf(view: View, tree: Node, frame: number, rate: Rate): Showing | null {
  if (!view.alone) return { tree, against: null, frame };
  const node = (id: string | undefined) => nodesIn(tree).find((one) => one.id === id);
  const [one, other] = [node(view.alone), node(view.against)];
  if (!one || (view.against && !other)) return null;
  return {
    tree: bare(asSeen(view, one, tree.until, rate)),
    against: other ? bare(other) : null,
    frame: Math.max(frame, one.from, other?.from ?? frame),
  };
}

/** A layer by itself, as a view wants it. */
function asSeen(view: View, node: Node, until: number, rate: Rate): Node {
  const filmed = view.asFilmed ? asFilmed(node as MediaNode, until, rate) : node;
  return view.unmoved ? unmoved(filmed) : filmed;
}

/** A picture where it lies in the frame, before anything moves it: its steps up to the one that fills the frame. */
const unmoved = (node: Node): Node => ({
  ...node,
  transforms: node.transforms.slice(0, node.transforms.findIndex(({ is }) => is === 'map') + 1),
});

/** A take as fast as it was filmed, from the picture that it begins with, to the end of the moment. */
const asFilmed = (node: MediaNode, until: number, rate: Rate): MediaNode => ({
  ...node,
  until,
  content: {
    ...node.content,
    time: running(secondsAt(node, node.from), node.from, until, rate),
  },
});
