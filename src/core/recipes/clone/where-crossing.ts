import { figureAt, type Figure } from '../../footage/figures';
import { fillOf } from '../../model/slots';
import { still, type Track } from '../../motion/keyframes';
import type { Bounds, Point } from '../../geometry/size';
import { mapPoint } from '../../geometry/affine';
import { matrixAt, type MediaNode, type Rings } from '../../picture/node';
import { timeOfFrame } from '../../time/rate';
import type { CutoutBy } from '../../footage/cutout';
import { boxRound, cutoutMatte, figuresIn, figuresWork, inFile, leastOfFrame } from '../cutouts';
import type { Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { repeatsMove } from '../repeats';
import { takeNode } from '../take-node';
import { handsOver } from './hand-over';
import { cloneMaterial, otherSide, seamIn, sides, type CloneMoment, type Side } from './material';

/** Frames of the film, the end excluded, in which one stands where the other one does. */
type Stretch = { from: number; until: number };
type Frames = { start: number; lands: number; end: number };

/** the search for the join looks at so many frames at the most, and frames between two that cross belong to them */
const mostLooked = 72;
/** frames that may lie between two stretches that are one */
const joinedWithin = 6;

/**
 * Where the join that was solved parts two who stand in one place: none where it was drawn by hand, which is left as it
 * is, or where an object changes hands.
 */
export function crossingsOf(
  moment: CloneMoment,
  { lands, end }: Frames,
  { solved }: Pick<Material, 'solved'>,
): Stretch[] {
  const crossing = moment.settings.seam || handsOver(moment) ? [] : (seamIn(solved)?.crossing ?? []);
  const step = Math.max(1, Math.ceil((end - lands) / mostLooked));
  const stretches: Stretch[] = [];
  for (const frame of crossing) {
    const own = { from: Math.max(lands, frame - step), until: Math.min(end, frame + step + 1) };
    const last = stretches.at(-1);
    if (last && own.from <= last.until + joinedWithin) last.until = own.until;
    else if (own.until > own.from) stretches.push(own);
  }
  return stretches;
}

/** The work that cuts one out over a stretch, and the layer that shows them there. */
export const crossingLayer = (side: Side, index: number): string => `crossing-${side}-${index}`;

/** Who is in front where they cross. */
export const sideInFront = ({ settings }: Pick<CloneMoment, 'settings'>): Side =>
  settings.front === 'first' ? settings.first : otherSide(settings.first);

/** Seconds of a side's take at frames of the film. */
const secondsOf =
  (moment: CloneMoment, { project }: Ruler, { start, lands }: Frames, side: Side) =>
  (frame: number): number =>
    fillOf(moment, side).at +
    timeOfFrame(project.rate, frame - (side === moment.settings.first ? start : lands));

/** How both are cut out: one picture of a plate whose camera moves shows no set to do it by. */
const cutBy = (material: Material): CutoutBy => (repeatsMove(material) ? 'person' : 'plate');

/** Cutting both out of their takes where they cross. */
export const crossingWorks = (
  moment: CloneMoment,
  ruler: Ruler,
  frames: Frames,
  material: Material,
): Work[] =>
  crossingsOf(moment, frames, material).flatMap(({ from, until }, index) =>
    sides.flatMap((side) => {
      const at = secondsOf(moment, ruler, frames, side);
      const span = { from: Math.max(0, at(from - 1)), until: at(until + 1) };
      const title = `the ${side} one where they cross`;
      return figuresWork(
        crossingLayer(side, index),
        material,
        material.takes[side] ?? null,
        span,
        cutBy(material),
      ).map((work) => ({ ...work, title }));
    }),
  );

/** more of the picture than this is no performer: the camera moved, or the plate is of another place */
const mostOfFrame = 0.6;

/** Both as they were cut out where they cross; null while one was not, or where that failed. */
function figuresOf(material: Material, index: number): Record<Side, readonly Figure[]> | null {
  const [left, right] = sides.map((side) => figuresIn(material, crossingLayer(side, index)));
  const good = [left, right].every((figures) => {
    const shares = figures?.map(({ share }) => share) ?? [];
    return shares.length > 0 && shares.every((share) => share >= leastOfFrame && share <= mostOfFrame);
  });
  return good && left && right ? { left, right } : null;
}

const meets = (one: Bounds, other: Bounds): boolean =>
  one.left <= other.right && one.right >= other.left && one.top <= other.bottom && one.bottom >= other.top;
const holds = (outer: Bounds, inner: Bounds): boolean =>
  outer.left <= inner.left &&
  outer.right >= inner.right &&
  outer.top <= inner.top &&
  outer.bottom >= inner.bottom;

/** What of a cut-out is near the other one: whoever else differs from the plate stays what the join makes of them. */
function nearOther({ rings }: Figure, other: Figure): Point[][] {
  const places = other.rings.flatMap((ring) => boxRound(ring) ?? []);
  const boxes = rings.map((ring) => boxRound(ring));
  const near = boxes.filter((box): box is Bounds => !!box && places.some((place) => meets(box, place)));
  return rings.filter((_, index) => {
    const box = boxes[index];
    return box !== null && near.some((one) => one === box || holds(one, box));
  });
}

/**
 * Both over the joined picture where they cross, each whole, one behind the other; nothing until they were cut out.
 * @param appears how opaque the copy is
 */
export function crossingLayers(
  moment: CloneMoment,
  ruler: Ruler,
  frames: Frames,
  material: Material,
  appears: Track,
): MediaNode[] {
  const front = sideInFront(moment);
  const chosen = cloneMaterial(material);
  return crossingsOf(moment, frames, material).flatMap(({ from, until }, index) => {
    const figures = figuresOf(material, index);
    if (!figures) return [];
    return [otherSide(front), front].flatMap((side) => {
      const size = chosen[side]?.measure?.size;
      if (!size) return [];
      const [at, atOther] = [side, otherSide(side)].map((one) => secondsOf(moment, ruler, frames, one));
      const keys: { frame: number; rings: Rings }[] = [];
      let before: Figure | undefined;
      for (let frame = from; frame < until; frame++) {
        const now = figureAt(figures[side], at(frame));
        const other = figureAt(figures[otherSide(side)], atOther(frame));
        if (now && other && now !== before) keys.push({ frame, rings: inFile(nearOther(now, other), size) });
        before = now;
      }
      const name = `${side === 'left' ? 'Left' : 'Right'} where they cross: ${chosen[side]?.take.name}`;
      return takeNode(
        ruler.project,
        crossingLayer(side, index),
        name,
        chosen[side],
        { from, until, at: at(from) },
        {
          mattes: [cutoutMatte(keys, size, cutBy(material))],
          opacity: side === moment.settings.first ? still(1) : appears,
        },
      );
    });
  });
}

/** shares of the frame within which a place that is told by coarse cells may lie off. By trial */
const beside = 0.06;

/** What cutting them out where they cross came to. */
export type Crossed = {
  /** share of an edge along which the cut-out may be wrong, at its worst */
  faint: number;
  /**
   * Whether somebody of a side who is lost in some frames, at a place of the frame, is laid over the join there: surely,
   * or maybe, since of two who were taken for one the place lies between them.
   */
  lays: (side: Side, lost: { first: number; last: number }, at: Point) => 'surely' | 'maybe' | 'not';
};

/** Null while they were not cut out everywhere where they cross, or where that failed. */
export function crossed(
  moment: CloneMoment,
  ruler: Ruler,
  frames: Frames,
  material: Material,
): Crossed | null {
  const stretches = crossingsOf(moment, frames, material);
  const cut = stretches.map((_, index) => figuresOf(material, index));
  if (stretches.length === 0 || cut.some((one) => !one)) return null;
  const all = cut.flatMap((one) => (one ? [...one.left, ...one.right] : []));
  const layers = crossingLayers(moment, ruler, frames, material, still(1));
  return {
    faint: Math.max(...all.map(({ faint }) => faint)),
    lays: (side, { first, last }, [x, y]) => {
      const index = stretches.findIndex(({ from, until }) => first >= from && last < until);
      const layer = layers.find(({ id }) => id === crossingLayer(side, index));
      const shape = layer?.mattes[0].shape;
      if (!layer || shape?.is !== 'outline') return 'not';
      const { width, height } = ruler.project;
      const boxes = shape.keys.flatMap(({ frame, rings }) => {
        const matrix = matrixAt(layer, frame);
        return rings.flatMap(
          (ring) => boxRound(ring.map((point) => mapPoint(matrix, [point[0], point[1]]))) ?? [],
        );
      });
      // Where somebody is lost is told by coarse cells, in one of the frames.
      const [across, down] = [beside * width, beside * height];
      const here: Bounds = {
        left: x * width - across,
        right: x * width + across,
        top: y * height - down,
        bottom: y * height + down,
      };
      return boxes.some((box) => meets(box, here)) ? 'surely' : 'maybe';
    },
  };
}
