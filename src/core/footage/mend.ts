import type { Point, Size } from '../geometry/size';
import type { Mend } from '../model/mend';
import { checkSameSize, type RgbaImage } from '../picture/image';
import type { Figure } from './figures';
import { improve, stillVolume } from './seam/cut';
import { distanceTo, forcedBy } from './seam/strokes';
import type { Track } from './track/track';

/** Pictures that somebody was cut out of, and the strokes that put that right. */
export type MendTask = { is: 'mend'; media: string; figures: readonly Figure[]; mends: readonly Mend[] };

/** seconds to each side of a picture to which its strokes are carried on */
const carriedFor = 0.5;

/** Whether a stroke says something of a picture: of its own, or of one that is near it. */
export const reaches = ({ seconds }: Mend, picture: number): boolean =>
  Math.abs(seconds - picture) <= carriedFor + 1e-6;

/** Where a stroke is held on to what it was drawn on: in its middle. */
export const heldAt = ({ points }: Mend): Point => points[points.length >> 1];

/** what a stroke is held on to by reaches so far round its middle, in shares of the picture's width */
const [leastHold, mostHold] = [0.06, 0.15];

/** How far what a stroke is held on to reaches round its middle: past its ends, where the edges of what it lies on may be. */
export function holdOf({ points, wide }: Mend): number {
  const spans = [0, 1].map((axis) => {
    const places = points.map((point) => point[axis]);
    return Math.max(...places) - Math.min(...places);
  });
  return Math.min(mostHold, Math.max(leastHold, Math.max(...spans) / 2 + wide));
}

/**
 * The strokes as they lie in one picture: each carried along with what it was drawn on; those of nearer pictures come
 * later, so that they count where two contradict each other.
 * @param tracks where each stroke's middle was followed to
 * @param picture its seconds
 */
export function carried(mends: readonly Mend[], tracks: readonly Track[], picture: number): Mend[] {
  return mends
    .flatMap((mend, index): Mend[] => {
      const found = tracks[index].points.find(({ time }) => Math.abs(time - picture) < 1e-6);
      if (!found || !reaches(mend, picture)) return [];
      const [x, y] = heldAt(mend);
      const by: Point = [found.at[0] - x, found.at[1] - y];
      return [{ ...mend, points: mend.points.map(([px, py]): Point => [px + by[0], py + by[1]]) }];
    })
    .sort((one, other) => Math.abs(other.seconds - picture) - Math.abs(one.seconds - picture));
}

/** how far from a stroke it may change a cut-out: in its own widths, and in shares of the picture's width at least */
const [reachWidths, leastReach] = [3, 0.06];

/** what an edge of a cut-out costs a pixel where the picture has none, where it has a clear one, and what it costs to change a pixel far from the stroke */
const [flat, clear, loyal] = [6, 0.4, 1.2];

/** how much a pixel's colour counts, and colours a channel that are told apart */
const [ofColour, shades] = [0.5, 8];

/** How much each pixel differs from those to its right and below, in codes of the channel that differs most. */
function slopesOf({ width, height, data }: RgbaImage): Float32Array {
  const out = new Float32Array(width * height);
  const apart = (p: number, q: number) =>
    Math.max(...[0, 1, 2].map((channel) => Math.abs(data[4 * p + channel] - data[4 * q + channel])));
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++)
      out[p] = Math.max(x + 1 < width ? apart(p, p + 1) : 0, y + 1 < height ? apart(p, p + width) : 0);
  return out;
}

/** How often colours occur among some pixels, each a little likely. */
function coloursOf({ data }: RgbaImage, pixels: readonly number[]): (pixel: number) => number {
  const counts = new Float32Array(shades ** 3).fill(0.2);
  const bin = (p: number) =>
    [0, 1, 2].reduce((sum, channel) => sum * shades + ((data[4 * p + channel] * shades) >> 8), 0);
  for (const pixel of pixels) counts[bin(pixel)]++;
  const all = counts.reduce((sum, count) => sum + count, 0);
  return (pixel) => counts[bin(pixel)] / all;
}

const strokeOf = ({ keep, points, wide }: Mend, { width, height }: Size) => ({
  take: keep ? 1 : 0,
  points: points.map(([x, y]): Point => [x * width, y * height]),
  radius: Math.max(1, (wide * width) / 2),
});

/**
 * Puts right who was cut out, by a stroke: what is under it, and what looks like that and hangs together with it up to
 * the next edge of the picture, belongs to them or does not. Further away nothing changes.
 * @param mask 1 a pixel that belongs to them
 * @throws CoreError `sizes-differ`
 * @see Boykov & Jolly 2001 (strokes), Rother et al. 2004 (colours on both sides); the weights are set by trial
 */
function mendedBy(picture: RgbaImage, mask: Uint8Array, slopes: Float32Array, mend: Mend): Uint8Array {
  const size = { width: picture.width, height: picture.height };
  const drawn = forcedBy(size, [strokeOf(mend, size)]);
  const away = distanceTo(size, (pixel) => drawn[pixel] >= 0);
  const reach = Math.max(reachWidths * mend.wide, leastReach) * size.width;
  const own = mend.keep ? 1 : 0;
  const near = [...mask.keys()].filter((pixel) => away[pixel] <= reach);
  // What is kept already is not dropped by a stroke that keeps, and the other way round.
  const free = Uint8Array.from(away, (distance, pixel) => (distance <= reach && mask[pixel] !== own ? 1 : 0));
  const [under, beside] = [
    coloursOf(
      picture,
      near.filter((pixel) => drawn[pixel] >= 0),
    ),
    coloursOf(
      picture,
      near.filter((pixel) => drawn[pixel] < 0 && free[pixel]),
    ),
  ];
  const usual = near.map((pixel) => slopes[pixel]).sort((one, other) => one - other);
  const edge = 3 * Math.max(2, usual[usual.length >> 1]);
  const cost = Float64Array.from(slopes, (slope) => clear + flat * Math.exp(-((slope / edge) ** 2)));
  const prior = (take: number, pixel: number) => {
    if (take === own) return (loyal * away[pixel]) / reach;
    return ofColour * Math.max(-2, Math.min(2, Math.log(under(pixel) / beside(pixel))));
  };
  const labels = Uint8Array.from(mask);
  improve({ ...stillVolume(size, cost, drawn), prior }, labels, free);
  return labels;
}

/**
 * Puts right who was cut out of a picture, stroke by stroke.
 * @param mask 1 a pixel that belongs to them
 * @returns the mask as the strokes say
 * @throws CoreError `sizes-differ`
 */
export function mended(picture: RgbaImage, mask: Uint8Array, mends: readonly Mend[]): Uint8Array {
  checkSameSize(picture, { width: picture.width, height: mask.length / picture.width });
  if (mends.length === 0) return mask;
  const slopes = slopesOf(picture);
  return mends.reduce((now, mend) => mendedBy(picture, now, slopes, mend), mask);
}
