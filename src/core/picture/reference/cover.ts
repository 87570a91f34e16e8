import { mapPoint, type Affine } from '../../geometry/affine';
import type { Size } from '../../geometry/size';
import { valueAt } from '../../motion/keyframes';
import { coverOfRings, feathered } from '../mask';
import { isFitted, ringsAt } from '../outline';
import type { Fit, Matte, Rings } from '../node';
import { drawn } from './sample';
import type { Surface } from './surface';

/** The greatest coverage within a distance of each pixel; the smallest for a distance below zero. */
function grown(cover: Float32Array, { width, height }: Size, distance: number): Float32Array {
  const reach = Math.floor(Math.abs(distance));
  if (reach === 0) return cover;
  const most = distance > 0;
  const out = cover.slice();
  for (let dy = -reach; dy <= reach; dy++) {
    const across = Math.floor(Math.sqrt(distance * distance - dy * dy));
    for (let dx = -across; dx <= across; dx++) {
      for (let y = Math.max(0, -dy); y < Math.min(height, height - dy); y++) {
        for (let x = Math.max(0, -dx); x < Math.min(width, width - dx); x++) {
          const value = cover[(y + dy) * width + x + dx];
          const at = y * width + x;
          if (most ? value > out[at] : value < out[at]) out[at] = value;
        }
      }
    }
  }
  return out;
}

/** What mattes are made from: rasters of files, and what other nodes cover. */
type Shapes = {
  raster: (media: string, seconds: number) => Surface | null;
  /** coverage 0..1 of a node of the same picture */
  node: (id: string) => Float32Array;
  /** coverage 0..1 of an outline that is fitted to what it cuts; null where that is no picture of a file */
  fitted: (rings: Rings, fit: Fit) => Float32Array | null;
};

function shapeOf(
  { shape, space }: Matte,
  frame: number,
  matrix: Affine,
  size: Size,
  shapes: Shapes,
): Float32Array {
  switch (shape.is) {
    case 'node':
      return shapes.node(shape.node);
    case 'outline': {
      const rings = ringsAt(shape, frame);
      const fitted = shape.fit ? shapes.fitted(rings, shape.fit) : null;
      if (fitted) return fitted;
      return coverOfRings(
        space === 'parent' ? rings : rings.map((ring) => ring.map((point) => mapPoint(matrix, point))),
        size,
      );
    }
    case 'raster': {
      const raster = shapes.raster(shape.media, valueAt(shape.time, frame));
      if (!raster) return new Float32Array(size.width * size.height);
      const map: Affine = space === 'content' ? matrix : [1, 0, 0, 1, 0, 0];
      const { data } = drawn(raster, shape.size, map, { crop: null, edges: 'empty', grade: null }, size);
      return Float32Array.from({ length: size.width * size.height }, (_, pixel) => data[pixel * 4]);
    }
  }
}

/**
 * Coverage 0..1 of a matte in the parent's pixels, at a frame.
 * @param matrix the content's pixels to the parent's
 */
export function coverOf(
  matte: Matte,
  frame: number,
  matrix: Affine,
  size: Size,
  shapes: Shapes,
): Float32Array {
  const shape = shapeOf(matte, frame, matrix, size, shapes);
  const scale =
    matte.space === 'content' ? Math.sqrt(Math.abs(matrix[0] * matrix[3] - matrix[1] * matrix[2])) : 1;
  const cover = matte.inverted ? shape.map((value) => 1 - value) : shape;
  const wide = grown(cover, size, valueAt(matte.grow, frame) * scale);
  return isFitted(matte) ? wide : feathered(wide, size, valueAt(matte.feather, frame) * scale);
}
