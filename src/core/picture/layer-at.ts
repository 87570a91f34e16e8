import { invertAffine, mapPoint } from '../geometry/affine';
import type { Point } from '../geometry/size';
import { matrixAt, secondsAt, showsAt, type Matte, type MediaNode, type Rings } from './node';
import { ringsAt } from './outline';

/** True where a point lies inside an odd number of rings. */
function inside(rings: Rings, [x, y]: Point): boolean {
  let odd = false;
  for (const ring of rings)
    ring.forEach(([x1, y1], index) => {
      const [x0, y0] = ring[(index + ring.length - 1) % ring.length];
      if (y0 <= y !== y1 <= y && x < x0 + ((y - y0) / (y1 - y0)) * (x1 - x0)) odd = !odd;
    });
  return odd;
}

const leaves = ({ shape, space, inverted }: Matte, frame: number, inParent: Point, inContent: Point) =>
  shape.is !== 'outline' ||
  inside(ringsAt(shape, frame), space === 'parent' ? inParent : inContent) !== inverted;

/**
 * The frontmost of some layers that shows at a point, as far as its own edges and its outlines say.
 * @param layers from the back to the front, in one parent
 * @param at a point of the parent
 * @returns it, and where the point is in its content; null where none shows
 */
export function layerAt(
  layers: readonly MediaNode[],
  frame: number,
  at: Point,
): { layer: MediaNode; inContent: Point } | null {
  for (const layer of [...layers].reverse()) {
    if (!showsAt(layer, frame)) continue;
    const inContent = mapPoint(invertAffine(matrixAt(layer, frame)), at);
    const { width, height } = layer.content.size;
    const [x, y] = inContent;
    const reaches = layer.edges !== 'empty' || (x >= 0 && y >= 0 && x <= width && y <= height);
    if (reaches && layer.mattes.every((matte) => leaves(matte, frame, at, inContent)))
      return { layer, inContent };
  }
  return null;
}

/** A place in a file: seconds of it, and a point in shares of its picture. */
export type FilePlace = { media: string; time: number; at: Point };

/** The place in a file that shows at a point, as {@link layerAt} finds it; null where none shows. */
export function filePlaceAt(layers: readonly MediaNode[], frame: number, at: Point): FilePlace | null {
  const found = layerAt(layers, frame, at);
  if (!found) return null;
  const { size, media } = found.layer.content;
  const [x, y] = found.inContent;
  return { media, time: secondsAt(found.layer, frame), at: [x / size.width, y / size.height] };
}
