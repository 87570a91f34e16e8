import type { Point, Size } from '../../geometry/size';
import type { Rings } from '../../picture/node';
import { evenRing } from '../../shapes/draw';
import type { ShapeKey } from '../../shapes/keyed';
import { wholeReveal } from './settings';

/** corners of the polygon that a circle is drawn as */
const corners = 64;

/** All of the frame on one side of a line that moves across it. @param share 0 nothing, 1 the whole frame */
function behindLine(angle: number, soft: number, { width, height }: Size, share: number): Point[] {
  const turn = (angle * Math.PI) / 180;
  const [ahead, aside] = [
    [Math.cos(turn), Math.sin(turn)],
    [-Math.sin(turn), Math.cos(turn)],
  ];
  const reach = (Math.abs(ahead[0]) * width + Math.abs(ahead[1]) * height + soft) / 2;
  const far = 2 * Math.hypot(width, height);
  const front = reach * (2 * share - 1);
  const at = (along: number, sideways: number): Point => [
    width / 2 + ahead[0] * along + aside[0] * sideways,
    height / 2 + ahead[1] * along + aside[1] * sideways,
  ];
  return [at(front, -far), at(front, far), at(front - far, far), at(front - far, -far)];
}

/** A circle that grows from a point until the frame lies in it. */
function inCircle([x, y]: Point, soft: number, { width, height }: Size, share: number): Point[] {
  const furthest = Math.hypot(Math.max(x, width - x), Math.max(y, height - y));
  // Its corners lie a little outside, so that its sides reach the corners of the frame.
  const radius = ((furthest + soft / 2) / Math.cos(Math.PI / corners)) * share;
  return Array.from({ length: corners }, (_, corner): Point => {
    const turn = (2 * Math.PI * corner) / corners;
    return [x + radius * Math.cos(turn), y + radius * Math.sin(turn)];
  });
}

/**
 * How far the edge has come at a share of the time: evenly, or as what falls does, from rest and ever faster.
 * @see a body that falls from rest covers distances as the square of its time
 */
const progress = (edge: string, time: number): number => (edge === 'falling' ? time * time : time);

/** corners of a shape before anybody draws it */
const drawnCorners = 10;

/** The keys of a drawn edge, in shares of the frame: as it was drawn, else a circle that grows over the frame. */
export function drawnKeys(settings: Parameters<typeof wholeReveal>[0], frame: Size): ShapeKey[] {
  const { shape, frames, soft } = wholeReveal(settings);
  if (shape) return shape;
  // Few corners cut the circle short; it ends as much larger.
  const grown = [0.2, 1 / Math.cos(Math.PI / drawnCorners)].map((share) =>
    inCircle([frame.width / 2, frame.height / 2], soft, frame, share).map(([x, y]): Point => [
      x / frame.width,
      y / frame.height,
    ]),
  );
  return [0, frames].map((after, index) => ({ after, ring: evenRing(grown[index], drawnCorners) }));
}

/**
 * What is revealed, as an outline whose points move evenly from key to key; what falls moves downwards.
 * @param first the frame on which nothing is revealed yet
 * @param frame delivery pixels
 * @param drawn the keys of a drawn edge
 */
export function revealKeys(
  settings: Parameters<typeof wholeReveal>[0],
  first: number,
  frame: Size,
  drawn: readonly ShapeKey[],
): { frame: number; rings: Rings }[] {
  const { edge, frames, angle, soft, across, down } = wholeReveal(settings);
  if (edge === 'drawn')
    return drawn.map(({ after, ring }) => ({
      frame: first + after,
      rings: [ring.map(([x, y]): Point => [x * frame.width, y * frame.height])],
    }));
  const middle: Point = [(across / 100) * frame.width, (down / 100) * frame.height];
  // What moves evenly needs no key between its first and its last.
  const steps = edge === 'falling' ? Array.from({ length: frames + 1 }, (_, step) => step) : [0, frames];
  return steps.map((step) => {
    const share = progress(edge, step / frames);
    const ring =
      edge === 'circle'
        ? inCircle(middle, soft, frame, share)
        : behindLine(edge === 'falling' ? 90 : angle, soft, frame, share);
    return { frame: first + step, rings: [ring] };
  });
}
