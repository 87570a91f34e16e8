import type { Placement } from '../geometry/placement';
import { checkSameSize, type GrayImage } from '../picture/image';
import { meansOf } from '../picture/means';
import { pyramidOf, type Level } from './pyramid';
import { mostAnchors, prepareReference, type Anchors, type Reference } from './reference';
import { quiet, refine, type Fit } from './refine';

/** places that are compared on the smallest level, and on those between */
const [coarsest, between] = [2_500, 5_000];

/** What stands out of a level's surroundings, whatever the light is. */
function detailOf(level: Level): Float32Array {
  const means = meansOf(level, level.data, 3);
  return level.data.map((value, at) => value - means[at]);
}

/** Best whole-pixel shift of the smallest level by robust difference. */
function coarseShift(anchors: Anchors, frame: Level): { tx: number; ty: number } {
  const { width, height } = frame;
  const reach = Math.max(3, Math.round(Math.min(width, height) * 0.14));
  const step = Math.max(1, Math.floor(anchors.x.length / 700));
  const [own, other] = [detailOf(anchors.level), detailOf(frame)];
  const most = Math.ceil(anchors.x.length / step);
  let best = { tx: 0, ty: 0, cost: Infinity };
  for (let ty = -reach; ty <= reach; ty++) {
    for (let tx = -reach; tx <= reach; tx++) {
      let [sum, count] = [0, 0];
      // What already costs more than the best one, however many are still to come, is not it.
      for (let index = 0; index < anchors.x.length && sum <= best.cost * most; index += step) {
        const column = Math.floor(anchors.x[index] + width / 2);
        const row = Math.floor(anchors.y[index] + height / 2);
        const [x, y] = [column + tx, row + ty];
        if (x < 0 || y < 0 || x >= width || y >= height) continue;
        const off = Math.abs(other[y * width + x] - own[row * width + column]);
        sum += off < 24 ? off : 24;
        count++;
      }
      if (count * step * 3 < anchors.x.length) continue;
      const cost = sum / count + 0.02 * Math.sqrt(tx * tx + ty * ty);
      if (cost < best.cost) best = { tx, ty, cost };
    }
  }
  return best;
}

/** codes that noise makes of a place at the most, where there is little of it */
const grain = 9;
/** share of the places that fit from which on nobody can hide a better shift */
const sure = 0.75;
/** gains that are tried, a stop either way */
const gains = [0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.12, 1.25, 1.4, 1.6, 2];
/** codes within which a place counts as fitting while the light is voted on */
const close = 6;

/**
 * The shift at most so far from a given one, and the gain and offset, that most places of the smallest level agree on,
 * whoever stands before the others.
 * @see Hough voting: least squares would be drawn away by a performer who covers two fifths of the places
 */
function votedFit(
  { width, height, data }: Level,
  reference: Level,
  around: { tx: number; ty: number },
  reach: number,
): Fit {
  // Those who voted lie within `close` of their fit; anything wider lets a performer in.
  const best = { w: { mr: 1, mi: 0, ...around }, gain: 1, offset: 0, spread: close / 2 };
  let most = 0;
  for (let ty = around.ty - reach; ty <= around.ty + reach; ty++)
    for (let tx = around.tx - reach; tx <= around.tx + reach; tx++)
      for (const gain of gains) {
        const votes = new Uint16Array(1024);
        for (let y = Math.max(0, ty); y < Math.min(height, height + ty); y += 2)
          for (let x = Math.max(0, tx); x < Math.min(width, width + tx); x += 2)
            votes[(data[y * width + x] - gain * reference.data[(y - ty) * width + x - tx] + 640.5) | 0]++;
        let near = 0;
        for (let at = 2 * close; at < votes.length; at++) {
          near += votes[at] - (votes[at - 2 * close - 1] ?? 0);
          if (near <= most) continue;
          most = near;
          Object.assign(best, { w: { mr: 1, mi: 0, tx, ty }, gain, offset: at - close - 640 });
        }
      }
  return best;
}

/** The share of a reference's places at which the picture looks as it does, but for noise, so many codes. */
function shareFitting({ residual }: ReturnType<typeof refine>, allowed: number): number {
  let fits = 0;
  for (const value of residual) if (Math.abs(value) < allowed) fits++;
  return fits / residual.length;
}

/** How the smallest level lies: where the camera stood if nearly all fits there, else where more does. */
function begin(anchors: Anchors, frame: Level): ReturnType<typeof refine> {
  const from = (fit: Fit) => refine(anchors, frame, fit, 12, coarsest);
  const voted = (shift: { tx: number; ty: number }, reach: number) =>
    votedFit(frame, anchors.level, shift, reach);
  const stood = from(voted({ tx: 0, ty: 0 }, 0));
  if (shareFitting(stood, grain) > sure) return stood;
  // Somebody large and dark before a set may hide which shift is the best one; a camera that stands is always tried.
  const starts = [coarseShift(anchors, frame), { tx: 0, ty: 0 }].map((shift) => voted(shift, 1));
  const found = starts.map(from);
  const most = () => found.toSorted((one, other) => shareFitting(other, grain) - shareFitting(one, grain))[0];
  // What turned, or lies half a place off, may fit too little of what voted to be found from there.
  if (shareFitting(most(), grain) < 0.5)
    found.push(...starts.map((fit) => from({ ...fit, spread: Infinity })));
  return most();
}

/**
 * How `frame` lies against `reference`, to hundredths of a pixel, with moving things and changed light left out.
 * @throws CoreError `sizes-differ` where the pictures differ in size
 * @see Baker & Matthews 2004 (inverse compositional); robust weights after Tukey
 */
export function registerFrame(reference: GrayImage | Reference, frame: GrayImage): Placement {
  const prepared = 'anchors' in reference ? reference : prepareReference(reference);
  checkSameSize(prepared, frame);
  return registerLevels(prepared, pyramidOf(frame));
}

/** As `registerFrame`. @param levels of the picture, from its full size down, as `pyramidOf` makes them */
export function registerLevels({ anchors }: Reference, levels: readonly Level[]): Placement {
  const none = { dx: 0, dy: 0, rotation: 0, scale: 1, agreement: 0 };
  const top = levels.length - 1;
  if (anchors[0].x.length < 60) return none;
  let last = begin(anchors[top], levels[top]);
  for (let level = top - 1; level >= 0; level--) {
    const w = { ...last.w, tx: last.w.tx * 2, ty: last.w.ty * 2 };
    last = refine(
      anchors[level],
      levels[level],
      { ...last, w, spread: Infinity },
      level === 0 ? 8 : 10,
      level === 0 ? mostAnchors : between,
      level === 0 ? quiet.last : quiet.first,
    );
  }
  const { mr, mi, tx, ty } = last.w;
  const scale = Math.hypot(mr, mi);
  const result = {
    dx: tx,
    dy: ty,
    rotation: (Math.atan2(mi, mr) * 180) / Math.PI,
    scale,
    agreement: shareFitting(last, Math.max(grain, Math.min(3 * last.spread, 14))),
  };
  // A picture without the reference's contrast "fits" by being flat: a covered lens, black, plain noise.
  const flat = last.gain < 0.15;
  return Object.values(result).every(Number.isFinite) && scale > 0.5 && scale < 2 && !flat ? result : none;
}
