import { contours } from 'd3-contour';
import simplify from 'simplify-js';
import { type Point, type Size } from '../../geometry/size';
import { boundsOf } from '../../picture/bounds';

/** square pixels that a hole or an island has at least */
const leastRing = 30;

/**
 * The outlines of where take 1 and above show, as closed lines in pixels, thinned out, the largest first: pieces, and
 * holes in them. What lies inside an odd number of them shows it. Empty where it shows nowhere.
 */
export function outlinesOf(size: Size, labels: Uint8Array, tolerance = 1): Point[][] {
  const { left, top, right, bottom } = boundsOf({ ...size, data: labels }, 0);
  if (left >= right) return [];
  // A rim of zeros closes the outline at the frame's edge.
  const wide = right - left + 2;
  const tall = bottom - top + 2;
  const values = new Array<number>(wide * tall).fill(0);
  for (let y = top; y < bottom; y++)
    for (let x = left; x < right; x++)
      values[(y - top + 1) * wide + x - left + 1] = labels[y * size.width + x] > 0 ? 1 : 0;
  const [shape] = contours().size([wide, tall]).thresholds([0.5])(values);
  const edge = (value: number, limit: number) => (value < 0.75 ? 0 : value > limit - 0.75 ? limit : value);
  return shape.coordinates
    .flatMap((polygon) => polygon as Point[][])
    .map((ring) => ({ ring, area: ringArea(ring) }))
    .filter(({ area }) => area >= leastRing)
    .sort((a, b) => b.area - a.area)
    .map(({ ring }) => {
      const shifted = ring.map(([x, y]) => ({
        x: edge(x + left - 1, size.width),
        y: edge(y + top - 1, size.height),
      }));
      const thin = simplify(shifted, tolerance, true);
      const closed =
        thin.length > 1 && thin[0].x === thin[thin.length - 1].x && thin[0].y === thin[thin.length - 1].y;
      return (closed ? thin.slice(0, -1) : thin).map(({ x, y }): Point => [x, y]);
    })
    .filter((ring) => ring.length > 2);
}

/** The area inside a closed line. */
const ringArea = (ring: readonly Point[]): number =>
  Math.abs(
    ring.reduce((sum, [x, y], index) => {
      const [nextX, nextY] = ring[(index + 1) % ring.length];
      return sum + (x * nextY - nextX * y) / 2;
    }, 0),
  );
