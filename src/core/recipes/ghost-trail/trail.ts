import { figureAt, type Figure } from '../../footage/figures';
import type { Point, Size } from '../../geometry/size';
import type { MomentOf } from '../../model/records';
import { fillOf } from '../../model/slots';
import { linear } from '../../motion/easing';
import { still, valueAt, type Track } from '../../motion/keyframes';
import { groupOf, type MediaNode, type Node, type Rings } from '../../picture/node';
import { frameOfTime, timeOfFrame } from '../../time/rate';
import { spanAnchors } from '../anchors';
import { cutoutBy, cutoutMatte, figuresIn, figuresWork, inFile } from '../cutouts';
import type { Material, Work } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { wholeGhost } from './settings';
import { copyLayer, figuresWorkName, inFront, moveSlot } from './slots';

export type GhostMoment = MomentOf<'ghost-trail'>;

const titles = { start: 'Begins on', lands: 'The copies run into one on', end: 'Ends on' };

export const ghostAnchors = (moment: GhostMoment, ruler: Ruler): Anchor[] =>
  spanAnchors(moment, ruler, titles, 'The copies run into one');

/** Its first frame, the one on which all copies are the performer again, and the one after its last. */
export function ghostFrames(moment: GhostMoment, ruler: Ruler) {
  const [start, lands, end] = ghostAnchors(moment, ruler).map(({ frame }) => frame);
  return { start, lands: Math.max(start, lands), end: Math.max(start + 1, end) };
}

/** Frames by which the last copy is late at the most: it stays behind so long at first, and catches up in as many. */
export function trailRoom(moment: GhostMoment, ruler: Ruler): number {
  const { start, lands } = ghostFrames(moment, ruler);
  return Math.floor((lands - start) / 2);
}

/** Frames by which each copy is late, the first copy first. */
export function latenesses(moment: GhostMoment, ruler: Ruler): number[] {
  const { copies, apart } = wholeGhost(moment.settings);
  const room = trailRoom(moment, ruler);
  return Array.from({ length: copies }, (_, index) => Math.min(room, (index + 1) * apart));
}

/** Seconds of the take at a frame, as it runs. */
export const secondsOf =
  (moment: GhostMoment, ruler: Ruler) =>
  (frame: number): number =>
    fillOf(moment, moveSlot.key).at +
    timeOfFrame(ruler.project.rate, frame - ghostFrames(moment, ruler).start);

/** The frame on which the take, as it runs, shows a picture of some seconds. */
export const frameShowing = (moment: GhostMoment, ruler: Ruler, seconds: number): number =>
  ghostFrames(moment, ruler).start +
  frameOfTime(ruler.project.rate, seconds - fillOf(moment, moveSlot.key).at);

/** Seconds of the take that a copy shows: the first picture until the others are so far ahead, then late, then all at once. */
function lateTime(moment: GhostMoment, ruler: Ruler, late: number): Track {
  const { start, lands } = ghostFrames(moment, ruler);
  const at = secondsOf(moment, ruler);
  return [
    { frame: start, value: at(start), ease: 'hold' },
    { frame: start + late, value: at(start), ease: linear },
    ...(lands - late > start + late
      ? [{ frame: lands - late, value: at(lands - 2 * late), ease: linear }]
      : []),
    { frame: lands, value: at(lands), ease: 'hold' },
  ];
}

/** Cutting the performer out of every picture in which copies follow them; up to a tenth of a second more, so that a beat moved a little asks for nothing new. */
export function ghostWorks(moment: GhostMoment, ruler: Ruler, material: Material): Work[] {
  const { start, lands } = ghostFrames(moment, ruler);
  const at = secondsOf(moment, ruler);
  const before = at(start) - timeOfFrame(ruler.project.rate, 1);
  const span = {
    from: Math.max(0, Math.floor(10 * before) / 10),
    until: Math.ceil(10 * at(lands) - 1e-6) / 10,
  };
  const { by, mends } = wholeGhost(moment.settings);
  const chosen = material.takes[moveSlot.key] ?? null;
  return figuresWork(figuresWorkName, material, chosen, span, cutoutBy(by, material), mends);
}

/** The pictures that were cut out; null while they were not. */
export const figuresOf = (material: Material): readonly Figure[] | null =>
  figuresIn(material, figuresWorkName);

/** The outline of each figure in pixels of its file, the same for every copy that shows it. */
const outlinesIn = (size: Size) => {
  const known = new Map<Figure, Point[][]>();
  return (figure: Figure): Rings => {
    const rings = known.get(figure) ?? inFile(figure.rings, size);
    known.set(figure, rings);
    return rings;
  };
};

/** The picture of a ghost trail: the take, its late copies over it, the last at the back, and the performer in front of them. */
export function buildGhost(moment: GhostMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const { start, lands, end } = ghostFrames(moment, ruler);
  const { copies, first } = wholeGhost(moment.settings);
  const chosen = material.takes[moveSlot.key] ?? null;
  const size = chosen?.measure?.size;
  const at = secondsOf(moment, ruler);
  const figures = figuresOf(material) ?? [];
  const rings = size && outlinesIn(size);
  const by = cutoutBy(wholeGhost(moment.settings).by, material);

  /** The performer alone, late by some frames. */
  const figure = (id: string, name: string, late: number, opacity: number): MediaNode[] => {
    const from = late > 0 ? start + 1 : start;
    if (!size || !rings || figures.length === 0 || from >= lands) return [];
    const time = lateTime(moment, ruler, late);
    const keys: { frame: number; rings: Rings }[] = [];
    let before: Figure | null = null;
    for (let frame = from; frame < lands; frame++) {
      const now = figureAt(figures, valueAt(time, frame)) ?? null;
      if (now && now !== before) keys.push({ frame, rings: rings(now) });
      before = now;
    }
    return takeNode(
      project,
      id,
      `${name}: ${chosen.take.name}`,
      chosen,
      { from, until: lands, at: at(start), time },
      { mattes: [cutoutMatte(keys, size, by)], opacity: still(opacity) },
    );
  };

  const late = latenesses(moment, ruler)
    .map((frames, index) =>
      figure(copyLayer(index + 1), `Copy ${index + 1}`, frames, ((first / 100) * (copies - index)) / copies),
    )
    .reverse();
  return groupOf('shot', { width: project.width, height: project.height }, { from: start, until: end }, [
    ...takeNode(project, moveSlot.key, `Take: ${chosen?.take.name ?? ''}`, chosen, {
      from: start,
      until: end,
      at: at(start),
    }),
    ...late.flat(),
    ...figure(inFront, 'In front', 0, 1),
  ]);
}
