import { valueAt } from '../motion/keyframes';
import type { Node } from './node';
import { instantsOf } from './shutter';

/** A picture of a file, by the file's seconds. */
export type Wanted = { media: string; seconds: number; between?: 'moves' };

/** What tells one wish from another. */
export const wishOf = ({ media, seconds, between }: Wanted): string => `${media} ${seconds} ${between ?? ''}`;

/** What a node itself asks for at an instant. */
function ownPictures({ content, mattes }: Node, at: number): Wanted[] {
  const own: Wanted[] = [];
  if (content.is === 'media')
    own.push({ media: content.media, seconds: valueAt(content.time, at), between: content.between });
  if (content.is === 'coverage') own.push({ media: content.media, seconds: 0 });
  for (const { shape } of mattes)
    if (shape.is === 'raster') own.push({ media: shape.media, seconds: valueAt(shape.time, at) });
  return own;
}

function walk(node: Node, frame: number, at: number): Wanted[] {
  return instantsOf(node, frame, at).flatMap((instant) => {
    const { content } = node;
    const inside =
      content.is === 'group'
        ? content.nodes.flatMap((child) => walk(child, frame, instant))
        : content.is === 'copies'
          ? content.copies.flatMap(({ later }) => walk(content.node, frame + later, instant + later))
          : [];
    return [...ownPictures(node, instant), ...inside];
  });
}

/** Every picture that painting a frame can ask for, each once; those of nodes that do not show just then among them. */
export function picturesIn(tree: Node, frame: number): Wanted[] {
  const all = walk(tree, frame, frame);
  return [...new Map(all.map((one) => [wishOf(one), one])).values()];
}
