import type { Placement } from '../geometry/placement';
import { checkSameSize, type GrayImage } from '../picture/image';
import { median } from '../statistics';
import { pyramidOf, type Level } from './pyramid';
import { mostAnchors, prepareReference, type Anchors, type Reference } from './reference';
import { refine } from './refine';

/** places that are compared on the smallest level, and on those between */
const [coarsest, between] = [2_500, 5_000];

/** Best whole-pixel shift of the smallest level by robust difference. */
function coarseShift(anchors: Anchors, frame: Level): { tx: number; ty: number } {
  const { width, height, data } = frame;
  const reach = Math.max(3, Math.round(Math.min(width, height) * 0.14));
  const step = Math.max(1, Math.floor(anchors.x.length / 700));
  const brighter = median(data) - median(anchors.level.data);
  const most = Math.ceil(anchors.x.length / step);
  let best = { tx: 0, ty: 0, cost: Infinity };
  for (let ty = -reach; ty <= reach; ty++) {
    for (let tx = -reach; tx <= reach; tx++) {
      let [sum, count] = [0, 0];
      // What already costs more than the best one, however many are still to come, is not it.
      for (let index = 0; index < anchors.x.length && sum <= best.cost * most; index += step) {
        const x = Math.floor(anchors.x[index] + width / 2) + tx;
        const y = Math.floor(anchors.y[index] + height / 2) + ty;
        if (x < 0 || y < 0 || x >= width || y >= height) continue;
        const off = Math.abs(data[y * width + x] - anchors.value[index] - brighter);
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

/** The share of a reference's places at which the picture looks as it does, but for noise. */
function shareFitting({ residual, spread }: ReturnType<typeof refine>): number {
  const allowed = Math.max(9, Math.min(3 * spread, 14));
  let fits = 0;
  for (const value of residual) if (Math.abs(value) < allowed) fits++;
  return fits / residual.length;
}

/**
 * How `frame` lies against `reference`, to hundredths of a pixel, with moving things and changed light left out.
 * @throws CoreError `sizes-differ` where the pictures differ in size
 * @see Baker & Matthews 2004 (inverse compositional); robust weights after Tukey
 */
export function registerFrame(reference: GrayImage | Reference, frame: GrayImage): Placement {
  const prepared = 'anchors' in reference ? reference : prepareReference(reference);
  checkSameSize(prepared, frame);
  const none = { dx: 0, dy: 0, rotation: 0, scale: 1, agreement: 0 };
  const levels = pyramidOf(frame);
  const top = levels.length - 1;
  if (prepared.anchors[0].x.length < 60) return none;
  // Somebody large and dark before a set may hide which shift is the best one; a camera that stands is always tried.
  const begun = [coarseShift(prepared.anchors[top], levels[top]), { tx: 0, ty: 0 }].map((shift) =>
    refine(prepared.anchors[top], levels[top], { mr: 1, mi: 0, ...shift }, 12, coarsest),
  );
  let last = shareFitting(begun[1]) > shareFitting(begun[0]) ? begun[1] : begun[0];
  for (let level = top - 1; level >= 0; level--) {
    const w = { ...last.w, tx: last.w.tx * 2, ty: last.w.ty * 2 };
    last = refine(
      prepared.anchors[level],
      levels[level],
      w,
      level === 0 ? 8 : 10,
      level === 0 ? mostAnchors : between,
    );
  }
  const { mr, mi, tx, ty } = last.w;
  const scale = Math.hypot(mr, mi);
  const result = {
    dx: tx,
    dy: ty,
    rotation: (Math.atan2(mi, mr) * 180) / Math.PI,
    scale,
    agreement: shareFitting(last),
  };
  // A picture without the reference's contrast "fits" by being flat: a covered lens, black, plain noise.
  const flat = last.gain < 0.15;
  return Object.values(result).every(Number.isFinite) && scale > 0.5 && scale < 2 && !flat ? result : none;
}
