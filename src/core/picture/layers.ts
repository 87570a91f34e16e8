import { type Affine, invertAffine, multiplyAffine } from '../geometry/affine';
import { placementMatrix } from '../geometry/placement';
import { valueAt, type Track } from '../motion/keyframes';
import { timeOfFrame, type Rate } from '../time/rate';
import type { BlendMode } from './blend';
import type { Cdl } from './grade';
import type { Point, Size } from '../geometry/size';

/** How a source was moved against the plate, to be undone; pixels of the source. */
export type Steadying = { dx: Track; dy: Track; rotation: Track; scale: Track };

/** One picture on the stage over a span of delivery frames. Masks and sizes are in delivery pixels. */
export type Layer = {
  id: string;
  name: string;
  /** frames from (included) until (excluded) */
  from: number;
  until: number;
  /** `at` seconds of the source show at frame `from`; a held source stands there */
  source: { media: string; size: Size; at: number; rate: Rate; hold: boolean };
  /** source pixels to delivery pixels, before steadying */
  fit: Affine;
  steady: Steadying | null;
  grade: Cdl | null;
  /** the layer shows inside an outline that stands from each keyframe to the next */
  mask: { outline: { frame: number; points: Point[] }[]; feather: number } | null;
  /** 0..1 */
  opacity: Track;
  blend: BlendMode;
};

/** What a painter needs to know of one layer in one frame. */
export type DrawItem = {
  layer: string;
  media: string;
  /** seconds in the source */
  time: number;
  /** size that `matrix` counts in; a proxy is scaled up to it */
  size: Size;
  matrix: Affine;
  grade: Cdl | null;
  mask: { points: Point[]; feather: number } | null;
  opacity: number;
  blend: BlendMode;
};

/** Source pixels to delivery pixels so that the frame is filled and the middle stays the middle. */
export function fitFrame(source: Size, delivery: Size): Affine {
  const scale = Math.max(delivery.width / source.width, delivery.height / source.height);
  return [
    scale,
    0,
    0,
    scale,
    (delivery.width - source.width * scale) / 2,
    (delivery.height - source.height * scale) / 2,
  ];
}

/** The seconds of a layer's source that show at a delivery frame. */
export const sourceTime = ({ source, from }: Layer, frame: number): number =>
  source.hold ? source.at : source.at + timeOfFrame(source.rate, frame - from);

/** What is to be painted at a delivery frame, from the back to the front. Plain data. */
export function describeFrame(layers: readonly Layer[], frame: number): DrawItem[] {
  return layers.flatMap((layer): DrawItem[] => {
    const opacity = frame >= layer.from && frame < layer.until ? valueAt(layer.opacity, frame) : 0;
    if (opacity <= 0) return [];
    const { steady, source } = layer;
    const moved = steady && {
      dx: valueAt(steady.dx, frame),
      dy: valueAt(steady.dy, frame),
      rotation: valueAt(steady.rotation, frame),
      scale: valueAt(steady.scale, frame),
      agreement: 1,
    };
    const back = moved ? invertAffine(placementMatrix(moved, source.size)) : null;
    const outline = layer.mask?.outline.filter((key) => key.frame <= frame).at(-1) ?? layer.mask?.outline[0];
    return [
      {
        layer: layer.id,
        media: source.media,
        time: sourceTime(layer, frame),
        size: source.size,
        matrix: back ? multiplyAffine(layer.fit, back) : layer.fit,
        grade: layer.grade,
        mask: layer.mask && outline ? { points: outline.points, feather: layer.mask.feather } : null,
        opacity,
        blend: layer.blend,
      },
    ];
  });
}
