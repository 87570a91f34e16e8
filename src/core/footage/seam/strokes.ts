import { type Point, type Size } from '../../geometry/size';

/** Says that a take must show along a line of points, in one frame or (without `frame`) always. Pixels. */
export type Stroke = { take: number; frame?: number; points: Point[]; radius?: number };

/** Which take must show at each pixel of a span of frames, -1 where any may. */
export type Forced = (span: number) => Int8Array;

/** pixels round each point of a stroke that says no radius, in a picture of some size */
export const forcedRadius = ({ width }: Size): number => Math.max(2, width * 0.02);

/** Strokes as they lie in a copy that is smaller by a factor. @param radius of those that say none, in the whole */
export const copyStrokes = (strokes: readonly Stroke[], radius: number, by: number): Stroke[] =>
  strokes.map((stroke) => ({
    ...stroke,
    points: stroke.points.map(([x, y]): Point => [x / by, y / by]),
    radius: Math.max(by > 1 ? 0.75 : 0, (stroke.radius ?? radius) / by),
  }));

/** Points along a stroke, at most a pixel apart. */
const dotsOf = ({ points }: Stroke): Point[] =>
  points.flatMap((point, index): Point[] => {
    const before = points[index - 1];
    if (!before) return [point];
    const steps = Math.max(1, Math.ceil(Math.hypot(point[0] - before[0], point[1] - before[1])));
    return Array.from({ length: steps }, (_, step): Point => {
      const share = (step + 1) / steps;
      return [before[0] + (point[0] - before[0]) * share, before[1] + (point[1] - before[1]) * share];
    });
  });

/** Which take strokes force at each pixel, -1 where none does. Of two over each other, the later one counts. */
export function forcedBy({ width, height }: Size, strokes: readonly Stroke[]): Int8Array {
  const plane = new Int8Array(width * height).fill(-1);
  for (const stroke of strokes) {
    const reach = stroke.radius ?? forcedRadius({ width, height });
    for (const [px, py] of dotsOf(stroke))
      for (let y = Math.max(0, Math.floor(py - reach)); y < Math.min(height, py + reach); y++)
        for (let x = Math.max(0, Math.floor(px - reach)); x < Math.min(width, px + reach); x++)
          if ((x + 0.5 - px) ** 2 + (y + 0.5 - py) ** 2 <= reach * reach) plane[y * width + x] = stroke.take;
  }
  return plane;
}

/** Pixels from each pixel to the nearest that is marked, along rows, columns and diagonals; Infinity where none is. */
export function distanceTo({ width, height }: Size, marked: (pixel: number) => boolean): Float32Array {
  const out = new Float32Array(width * height).fill(Infinity);
  for (let pixel = 0; pixel < out.length; pixel++) if (marked(pixel)) out[pixel] = 0;
  const near = (p: number, x: number, side: number) => {
    const row = p + side * width;
    let least = Math.min(out[p], out[row] + 1);
    if (x > 0) least = Math.min(least, out[row - 1] + Math.SQRT2);
    if (x + 1 < width) least = Math.min(least, out[row + 1] + Math.SQRT2);
    out[p] = least;
  };
  for (let y = 0; y < height; y++)
    for (let x = 0, p = y * width; x < width; x++, p++) {
      if (y > 0) near(p, x, -1);
      if (x > 0) out[p] = Math.min(out[p], out[p - 1] + 1);
    }
  for (let y = height - 1; y >= 0; y--)
    for (let x = width - 1, p = y * width + x; x >= 0; x--, p--) {
      if (y + 1 < height) near(p, x, 1);
      if (x + 1 < width) out[p] = Math.min(out[p], out[p + 1] + 1);
    }
  return out;
}

/**
 * What it costs that a take shows nearer to another take's strokes than to its own: so little that it only tells where
 * takes agree, and enough that a division neither shrinks onto a stroke nor hugs the frame's edge to be shorter. None
 * where fewer than two takes have strokes.
 * @see Borgefors 1986 (distances by two passes); the weight is set by trial, no published source
 */
export function nearStrokes(
  size: Size,
  takes: number,
  forced: Int8Array,
): ((take: number, pixel: number) => number) | undefined {
  const distances = Array.from({ length: takes }, (_, take) =>
    distanceTo(size, (pixel) => forced[pixel] === take),
  );
  const reached = distances.filter(([first]) => first < Infinity);
  if (reached.length < 2) return undefined;
  const nearest = distances[0].map((_, pixel) => Math.min(...distances.map((one) => one[pixel])));
  const further = (take: number, pixel: number) => distances[take][pixel] - nearest[pixel];
  const furthest = reached.map((one) =>
    one.reduce((most, value, pixel) => Math.max(most, value - nearest[pixel]), 0),
  );
  const enough = 0.5 * Math.max(...furthest);
  const weight = 0.8 / size.width;
  return (take, pixel) => weight * Math.min(1, further(take, pixel) / enough);
}
