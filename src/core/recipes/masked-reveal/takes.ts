import type { MomentOf } from '../../model/records';
import { fillOf } from '../../model/slots';
import { multiplyAffine, type Affine } from '../../geometry/affine';
import type { Framed, Point, Size } from '../../geometry/size';
import { linear } from '../../motion/easing';
import type { Track } from '../../motion/keyframes';
import { fillFrame, type Matte, type MediaNode, type Transform } from '../../picture/node';
import { timeOfFrame } from '../../time/rate';
import { spanAnchors } from '../anchors';
import type { Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { drawnKeys } from './edge';
import { wholeReveal } from './settings';
import { beforeSlot } from './slots';

export type RevealMoment = MomentOf<'masked-reveal'>;

const titles = { start: 'Begins on', lands: 'The change begins on', end: 'Ends on' };

/** The instants of a reveal. */
export const revealAnchors = (moment: RevealMoment, ruler: Ruler): Anchor[] =>
  spanAnchors(moment, ruler, titles, 'The change begins');

/** Delivery frames from the first change to the last. */
export function changeOf({ settings }: RevealMoment, { project }: Ruler): number {
  if (settings.edge !== 'drawn') return settings.frames;
  return Math.max(1, ...drawnKeys(settings, project).map(({ after }) => after));
}

/** Its first frame, those of the change, and the one after its last. */
export function revealFrames(moment: RevealMoment, ruler: Ruler) {
  const [start, lands, last] = revealAnchors(moment, ruler).map(({ frame }) => frame);
  const end = Math.max(start + 1, last);
  const begins = Math.max(start, lands);
  return { start, lands: begins, done: begins + changeOf(moment, ruler), end };
}

/**
 * The second of a take with which a slot begins to show: as it was set, or so that what falls begins to fall on the
 * beat, where that was marked.
 */
export function beginsAt(moment: RevealMoment, ruler: Ruler, slot: string): number {
  const { edge, falls } = wholeReveal(moment.settings);
  const marked = edge === 'falling' ? falls[slot] : null;
  if (typeof marked !== 'number') return fillOf(moment, slot).at;
  const { start, lands } = revealFrames(moment, ruler);
  const since = slot === beforeSlot.key ? timeOfFrame(ruler.project.rate, lands - start) : 0;
  return Math.max(0, marked - since);
}

/** A part of a take that shows with one speed and one size. */
type Part = { id: string; from: number; until: number; at: number; speed: number; closer: number };

/**
 * The parts of a take: as filmed until the change, perhaps faster while it lasts, and then as filmed again, where it
 * would be had it never run faster, so that it stays with the song.
 */
function partsOf(moment: RevealMoment, ruler: Ruler, slot: string): Part[] {
  const { rate } = ruler.project;
  const { start, lands, done, end } = revealFrames(moment, ruler);
  const { fast, closer } = wholeReveal(moment.settings);
  const from = slot === beforeSlot.key ? start : lands;
  const until = slot === beforeSlot.key && closer > 0 ? Math.min(done, end) : end;
  const begins = beginsAt(moment, ruler, slot);
  const plain = (id: string, first: number, last: number, size = 0): Part => {
    const at = begins + timeOfFrame(rate, first - from);
    return { id, from: first, until: last, at, speed: 1, closer: size };
  };
  if (fast === 100 && closer === 0) return [plain(slot, from, until)];
  const changed = Math.min(done, end);
  const before = from < lands ? [plain(slot, from, lands)] : [];
  const during = {
    ...plain(from < lands ? `${slot}-changes` : slot, lands, Math.min(changed, until)),
    speed: fast / 100,
  };
  const after = changed < until ? [plain(`${slot}-after`, changed, until, closer)] : [];
  return [...before, during, ...after];
}

/** A file's pixels into the frame, enlarged about a point of it. */
function closerInto(source: Size, frame: Framed, percent: number, [x, y]: Point): Transform {
  const filled = fillFrame(source, frame).matrix;
  const scale = 1 + percent / 100;
  const about: Affine = [scale, 0, 0, scale, x * frame.width * (1 - scale), y * frame.height * (1 - scale)];
  return { is: 'map', matrix: multiplyAffine(about, filled) };
}

/**
 * What a slot's take shows, part by part. It is not masked once the picture is closer: that is a cut.
 * @returns nothing where no take is chosen or it was not measured yet
 */
export function revealTakes(
  moment: RevealMoment,
  ruler: Ruler,
  material: Material,
  slot: { key: string; title: string },
  mattes: Matte[] = [],
): MediaNode[] {
  const { project } = ruler;
  const { closer, across, down } = wholeReveal(moment.settings);
  const { done } = revealFrames(moment, ruler);
  const chosen = material.takes[slot.key] ?? null;
  const source = chosen?.measure?.size;
  const title = `${slot.title[0].toUpperCase()}${slot.title.slice(1)}`;
  return partsOf(moment, ruler, slot.key).flatMap(({ id, from, until, at, speed, closer: size }) => {
    if (from >= until) return [];
    const which =
      id === slot.key ? '' : id.endsWith('-after') ? ', once it has changed' : ', while it changes';
    const time: Track = [
      { frame: from, value: at, ease: linear },
      { frame: until, value: at + timeOfFrame(project.rate, until - from) * speed, ease: 'hold' },
    ];
    const shown = {
      from,
      until,
      at,
      ...(speed === 1 ? {} : { time }),
      ...(size > 0 && source ? { into: closerInto(source, project, size, [across / 100, down / 100]) } : {}),
    };
    const isCut = closer > 0 && from >= done;
    const name = `${title}${which}: ${chosen?.take.name ?? ''}`;
    return takeNode(project, id, name, chosen, shown, { mattes: isCut ? [] : mattes });
  });
}
