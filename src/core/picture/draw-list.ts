import type { Affine } from '../geometry/affine';
import type { Size } from '../geometry/size';
import { valueAt } from '../motion/keyframes';
import type { Cdl } from './grade';
import {
  matrixAt,
  secondsAt,
  showsAt,
  type Edges,
  type Matte,
  type MediaNode,
  type Node,
  type Rings,
} from './node';
import { ringsAt } from './outline';
import { instantsOf } from './shutter';

/** A mask in delivery pixels; the soft edge lies half on each side. */
export type DrawMask = { rings: Rings; feather: number; inverted: boolean };

/** What the planar painter needs to know of one file's picture in one frame. */
export type DrawItem = {
  /** id of the node */
  node: string;
  media: string;
  /** seconds in the file */
  time: number;
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

/** A matte as a mask of the planar painter; null where it is more than that can paint. */
function maskOf(matte: Matte, frame: number): DrawMask | null {
  const { shape, space, inverted, grow, feather } = matte;
  if (shape.is !== 'outline' || space !== 'parent' || valueAt(grow, frame) !== 0) return null;
  return { rings: ringsAt(shape, frame), feather: valueAt(feather, frame), inverted };
}

function itemOf(node: MediaNode, at: number): DrawItem | null {
  const [matte, ...others] = node.mattes;
  const mask = matte ? maskOf(matte, at) : null;
  if (others.length > 0 || (matte && !mask) || node.crop) return null;
  const { media, size } = node.content;
  return {
    node: node.id,
    media,
    time: secondsAt(node, at),
    size,
    matrix: matrixAt(node, at),
    edges: node.edges,
    grade: node.grade,
    mask,
    opacity: Math.min(1, valueAt(node.opacity, at)),
  };
}

/** A group that is only its nodes, one over the other. */
const isBare = ({ content, crop, grade, transforms, mattes, opacity }: Node, at: number): boolean =>
  content.is === 'group' &&
  !crop &&
  !grade &&
  transforms.length === 0 &&
  mattes.length === 0 &&
  valueAt(opacity, at) >= 1;

function listOf(node: Node, frame: number, at: number): DrawList | null {
  if (!showsAt(node, frame) || valueAt(node.opacity, at) <= 0) return [];
  if (node.blend !== 'normal' || node.effects.length > 0) return null;
  const { content } = node;
  if (content.is === 'media') {
    const item = itemOf(node as MediaNode, at);
    return item && [item];
  }
  if (content.is !== 'group' || !isBare(node, at)) return null;
  const out: DrawList = [];
  for (const child of content.nodes) {
    const list = child.shutter ? null : listOf(child, frame, at);
    if (!list) return null;
    out.push(...list);
  }
  return out;
}

/**
 * A frame as draw lists for the planar painter, whose pictures are to be averaged: one list where nothing moves while
 * the shutter is open.
 * @param frame of the film
 * @param factor pixels that are painted for each delivery pixel
 * @returns null where the picture is more than that painter can paint
 */
export function describeFrame(tree: Node, frame: number, factor = 1): DrawList[] | null {
  const out: DrawList[] = [];
  for (const at of showsAt(tree, frame) ? instantsOf(tree, frame, frame, factor) : [frame]) {
    const list = listOf(tree, frame, at);
    if (!list) return null;
    out.push(list);
  }
  return out;
}

/** True where the planar painter can paint a frame. */
export const canPaint = (tree: Node, frame: number): boolean => describeFrame(tree, frame) !== null;
