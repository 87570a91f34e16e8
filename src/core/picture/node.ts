import { multiplyAffine, invertAffine, unmoved, type Affine } from '../geometry/affine';
import { placementMatrix } from '../geometry/placement';
import type { Bounds, Framed, Point, Size } from '../geometry/size';
import { linear } from '../motion/easing';
import { still, valueAt, type Track } from '../motion/keyframes';
import { timeOfFrame, type Rate } from '../time/rate';
import type { BlendMode } from './blend';
import type { Cdl } from './grade';
import type { Grain } from './regrain';
import type { Rgb } from './spill';
import type { Veil } from './veil';

/**
 * A file's pictures; `time` gives the seconds of the file at frames of the film. Where a second lies between two
 * pictures the earlier one shows, or one that is made of both along what moves. Whoever is veiled is so before anything
 * else is done with the picture.
 */
export type Media = {
  is: 'media';
  media: string;
  size: Size;
  time: Track;
  between?: 'moves';
  /** the colour of a backdrop whose light is taken out of what stands before it */
  without?: Rgb;
  veils?: readonly Veil[];
  /** how much a picture that is held is softened: the deviation of a Gaussian, in pixels of `size` */
  softened?: number;
  /** what is laid over it, others in every frame */
  grain?: Grain;
};

/** What a node shows. Colours are red, green and blue, 0..255. */
export type Content =
  | Media
  /** one colour, as far as the parent reaches */
  | { is: 'colour'; rgb: [number, number, number] }
  /** grey grains of a size in pixels about the middle grey, others in every frame, as far as the parent reaches */
  | { is: 'noise'; seed: number; grain: number }
  /** a colour, as much as a raster's luma says: text, for one */
  | { is: 'coverage'; media: string; size: Size; rgb: [number, number, number] }
  /** nodes from the back to the front, in pixels of a picture of their own */
  | { is: 'group'; size: Size; nodes: Node[] }
  /** a node as it is some frames later (earlier below zero), the first copy at the back */
  | { is: 'copies'; size: Size; node: Node; copies: { later: number; opacity: number }[] };

/** A step on the way from the content's pixels to the parent's. */
export type Transform =
  | { is: 'map'; matrix: Affine }
  /**
   * Moves by `x` and `y` pixels, turns by degrees (clockwise positive) and scales about the middle of `size`;
   * `undone` is the way back
   */
  | { is: 'move'; size: Size; x: Track; y: Track; rotation: Track; scale: Track; undone: boolean };

/** A change to what was painted, in the parent's pixels. */
export type Effect =
  /** Gaussian; its standard deviation in pixels */
  | { is: 'blur'; radius: Track }
  /** red moved one way, blue the other, in pixels */
  | { is: 'split'; x: Track; y: Track }
  /** the mean over a square that reaches so many pixels to each side */
  | { is: 'box'; reach: Track }
  /** the mean along a line of so many pixels, turned by degrees (clockwise positive) */
  | { is: 'directional'; length: Track; angle: Track }
  /** the mean on the way towards the middle, by a share of the distance from it */
  | { is: 'zoom'; share: Track }
  /** what is brighter than `from` (0..1), softened by a deviation in pixels and laid over by screening */
  | { is: 'glow'; radius: Track; from: number; amount: Track }
  /** brightness and saturation, 1 as they are; hue in degrees */
  | { is: 'colours'; brightness: Track; saturation: Track; hue: Track }
  /** its luma in a colour, 0..1 of the way */
  | { is: 'tint'; rgb: [number, number, number]; amount: Track }
  /** 0..1 */
  | { is: 'negative'; amount: Track }
  /** corners darker by a share, as the square of the distance from the middle */
  | { is: 'vignette'; amount: Track }
  /** rows moved to and fro by up to `by` pixels, a wave every `length` pixels, `turned` degrees along it */
  | { is: 'wave'; by: Track; length: number; turned: Track }
  /** a lens that bends lines: the corners come from that share further out, or below zero further in */
  | { is: 'bend'; amount: Track };

/** Rings that together are one shape; where they overlap twice there is a hole (even-odd rule). */
export type Rings = Point[][];

