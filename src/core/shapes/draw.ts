import simplify from 'simplify-js';
import { outlinesOf } from '../footage/seam/outlines';
import type { Point, Size } from '../geometry/size';
import { coverOfRings } from '../picture/mask';

/** Points in shares of the frame; a shape is one closed line. */
export type Ring = Point[];

/** pixels across at which brushes paint, and how far a thinned line may lie from the drawn one there */
const across = 480;
const tolerance = 1.2;
/** as many corners as a drawn shape has at most */
const mostCorners = 120;
/** a shape that is smaller than this share of the frame is a slip of the hand */
const leastArea = 0.0005;

const canvasOf = ({ width, height }: Size): Size => ({
  width: across,
  height: Math.max(1, Math.round((across * height) / width)),
});
const inPixels = (ring: Ring, { width, height }: Size): Ring => ring.map(([x, y]) => [x * width, y * height]);
const inShares = (ring: Ring, { width, height }: Size): Ring => ring.map(([x, y]) => [x / width, y / height]);

/** The area that a closed line goes round, in the square of its unit. */
export const areaOf = (ring: Ring): number =>
  Math.abs(
    ring.reduce((sum, [x, y], index) => {
      const [nextX, nextY] = ring[(index + 1) % ring.length];
      return sum + (x * nextY - nextX * y) / 2;
    }, 0),
  );

function thinned(ring: Ring): Ring {
  for (let coarse = tolerance; ; coarse *= 1.5) {
    const points = simplify(
      ring.map(([x, y]) => ({ x, y })),
      coarse,
      true,
    );
    if (points.length <= mostCorners) return points.map(({ x, y }): Point => [x, y]);
  }
}

/**
 * A line that was drawn round something, as a closed shape with few corners.
 * @returns null where it goes round nothing
 */
export function lassoed(path: readonly Point[], frame: Size): Ring | null {
  if (path.length < 3) return null;
  const size = canvasOf(frame);
  const clamp = (value: number) => Math.min(1, Math.max(0, value));
  const ring = thinned(
    inPixels(
      path.map(([x, y]): Point => [clamp(x), clamp(y)]),
      size,
    ),
  );
  const shares = inShares(ring, size);
  return ring.length >= 3 && areaOf(shares) >= leastArea ? shares : null;
}

/**
 * A shape whose corners are cut to curves; as many corners as it may have make them up.
 * @see Chaikin 1974
 */
export function rounded(ring: Ring, frame: Size): Ring {
  const size = canvasOf(frame);
  const cut = (corners: Ring): Ring =>
    corners.flatMap(([x, y], index): Ring => {
      const [nextX, nextY] = corners[(index + 1) % corners.length];
      return [
        [0.75 * x + 0.25 * nextX, 0.75 * y + 0.25 * nextY],
        [0.25 * x + 0.75 * nextX, 0.25 * y + 0.75 * nextY],
      ];
    });
  const many = cut(cut(inPixels(ring, size)));
  return inShares(many.length <= mostCorners ? many : thinned(many), size);
}

/** The square of the distance of a point from a piece of line. */
function distance2([x, y]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const length = (bx - ax) ** 2 + (by - ay) ** 2;
  const share =
    length === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length));
  return (x - ax - share * (bx - ax)) ** 2 + (y - ay - share * (by - ay)) ** 2;
}

/**
 * A shape with a stroke of a round brush added to it or taken from it. What falls apart keeps its largest piece.
 * @param stroke points in shares of the frame; one point is a dab
 * @param radius of the brush, in shares of the frame's width
 * @returns the shape as it was where nothing of it would be left
 */
export function brushed(
  ring: Ring,
  stroke: readonly Point[],
  radius: number,
  way: 'adds' | 'takes',
  frame: Size,
): Ring {
  const size = canvasOf(frame);
  const cover = Uint8Array.from(coverOfRings([inPixels(ring, size)], size), (share) =>
    share >= 0.5 ? 1 : 0,
  );
  const line = inPixels([...stroke], size);
  const reach = radius * size.width;
  line.forEach((to, index) => {
    const from = line[Math.max(0, index - 1)];
    const rows = [Math.min(from[1], to[1]) - reach, Math.max(from[1], to[1]) + reach];
    const columns = [Math.min(from[0], to[0]) - reach, Math.max(from[0], to[0]) + reach];
    for (let y = Math.max(0, Math.floor(rows[0])); y < Math.min(size.height, rows[1]); y++)
      for (let x = Math.max(0, Math.floor(columns[0])); x < Math.min(size.width, columns[1]); x++)
        if (distance2([x + 0.5, y + 0.5], from, to) <= reach * reach)
          cover[y * size.width + x] = way === 'adds' ? 1 : 0;
  });
  const [largest] = outlinesOf(size, cover, tolerance);
  return largest ? inShares(thinned(largest), size) : ring;
}

/**
 * A shape with as many corners as are wanted, evenly along its line, so that shapes of several frames move into one
 * another. They run clockwise and begin next to where another shape begins, or at the top.
 */
export function evenRing(ring: Ring, count: number, like?: Ring): Ring {
  const signed = ring.reduce((sum, [x, y], index) => {
    const [nextX, nextY] = ring[(index + 1) % ring.length];
    return sum + x * nextY - nextX * y;
  }, 0);
  const turned = signed < 0 ? [...ring].reverse() : ring;
  const begin: Point = like?.[0] ?? [
    turned.reduce((sum, [x]) => sum + x, 0) / turned.length,
    Math.min(...turned.map(([, y]) => y)),
  ];
  const lengths = turned.map((point, index) => {
    const next = turned[(index + 1) % turned.length];
    return Math.hypot(next[0] - point[0], next[1] - point[1]);
  });
  const total = lengths.reduce((sum, length) => sum + length, 0);
  /** the point at a distance along the line */
  const along = (distance: number): Point => {
    let left = ((distance % total) + total) % total;
    const index = lengths.findIndex((length) => {
      if (left <= length) return true;
      left -= length;
      return false;
    });
    const at = Math.max(0, index);
    const [from, to] = [turned[at], turned[(at + 1) % turned.length]];
    const share = lengths[at] > 0 ? left / lengths[at] : 0;
    return [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share];
  };
  const looks = count * 8;
  const starts = Array.from({ length: looks }, (_, look) => (total * look) / looks);
  const away = (distance: number) => {
    const [x, y] = along(distance);
    return Math.hypot(x - begin[0], y - begin[1]);
  };
  const start = starts.reduce((best, one) => (away(one) < away(best) ? one : best), 0);
  return Array.from({ length: count }, (_, corner) => along(start + (total * corner) / count));
}
