import { figureAt } from '../../footage/figures';
import { plateSlot } from '../../model/slots';
import { linear } from '../../motion/easing';
import { still, type Track } from '../../motion/keyframes';
import type { MediaNode } from '../../picture/node';
import { frameOfTime, timeOfFrame } from '../../time/rate';
import { boxRound, cutoutMatte, figuresIn, figuresWork, fileInFrame, inFile } from '../cutouts';
import type { Material, Work } from '../material';
import { mendOutline } from '../mend-outline';
import type { Outline, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { flightIn, leapFrames, type LeapMoment } from './build';
import { wholeLeap } from './settings';
import { raisedWork, upSlot } from './slots';

/** as many frames of a jump as are raised at most; one that lasts longer is raised at its end only */
const mostFrames = 48;

/**
 * The frames between the floor and the floor, and the seconds of the take that they show; null where nobody knows
 * when the jumper is in the air.
 */
export function raisedSpan(moment: LeapMoment, ruler: Ruler, material: Material) {
  const flight = flightIn(material, upSlot.key);
  const { start, meets } = leapFrames(moment, ruler);
  if (!flight || flight.leaves === null || flight.meets === null || meets === null) return null;
  const { rate } = ruler.project;
  const airborne = Math.min(mostFrames, frameOfTime(rate, flight.meets - flight.leaves));
  const from = Math.max(start, meets - airborne);
  const met = flight.meets;
  const secondsAt = (frame: number) => Math.max(0, met - timeOfFrame(rate, meets - frame));
  return { from, until: meets, secondsAt };
}

/** Cutting the jumper out of each picture in the air, and of the one before, which the first frame may show. */
export function raisedWorks(moment: LeapMoment, ruler: Ruler, material: Material): Work[] {
  const span = raisedSpan(moment, ruler, material);
  if (!span) return [];
  const from = Math.max(0, span.secondsAt(span.from - 1));
  const until = span.secondsAt(span.until);
  const { mends } = wholeLeap(moment.settings);
  const chosen = material.takes[upSlot.key] ?? null;
  return figuresWork(raisedWork, material, chosen, { from, until }, 'plate', mends);
}

/** How much higher the jumper is at a frame of the flight, in shares of the frame: as a body that is thrown up. */
function higher(moment: LeapMoment, { from, until }: { from: number; until: number }, frame: number): number {
  const share = (frame - from) / Math.max(1, until - from);
  return (wholeLeap(moment.settings).raise / 100) * 4 * share * (1 - share);
}

/** The jumper in the air, frame by frame, where they were cut out; null while they were not. */
export function raisedFigures(moment: LeapMoment, ruler: Ruler, material: Material) {
  const span = raisedSpan(moment, ruler, material);
  const figures = figuresIn(material, raisedWork);
  if (!span || !figures || span.until - span.from < 2) return null;
  return Array.from({ length: span.until - span.from }, (_, index) => span.from + index).flatMap((frame) => {
    const figure = figureAt(figures, span.secondsAt(frame));
    return figure && figure.rings.length > 0 ? [{ frame, figure }] : [];
  });
}

/** Who is cut out of the picture in the air at a frame, to be put right by strokes; null where none is raised. */
export function raisedOutline(
  moment: LeapMoment,
  material: Material,
  ruler: Ruler,
  frame: number,
): Outline | null {
  const { way, mends } = wholeLeap(moment.settings);
  const span = way === 'raised' ? raisedSpan(moment, ruler, material) : null;
  const source = material.takes[upSlot.key]?.measure?.size;
  if (!span || !source || frame < span.from || frame >= span.until) return null;
  const figures = figuresIn(material, raisedWork) ?? [];
  const figure = figureAt(figures, span.secondsAt(frame));
  const { from, secondsAt } = span;
  return figure
    ? mendOutline(ruler, figure, source, mends, (seconds) =>
        Math.round(from + frameOfTime(ruler.project.rate, seconds - secondsAt(from))),
      )
    : null;
}

/** By how much the highest point of the raised jump lies beyond the frame's upper edge, in shares of its height. */
export function beyondTop(moment: LeapMoment, ruler: Ruler, material: Material): number {
  const span = raisedSpan(moment, ruler, material);
  const source = material.takes[upSlot.key]?.measure?.size;
  const figures = raisedFigures(moment, ruler, material) ?? [];
  if (!span || !source) return 0;
  const tops = figures.map(({ frame, figure }) => {
    const box = boxRound(figure.rings.flat().map((point) => fileInFrame(point, source, ruler.project)));
    return (box?.top ?? 1) - higher(moment, span, frame);
  });
  return Math.max(0, -Math.min(0, ...tops));
}

/**
 * The take as it was filmed, its feet on the floor again on the beat; while it is in the air the jumper alone, raised
 * along their own path over the empty set. As filmed all the time while a picture of the flight is not cut out.
 */
export function raisedJump(moment: LeapMoment, ruler: Ruler, material: Material): MediaNode[] {
  const { project } = ruler;
  const { rate, width, height } = project;
  const chosen = material.takes[upSlot.key] ?? null;
  const source = chosen?.measure?.size;
  const { start, meets, end } = leapFrames(moment, ruler);
  const span = raisedSpan(moment, ruler, material);
  const name = chosen?.take.name ?? '';
  const met = flightIn(material, upSlot.key)?.meets ?? timeOfFrame(rate, (meets ?? start) - start);
  /** the take's seconds over all frames; before its first picture that one stands */
  const first = met - timeOfFrame(rate, (meets ?? start) - start);
  const stands = Math.max(0, Math.ceil(frameOfTime(rate, -first)));
  const time: Track = [
    ...(stands > 0 ? [{ frame: start, value: 0, ease: 'hold' as const }] : []),
    { frame: start + stands, value: Math.max(0, first), ease: linear },
    { frame: end, value: first + timeOfFrame(rate, end - start), ease: 'hold' },
  ];
  const part = (id: string, title: string, from: number, until: number, rest = {}) =>
    from < until
      ? takeNode(project, id, `${title}: ${name}`, chosen, { from, until, at: 0, time }, rest)
      : [];
  const figures = raisedFigures(moment, ruler, material);
  const isWhole = span && figures && figures.length === span.until - span.from;
  const waits = part(`${upSlot.key}-waits`, 'Its first picture', start, start + stands);
  if (!isWhole || !source || !material.takes[plateSlot]?.measure)
    return [...waits, ...part(upSlot.key, 'Jump', start + stands, end)];
  const y: Track = Array.from({ length: span.until - span.from + 1 }, (_, index) => ({
    frame: span.from + index,
    value: -height * higher(moment, span, span.from + index),
    ease: linear,
  }));
  const keys = figures.map(({ frame, figure }) => ({ frame, rings: inFile(figure.rings, source) }));
  return [
    ...waits,
    ...part(upSlot.key, 'Jump', start + stands, span.from),
    ...part(`${upSlot.key}-raised`, 'Raised', span.from, span.until, {
      mattes: [cutoutMatte(keys, source, 'plate')],
      transforms: [
        {
          is: 'move',
          size: { width, height },
          x: still(0),
          y,
          rotation: still(0),
          scale: still(1),
          undone: false,
        },
      ],
    }),
    ...part(`${upSlot.key}-after`, 'Down again', span.until, end),
  ];
}