/**
 * Draws an outline's edge to that of the picture that it cuts, in place of feathering it: by so many pixels of the
 * content at the most. Of an outline that is cut up, the whole is fitted, and what lies within one cut shows.
 */
export type Fit = { reach: number; part?: { of: Rings; within: Point[] } };

/** Where a node shows. Lengths count in pixels of `space`; another node's coverage is always the parent's. */
export type Matte = {
  space: 'content' | 'parent';
  shape:
    | { is: 'outline'; keys: { frame: number; rings: Rings }[]; between: 'holds' | 'moves'; fit?: Fit }
    | { is: 'raster'; media: string; size: Size; time: Track }
    | { is: 'node'; node: string };
  inverted: boolean;
  /** pixels; below zero shrinks */
  grow: Track;
  /** width of the soft edge in pixels, half of it on each side; an outline that is fitted has the picture's instead */
  feather: Track;
};

/**
 * The shutter that is open while a frame is taken: degrees of a frame, the frame's own instant in the middle. The
 * picture is the mean of sub-frames, so many that nothing moves further than `apart` pixels between two.
 */
export type Shutter = { angle: number; apart: number };

/**
 * A picture and how it lies in its parent's. Frames are those of the film; all but `from` and `until` hold between
 * whole ones too. In order: content, crop, edges, grade, transforms, effects, mattes, opacity, blend.
 */
export type Node = {
  id: string;
  name: string;
  /** frames from (included) until (excluded) */
  from: number;
  until: number;
  content: Content;
  /** the part of the content that there is, in its pixels */
  crop: Bounds | null;
  /** what lies beyond: nothing, the picture mirrored at each edge, or the picture again */
  edges: Edges;
  grade: Cdl | null;
  /** the first is applied first */
  transforms: Transform[];
  effects: Effect[];
  /** where all of them are */
  mattes: Matte[];
  /** 0..1 */
  opacity: Track;
  blend: BlendMode;
  shutter: Shutter | null;
};
export type Edges = 'empty' | 'mirrored' | 'repeated';

/** A node that shows a file. */
export type MediaNode = Node & { content: Media };

const plain = {
  crop: null,
  edges: 'empty',
  grade: null,
  transforms: [],
  effects: [],
  mattes: [],
  opacity: still(1),
  blend: 'normal',
  shutter: null,
} satisfies Partial<Node>;

type Given<Some extends Node> = Pick<Some, 'id' | 'name' | 'from' | 'until' | 'content'> & Partial<Node>;

/** A node with everything that is not said left plain. */
export const nodeOf = <Some extends Node = Node>(given: Given<Some>): Some =>
  ({ ...plain, ...given }) as Node as Some;

/** Nodes that make up a picture of a size over some frames, from the back to the front. */
export const groupOf = (
  id: string,
  size: Size,
  span: { from: number; until: number },
  nodes: Node[],
  rest: Partial<Node> = {},
): Node => nodeOf({ id, name: id, ...span, content: { is: 'group', size, nodes }, ...rest });

/** Seconds of a file that runs as fast as it was filmed, `at` showing on frame `from`. */
export const running = (at: number, from: number, until: number, rate: Rate): Track => [
  { frame: from, value: at, ease: linear },
  { frame: until, value: at + timeOfFrame(rate, until - from), ease: 'hold' },
];

/** An outline that feathers by some pixels of its space. */
export const outlineMatte = (
  space: Matte['space'],
  keys: { frame: number; rings: Rings }[],
  feather: number,
  inverted = false,
): Matte => ({
  space,
  shape: { is: 'outline', keys, between: 'holds' },
  inverted,
  grow: still(0),
  feather: still(feather),
});

/** An outline of a file's picture that is fitted to it. @param feather what it has in an editor that cannot fit it */
export function fittedMatte(keys: { frame: number; rings: Rings }[], feather: number, fit: Fit): Matte {
  return { ...outlineMatte('content', keys, feather), shape: { is: 'outline', keys, between: 'holds', fit } };
}

