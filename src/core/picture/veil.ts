import type { Point, Size } from '../geometry/size';
import { chromaSide, packedYuv, planesLength, type YuvImage } from './planes';

/** What of somebody is hidden. */
export type Covers = 'face' | 'body';

/** Where somebody's head is at a second of a file, in shares of its picture; `reach` of its width, to each side. */
export type VeilPlace = { time: number; at: Point; reach: number };

/** Somebody who is hidden in a file, wherever it is shown. Places by their time, rising; one at least. */
export type Veil = { covers: Covers; places: readonly VeilPlace[] };

/** An ellipse about a point of a picture: half its width and height, in pixels. */
export type Spot = { x: number; y: number; across: number; down: number };

/** colours that are left of whoever is hidden, across and down. Too few for a face: common practice, no published source */
const cells = 4;
/** the veil ends softly over this share of its reach, outside of what it hides */
const rim = 0.12;
/** a body by the reach of its veiled head: half its width and height, and how far its middle lies below. From proportions of Drillis & Contini 1966 (from memory), with room for arms and a stride */
const body = { across: 3.2, down: 6.4, below: 5 };
/** seconds round a place for which nothing is added; from there on the reach grows so many times a second, up to so much */
const grows = { after: 0.15, aSecond: 1, most: 3 };

/** Where the head is at a second, between places as it goes evenly; wider the longer ago it was found. */
function placeAt(places: readonly VeilPlace[], seconds: number): { at: Point; reach: number } {
  const after = places.findIndex(({ time }) => time > seconds);
  const last = places[places.length - 1];
  const [one, other] = after < 0 ? [last, last] : [places[Math.max(0, after - 1)], places[after]];
  const gap = Math.min(Math.abs(seconds - one.time), Math.abs(other.time - seconds));
  const wider = Math.min(grows.most, 1 + grows.aSecond * Math.max(0, gap - grows.after));
  const share = other.time > one.time ? (seconds - one.time) / (other.time - one.time) : 0;
  const within = Math.min(1, Math.max(0, share));
  const mix = (a: number, b: number) => a + (b - a) * within;
  return {
    at: [mix(one.at[0], other.at[0]), mix(one.at[1], other.at[1])],
    reach: wider * mix(one.reach, other.reach),
  };
}

/** What is hidden of a file's picture. @param seconds of the file */
export const spotsAt = (veils: readonly Veil[], seconds: number, { width, height }: Size): Spot[] =>
  veils.map(({ covers, places }) => {
    const { at, reach } = placeAt(places, seconds);
    const [x, y, head] = [at[0] * width, at[1] * height, reach * width];
    return covers === 'face'
      ? { x, y, across: head, down: head }
      : { x, y: y + body.below * head, across: body.across * head, down: body.down * head };
  });

type Plane = Size & { data: Uint8Array };

/** The mean of a plane in each cell of a box round a spot; a cell beyond the picture has that of all of them. Null where all are. */
function meansIn({ width, height, data }: Plane, { x, y, across, down }: Spot): Float64Array | null {
  const [sums, counts] = [new Float64Array(cells * cells), new Uint32Array(cells * cells)];
  const [left, right] = [Math.max(0, Math.floor(x - across)), Math.min(width, Math.ceil(x + across))];
  const [top, bottom] = [Math.max(0, Math.floor(y - down)), Math.min(height, Math.ceil(y + down))];
  const cellOf = (place: number, middle: number, reach: number) =>
    Math.min(cells - 1, Math.max(0, Math.floor(((place - middle) / reach + 1) * (cells / 2))));
  for (let row = top; row < bottom; row++) {
    const line = cells * cellOf(row + 0.5, y, down);
    for (let column = left; column < right; column++) {
      const cell = line + cellOf(column + 0.5, x, across);
      sums[cell] += data[row * width + column];
      counts[cell]++;
    }
  }
  const sum = (values: Float64Array | Uint32Array) => [...values].reduce((all, value) => all + value, 0);
  const counted = sum(counts);
  if (counted === 0) return null;
  const all = sum(sums) / counted;
  return sums.map((value, cell) => (counts[cell] > 0 ? value / counts[cell] : all));
}

/** Lays the means of a spot over it, from the middle of one cell evenly to that of the next. */
function veilPlane(plane: Plane, spot: Spot): void {
  const { width, height, data } = plane;
  const { x, y, across, down } = spot;
  const means = meansIn(plane, spot);
  if (!means) return;
  const [wide, tall] = [across * (1 + rim), down * (1 + rim)];
  const place = (share: number) => {
    const at = Math.min(cells - 1, Math.max(0, (share + 1) * (cells / 2) - 0.5));
    const before = Math.min(cells - 2, Math.floor(at));
    return { before, on: at - before };
  };
  const bottom = Math.min(height, Math.ceil(y + tall));
  const right = Math.min(width, Math.ceil(x + wide));
  for (let row = Math.max(0, Math.floor(y - tall)); row < bottom; row++) {
    const v = (row + 0.5 - y) / down;
    const { before: above, on: below } = place(v);
    for (let column = Math.max(0, Math.floor(x - wide)); column < right; column++) {
      const u = (column + 0.5 - x) / across;
      const shows = Math.min(1, Math.max(0, (Math.hypot(u, v) - 1) / rim));
      if (shows === 1) continue;
      const { before, on } = place(u);
      const cell = cells * above + before;
      const upper = means[cell] + (means[cell + 1] - means[cell]) * on;
      const lower = means[cell + cells] + (means[cell + cells + 1] - means[cell + cells]) * on;
      const at = row * width + column;
      data[at] = Math.round((upper + (lower - upper) * below) * (1 - shows) + data[at] * shows);
    }
  }
}

/**
 * A picture in which nobody can be known at some spots: of each only a few mean colours are left.
 * @returns a picture of its own
 */
export function veiled(picture: YuvImage, spots: readonly Spot[]): YuvImage {
  const out = packedYuv(new Uint8Array(planesLength(picture)), picture, picture);
  for (const name of ['y', 'u', 'v'] as const) out[name].set(picture[name]);
  const { width, height } = picture;
  const chroma = { width: chromaSide(width), height: chromaSide(height) };
  for (const spot of spots) {
    if (!(spot.across > 0 && spot.down > 0)) continue;
    const half = { x: spot.x / 2, y: spot.y / 2, across: spot.across / 2, down: spot.down / 2 };
    veilPlane({ width, height, data: out.y }, spot);
    veilPlane({ ...chroma, data: out.u }, half);
    veilPlane({ ...chroma, data: out.v }, half);
  }
  return out;
}
