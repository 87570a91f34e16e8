import clipping from 'polygon-clipping';
import { goesByBackdrop, type Cutout, type CutoutBy, type CutoutTask } from '../footage/cutout';
import type { Figure, FiguresTask } from '../footage/figures';
import { reaches, type MendTask } from '../footage/mend';
import type { Finding } from '../finding/finding';
import type { Mend } from '../model/mend';
import { plateSlot } from '../model/slots';
import { invertAffine, mapPoint } from '../geometry/affine';
import type { Bounds, Framed, Point, Size } from '../geometry/size';
import { fillFrame, fittedMatte, type Fit, type Matte, type Rings } from '../picture/node';
import type { ChosenTake, Material, Work } from './material';

/** The cut-out under the name of its work; null until it was solved. */
export const cutoutIn = ({ solved }: Material, name: string): Cutout | null => {
  const answer = solved[name];
  return answer?.method === 'cutout-2' ? answer.cutout : null;
};

/**
 * Cutting somebody out of one picture of a take, once it was measured.
 * @param seconds of the take
 */
export function cutoutWork(
  name: string,
  { takes }: Material,
  chosen: ChosenTake | null,
  seconds: number,
  by: CutoutBy = 'plate',
): Work[] {
  const cut = cutting(takes, chosen, by);
  if (!cut) return [];
  const task = (): CutoutTask => ({ is: 'cutout', seconds, by, ...cut.from });
  return [{ name, title: titles[by], is: 'cutout', parts: [...cut.parts, seconds], task }];
}

/** What somebody is cut out from, and what that depends on; null while it is not measured, or where there is no plate to do it by. */
function cutting(takes: Material['takes'], chosen: ChosenTake | null, by: CutoutBy) {
  if (!chosen?.measure) return null;
  const needsPlate = by === 'plate' || by === 'both';
  const plate = needsPlate ? takes[plateSlot] : null;
  if (needsPlate && (!plate?.measure || plate.take.media === chosen.take.media)) return null;
  const parts: unknown[] = [plate?.take, chosen.take].map((take) =>
    take ? [take.media, take.matrix] : [by],
  );
  if (by === 'both' || goesByBackdrop(by)) parts.push(by);
  const from = {
    media: chosen.take.media,
    plate: plate ? { media: plate.take.media, seconds: 0 } : null,
  };
  return { from, parts };
}

/** The work that puts another one right. */
const mendedWork = (name: string): string => `${name}-mended`;

/** Who was cut out of each picture of a stretch, under the name of its work, as strokes put it right; null until it was solved. */
export function figuresIn({ solved }: Material, name: string): readonly Figure[] | null {
  const [answer, mends] = [solved[name], solved[mendedWork(name)]];
  if (answer?.method !== 'figures-2') return null;
  if (mends?.method !== 'mend-1') return answer.figures;
  const mended = new Map(mends.figures.map((figure) => [figure.seconds, figure]));
  return answer.figures.map((figure) => mended.get(figure.seconds) ?? figure);
}

/**
 * Cutting somebody out of every picture of a stretch of a take, once it was measured, and putting that right.
 * @param span seconds of the take
 * @param mends strokes that put it right
 */
export function figuresWork(
  name: string,
  { takes, solved }: Material,
  chosen: ChosenTake | null,
  span: { from: number; until: number },
  by: CutoutBy,
  mends: readonly Mend[] = [],
): Work[] {
  const cut = cutting(takes, chosen, by);
  if (!cut) return [];
  const task = (): FiguresTask => ({ is: 'figures', by, ...span, ...cut.from });
  const title = `${titles[by]}, picture by picture`;
  const parts = [...cut.parts, span];
  const answer = solved[name];
  const near = (answer?.method === 'figures-2' ? answer.figures : []).filter(({ seconds }) =>
    mends.some((mend) => reaches(mend, seconds)),
  );
  const mend = (): MendTask => ({ is: 'mend', media: cut.from.media, figures: near, mends });
  return [
    { name, title, is: 'figures', parts, task },
    ...(near.length > 0
      ? [
          {
            name: mendedWork(name),
            title: 'the strokes that mend the cut-out',
            is: 'mend' as const,
            // Cut out by another method, they are mended anew.
            parts: [...parts, answer?.method, mends],
            task: mend,
          },
        ]
      : []),
  ];
}

/** How somebody is cut out: where there is no clean plate to do it by, they are found as a person. */
export const cutoutBy = (wanted: CutoutBy, { takes }: Material): CutoutBy =>
  (wanted === 'plate' || wanted === 'both') && !takes[plateSlot] ? 'person' : wanted;