/** Source pixels to delivery pixels so that the frame is filled: about the middle, unless it is pushed. */
export function fillFrame(source: Size, delivery: Framed): Extract<Transform, { is: 'map' }> {
  const scale = Math.max(delivery.width / source.width, delivery.height / source.height);
  const { across, down } = delivery.push ?? { across: 0, down: 0 };
  const left = ((delivery.width - source.width * scale) / 2) * (1 + across / 100);
  const top = ((delivery.height - source.height * scale) / 2) * (1 + down / 100);
  return { is: 'map', matrix: [scale, 0, 0, scale, left, top] };
}

/** The nodes directly inside a node. */
export function childrenOf({ content }: Node): Node[] {
  if (content.is === 'group') return content.nodes;
  return content.is === 'copies' ? [content.node] : [];
}

/** A node and everything inside it, each before what is in it. */
export const nodesIn = (node: Node): Node[] => [node, ...childrenOf(node).flatMap(nodesIn)];

/** True for a node that shows a file's pictures. */
export const isMedia = (node: Node): node is MediaNode => node.content.is === 'media';

/** The files of a picture as its nodes show them, from the back to the front. */
export const mediaIn = (node: Node): MediaNode[] => nodesIn(node).filter(isMedia);

/** Every file that painting a picture needs. */
export const filesIn = (node: Node): string[] => [
  ...new Set(
    nodesIn(node).flatMap(({ content, mattes }) => [
      ...('media' in content ? [content.media] : []),
      ...mattes.flatMap(({ shape }) => (shape.is === 'raster' ? [shape.media] : [])),
    ]),
  ),
];

/** A file's node by itself, over the whole frame. */
export const bare = <Some extends Node>(node: Some): Some => ({ ...node, mattes: [], opacity: still(1) });

/** The seconds of its file that a node shows at a frame. */
export const secondsAt = ({ content }: MediaNode, frame: number): number => valueAt(content.time, frame);

/** The last second of a file that any of some nodes shows; nothing where none shows it. */
export const lastShown = (nodes: readonly MediaNode[], media: string): number =>
  Math.max(
    ...nodes
      .filter(({ content }) => content.media === media)
      .flatMap((node) => [secondsAt(node, node.from), secondsAt(node, node.until - 1)]),
  );

/** The first and the last second of their files that some nodes show; null where there is none. */
export function secondsShown(nodes: readonly MediaNode[]): { from: number; until: number } | null {
  const seconds = nodes.flatMap((node) =>
    Array.from({ length: Math.max(1, node.until - node.from) }, (_, frame) =>
      secondsAt(node, node.from + frame),
    ),
  );
  if (seconds.length === 0) return null;
  return seconds.reduce(
    ({ from, until }, one) => ({ from: Math.min(from, one), until: Math.max(until, one) }),
    { from: Infinity, until: -Infinity },
  );
}

/** A picture with each file in it changed. */
export function withMedia(node: Node, change: (node: MediaNode) => MediaNode): Node {
  const { content } = node;
  if (isMedia(node)) return change(node);
  if (content.is === 'group')
    return { ...node, content: { ...content, nodes: content.nodes.map((one) => withMedia(one, change)) } };
  return content.is === 'copies'
    ? { ...node, content: { ...content, node: withMedia(content.node, change) } }
    : node;
}

/** True where one picture of the file stands all the time. */
export const isHeld = ({ content }: MediaNode): boolean =>
  content.time.every(({ value }) => value === content.time[0].value);

/** True while a node shows at a frame. */
export const showsAt = ({ from, until }: Node, frame: number): boolean => frame >= from && frame < until;

function matrixOf(transform: Transform, frame: number): Affine {
  if (transform.is === 'map') return transform.matrix;
  const moved = placementMatrix(
    {
      dx: valueAt(transform.x, frame),
      dy: valueAt(transform.y, frame),
      rotation: valueAt(transform.rotation, frame),
      scale: valueAt(transform.scale, frame),
      agreement: 1,
    },
    transform.size,
  );
  return transform.undone ? invertAffine(moved) : moved;
}

/** The content's pixels to the parent's, at a frame. */
export const matrixAt = ({ transforms }: Node, frame: number): Affine =>
  transforms.reduce<Affine>(
    (before, transform) => multiplyAffine(matrixOf(transform, frame), before),
    unmoved,
  );
