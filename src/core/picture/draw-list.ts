import { invertAffine, mapPoint, multiplyAffine, unmoved, type Affine } from '../geometry/affine';
import { cornersOf, type Size } from '../geometry/size';
import { valueAt } from '../motion/keyframes';
import type { Cdl } from './grade';
import type { Rgb } from './spill';
import {
  childrenOf,
  matrixAt,
  secondsAt,
  showsAt,
  type Edges,
  type Fit,
  type Matte,
  type MediaNode,
  type Node,
  type Rings,
} from './node';
import { ringsAt } from './outline';
import { instantsOf } from './shutter';

/**
 * A mask in delivery pixels; the soft edge lies half on each side. One that is fitted to its picture counts in pixels
 * of the file.
 */
export type DrawMask = { rings: Rings; feather: number; inverted: boolean; fit?: Fit };

/** What the planar painter needs to know of one file's picture in one frame. */
export type DrawItem = {
  /** id of the node */
  node: string;
  media: string;
  /** seconds in the file */
  time: number;
  /** what shows where they lie between two pictures: the earlier one, or one made of both along what moves */
  between?: 'moves';
  /** the colour of a backdrop whose light is taken out */
  without?: Rgb;
  /** size that `matrix` counts in; a proxy is scaled up to it */
  size: Size;
  /** the file's pixels to delivery pixels */
  matrix: Affine;
  edges: Edges;
  grade: Cdl | null;
  mask: DrawMask | null;
  /** 0..1 */
  opacity: number;
};

/** What is to be painted at one instant, from the back to the front. */
export type DrawList = DrawItem[];

/**
 * A matte as a mask of the planar painter; null where it is more than that can paint.
 * @param own the content's pixels to delivery pixels
 * @param outer the parent's pixels to delivery pixels
 */
function maskOf(matte: Matte, frame: number, own: Affine, outer: Affine): DrawMask | null {
  const { shape, space, inverted, grow, feather } = matte;
  if (shape.is !== 'outline' || valueAt(grow, frame) !== 0) return null;
  if (shape.fit) return { rings: ringsAt(shape, frame), feather: 0, inverted, fit: shape.fit };
  const map = space === 'content' ? own : outer;
  const scale = Math.sqrt(Math.abs(map[0] * map[3] - map[1] * map[2]));
  const rings = ringsAt(shape, frame);
  return {
    rings: map === unmoved ? rings : rings.map((ring) => ring.map((point) => mapPoint(map, point))),
    feather: valueAt(feather, frame) * scale,
    inverted,
  };
}

/** @param outer the parent's pixels to delivery pixels */
function itemOf(node: MediaNode, at: number, outer: Affine): DrawItem | null {
  const matrix = outer === unmoved ? matrixAt(node, at) : multiplyAffine(outer, matrixAt(node, at));
  const [matte, ...others] = node.mattes;
  const mask = matte ? maskOf(matte, at, matrix, outer) : null;
  if (others.length > 0 || (matte && !mask) || node.crop) return null;
  const { media, size, between, without } = node.content;
  return {
    node: node.id,
    media,
    time: secondsAt(node, at),
    ...(between ? { between } : {}),
    ...(without ? { without } : {}),
    size,
    matrix,
    edges: node.edges,
    grade: node.grade,
    mask,
    opacity: Math.min(1, valueAt(node.opacity, at)),
  };
}

/** A group that is only its nodes, one over the other, perhaps moved as a whole. */
const isBare = ({ content, crop, grade, mattes, opacity }: Node, at: number): boolean =>
  content.is === 'group' && !crop && !grade && mattes.length === 0 && valueAt(opacity, at) >= 1;

/**
 * A group's pixels to delivery pixels; null where it is moved so that its own edge comes into sight: what its nodes
 * have beyond that edge must not show.
 */
function movedGroup(
  node: Node,
  at: number,
  outer: Affine,
  sizes: { own: Size; parent: Size },
): Affine | null {
  if (node.transforms.length === 0) return outer;
  const moved = multiplyAffine(outer, matrixAt(node, at));
  const back = invertAffine(moved);
  const { own, parent } = sizes;
  const slack = 1e-6 * own.width;
  const covers = cornersOf(parent)
    .map((corner) => mapPoint(back, corner))
    .every(([x, y]) => x >= -slack && y >= -slack && x <= own.width + slack && y <= own.height + slack);
  return covers ? moved : null;
}

/** The one layer through whose own shutter a picture is taken, at an instant; the others stand at the frame itself. */
type Open = { node: Node; at: number } | null;

function listOf(
  node: Node,
  frame: number,
  at: number,
  outer: Affine,
  parent: Size,
  open: Open,
): DrawList | null {
  if (!showsAt(node, frame) || valueAt(node.opacity, at) <= 0) return [];
  if (node.blend !== 'normal' || node.effects.length > 0) return null;
  const { content } = node;
  if (content.is === 'media') {
    const item = itemOf(node as MediaNode, at, outer);
    return item && [item];
  }
  if (content.is !== 'group' || !isBare(node, at)) return null;
  const moved = movedGroup(node, at, outer, { own: content.size, parent });
  if (!moved) return null;
  const out: DrawList = [];
  for (const child of content.nodes) {
    const own = child === open?.node ? open.at : at;
    const list =
      child.shutter && child !== open?.node && showsAt(child, frame)
        ? null
        : listOf(child, frame, own, moved, parent, open);
    if (!list) return null;
    out.push(...list);
  }
  return out;
}

/** The layer with a shutter of its own that shows at a frame. */
const layerWithShutter = (node: Node, frame: number): Node | undefined =>
  childrenOf(node)
    .filter((child) => showsAt(child, frame))
    .map((child) => (child.shutter ? child : layerWithShutter(child, frame)))
    .find(Boolean);

/**
 * A frame as draw lists for the planar painter, whose pictures are to be averaged: one list where nothing moves while
 * the shutter is open. A layer that has a shutter to itself is averaged with the others standing, which is the same,
 * since laying over is linear in what is laid.
 * @param frame of the film
 * @param factor pixels that are painted for each delivery pixel
 * @returns null where the picture is more than that painter can paint
 */
export function describeFrame(tree: Node, frame: number, factor = 1): DrawList[] | null {
  const layer = tree.shutter ? undefined : layerWithShutter(tree, frame);
  const instants = showsAt(tree, frame) ? instantsOf(layer ?? tree, frame, frame, factor) : [frame];
  const out: DrawList[] = [];
  for (const at of instants) {
    const list = layer
      ? listOf(tree, frame, frame, unmoved, sizeOf(tree), { node: layer, at })
      : listOf(tree, frame, at, unmoved, sizeOf(tree), null);
    if (!list) return null;
    out.push(list);
  }
  return out;
}

/** The size that a tree's frame has: a group's own. */
const sizeOf = ({ content }: Node): Size => ('size' in content ? content.size : { width: 0, height: 0 });

/** True where the planar painter can paint a frame. */
export const canPaint = (tree: Node, frame: number): boolean => describeFrame(tree, frame) !== null;
