import { mapPoint, multiplyAffine, unmoved, type Affine } from '../geometry/affine';
import { cornersOf, type Size } from '../geometry/size';
import { childrenOf, matrixAt, showsAt, type Node } from './node';

/** More sub-frames than this are not taken, however fast something moves. */
const most = 64;

const sizeOf = ({ content }: Node): Size | null => ('size' in content ? content.size : null);

/** How far, in pixels of the parent, the corner of any picture inside moves that moves furthest between two instants. */
function travelOf(node: Node, frame: number, one: number, other: number): number {
  const walk = (inner: Node, before: Affine, after: Affine): number => {
    if (!showsAt(inner, frame)) return 0;
    const [first, second] = [
      multiplyAffine(before, matrixAt(inner, one)),
      multiplyAffine(after, matrixAt(inner, other)),
    ];
    const size = sizeOf(inner);
    const own = (size ? cornersOf(size) : []).map((corner) => {
      const [from, to] = [mapPoint(first, corner), mapPoint(second, corner)];
      return Math.hypot(to[0] - from[0], to[1] - from[1]);
    });
    return Math.max(0, ...own, ...childrenOf(inner).map((child) => walk(child, first, second)));
  };
  return walk(node, unmoved, unmoved);
}

/**
 * The instants that a node's picture at a frame is the mean of; the frame's own alone where nothing moves.
 * @param at the frame, or an instant of it where the node is inside another with a shutter
 * @param factor pixels that are painted for each pixel that lengths count in
 * @see exposure as the mean over the time that the shutter is open
 */
export function instantsOf(node: Node, frame: number, at: number, factor = 1): number[] {
  if (!node.shutter) return [at];
  const open = node.shutter.angle / 360;
  const travel = travelOf(node, frame, at - open / 2, at + open / 2) * factor;
  const count = Math.min(most, Math.ceil(travel / node.shutter.apart - 1e-6));
  if (count < 2) return [at];
  return Array.from({ length: count }, (_, index) => at + open * ((index + 0.5) / count - 0.5));
}