/** What a sentence adds where a clean plate is wanted to cut somebody out by, and there is none. */
export const sayCutoutBy = (wanted: CutoutBy, material: Material): string => {
  if (cutoutBy(wanted, material) === wanted) return '';
  return wanted === 'both'
    ? ' (there is no plate, so by the person alone)'
    : ' (there is none, so by finding the person)';
};

/**
 * Pixels of its file by which the true edge of a cut-out may lie off the outline: people are found coarsely; what differs
 * from the set, or from a backdrop, is found to the pixel but for hair and for what moved. Set by trial.
 */
export const reachOfEdge = ({ width }: Size, by: CutoutBy): number => width / (by === 'person' ? 60 : 160);

/** Who was cut out as a matte: its edge is drawn to that of each picture. @param keys in pixels of the file */
export const cutoutMatte = (
  keys: { frame: number; rings: Rings }[],
  source: Size,
  by: CutoutBy,
  part?: Fit['part'],
): Matte =>
  fittedMatte(keys, softPixels(source), { reach: reachOfEdge(source, by), ...(part ? { part } : {}) });

/** The edge of a cut-out was found in pixels of 640 across: its feather in pixels of its file. */
export const softPixels = ({ width }: Size): number => Math.max(1, Math.round(width / 640));
const titles: Record<CutoutBy, string> = {
  plate: 'the cut-out',
  person: 'the person (21 MB are fetched the first time)',
  both: 'the person before the empty set (21 MB are fetched the first time)',
  backdrop: 'the cut-out',
  'backdrop-person': 'the person before the backdrop (21 MB are fetched the first time)',
};

/** Whom the finder of people misses, in words. */
export const hardToFind =
  'drawn figures, and people who are smaller than a quarter of the frame, are often not found';

/** share of the frame that somebody who was cut out covers at least, and the most of the outline that may be doubtful */
export const [leastOfFrame, mostFaint] = [0.005, 0.15];

/** What is wrong with a cut-out: nobody was found, or hardly differs from the set. */
export function examineCutout({
  share,
  faint,
}: Cutout): Pick<Finding<'uncut' | 'faint'>, 'code' | 'severity' | 'measured' | 'allowed'>[] {
  if (share < leastOfFrame)
    return [{ code: 'uncut', severity: 'fix', measured: { value: share, unit: 'share' } }];
  if (faint <= mostFaint) return [];
  return [
    {
      code: 'faint',
      severity: 'watch',
      measured: { value: faint, unit: 'share' },
      allowed: { value: mostFaint, unit: 'share' },
    },
  ];
}

/** Shares of a file's picture as its own pixels. */
export const inFile = (rings: readonly Point[][], { width, height }: Size): Point[][] =>
  rings.map((ring) => ring.map(([x, y]): Point => [x * width, y * height]));

/** Shares of the frame as pixels of a file that fills it. */
export function frameInFile(ring: readonly Point[], source: Size, frame: Framed): Point[] {
  const back = invertAffine(fillFrame(source, frame).matrix);
  return ring.map(([x, y]) => mapPoint(back, [x * frame.width, y * frame.height]));
}

/** Shares of a file's picture as shares of the frame that it fills. */
export function fileInFrame([x, y]: Point, source: Size, frame: Framed): Point {
  const [across, down] = mapPoint(fillFrame(source, frame).matrix, [x * source.width, y * source.height]);
  return [across / frame.width, down / frame.height];
}

/** The box round some points; null where there are none. */
export function boxRound(points: readonly Point[]): Bounds | null {
  if (points.length === 0) return null;
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return { left: Math.min(...xs), top: Math.min(...ys), right: Math.max(...xs), bottom: Math.max(...ys) };
}

/**
 * The part of a shape that lies inside a cut, as rings that together are one shape (even-odd rule).
 * @see Martinez, Rueda & Feito 2009, as the package that clips has it
 */
export function within(rings: readonly Point[][], cut: readonly Point[]): Point[][] {
  const [first, ...others] = rings.map((ring): [number, number][][] => [[...ring]]);
  if (!first) return [];
  const shape = others.length > 0 ? clipping.xor(first, ...others) : [first];
  // What is clipped repeats its first corner at its end.
  return clipping
    .intersection(shape, [[...cut]])
    .flatMap((polygon) => polygon.map((ring) => ring.slice(0, -1)));
}
