import type { Point } from '../../geometry/size';
import { reachOf, samplesAlong } from '../middle';
import { clear, type Surface } from './surface';

/** Adds a share of what lies at a point, evenly between neighbours; what lies beyond the edge is the edge. */
function addAt(to: Float64Array, at: number, from: Surface, [x, y]: Point, share: number): void {
  const { width, height, data } = from;
  const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const [tx, ty] = [x - 0.5 - left, y - 0.5 - top];
  for (let row = 0; row < 2; row++)
    for (let column = 0; column < 2; column++) {
      const place =
        Math.min(height - 1, Math.max(0, top + row)) * width +
        Math.min(width - 1, Math.max(0, left + column));
      const weight = share * (row ? ty : 1 - ty) * (column ? tx : 1 - tx);
      for (let channel = 0; channel < 4; channel++) to[at + channel] += weight * data[4 * place + channel];
    }
}

/** Every pixel as the mean of what lies at some points. */
function meanOf(surface: Surface, pointsOf: (x: number, y: number) => readonly Point[]): Surface {
  const out = clear(surface);
  for (let y = 0, at = 0; y < surface.height; y++)
    for (let x = 0; x < surface.width; x++, at += 4) {
      const points = pointsOf(x + 0.5, y + 0.5);
      for (const point of points) addAt(out.data, at, surface, point, 1 / points.length);
    }
  return out;
}

/** Numbers from -1/2 to 1/2, evenly. */
const across = (count: number): number[] =>
  Array.from({ length: count }, (_, index) => index / (count - 1) - 0.5);

/** The mean along a line of so many pixels, turned by degrees. */
export function alongLine(surface: Surface, length: number, degrees: number): Surface {
  if (Math.abs(length) <= 0.01) return surface;
  const angle = (degrees * Math.PI) / 180;
  const steps = across(samplesAlong(length));
  return meanOf(surface, (x, y) =>
    steps.map((step) => [x + step * length * Math.cos(angle), y + step * length * Math.sin(angle)]),
  );
}

/** The mean on the way towards the middle, by a share of the distance. */
export function towardsMiddle(surface: Surface, share: number): Surface {
  const [middleX, middleY, furthest] = reachOf(surface);
  if (Math.abs(share) <= 1e-4) return surface;
  const steps = across(samplesAlong(share * furthest)).map((step) => 1 - (step + 0.5) * share);
  return meanOf(surface, (x, y) =>
    steps.map((scale) => [middleX + (x - middleX) * scale, middleY + (y - middleY) * scale]),
  );
}

/** Rows moved to and fro by up to so many pixels. */
export const wave = (surface: Surface, by: number, length: number, degrees: number): Surface =>
  meanOf(surface, (x, y) => [[x + by * Math.sin((2 * Math.PI * y) / length + (degrees * Math.PI) / 180), y]]);

/**
 * A lens that bends lines.
 * @see Brown 1966, "Decentering distortion of lenses", its first radial term
 */
export function bend(surface: Surface, amount: number): Surface {
  const [middleX, middleY, furthest] = reachOf(surface);
  return meanOf(surface, (x, y) => {
    const [dx, dy] = [x - middleX, y - middleY];
    const scale = 1 + (amount * (dx * dx + dy * dy)) / furthest ** 2;
    return [[middleX + dx * scale, middleY + dy * scale]];
  });
}
