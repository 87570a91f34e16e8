import type { SeamSide } from '../../footage/seam-task';
import { drawnFurther, furtherOf, furtherSeamIn, ringsOfFurther, seamOfFurther } from './copies';
import { type CloneMoment, cloneMaterial, seamIn, seamWork, shadowsOf, sides } from './material';
import { drawnHanded, handedFrame, handedWork } from './hand-over';
import { crossingWorks, crossingsOf, sideInFront } from './where-crossing';
import type { Framed, Point } from '../../geometry/size';
import { fillOf, plateSlot, tapsOf } from '../../model/slots';
import { frameOfTime } from '../../time/rate';
import type { ChosenTake, Material, Work } from '../material';
import type { Ruler } from '../recipe';
import { mediaIn, secondsAt, type MediaNode } from '../../picture/node';
import { buildClone, cloneAnchors, cloneFrames, ringsInForce } from './build';

/** A take with light and movement put right, whatever the person set. */
const corrected = (chosen: ChosenTake | null): ChosenTake | null =>
  chosen && { ...chosen, take: { ...chosen.take, steady: true, match: true } };

/** One side of a join: a copy as it is built, and as it would be put right. */
function sideOf(
  moment: CloneMoment,
  { project }: Ruler,
  slot: string,
  { take }: ChosenTake,
  [asSet, putRight]: readonly [readonly MediaNode[], readonly MediaNode[]],
): SeamSide {
  const [node, better] = [asSet, putRight].map((all) => all.filter(({ id }) => id === slot)[0]);
  const begins = secondsAt(node, node.from);
  return {
    node,
    corrected: take.steady && take.match ? node : better,
    taps: tapsOf(fillOf(moment, slot)).map(({ time, at }) => ({
      frame: node.from + frameOfTime(project.rate, time - begins),
      at,
    })),
  };
}

const isReady = (plate: ChosenTake | null, chosen: ChosenTake | null): chosen is ChosenTake =>
  Boolean(chosen?.measure && (!plate || chosen.take.id === plate.take.id || chosen.comparison));

/** What a join depends on of a take. */
const partsOf = (chosen: ChosenTake | null) =>
  chosen && [
    chosen.take.media,
    chosen.take.matrix,
    chosen.take.steady,
    chosen.take.match,
    ...(chosen.take.moves ? ['moves'] : []),
  ];

/** The picture as it is built, and as it would be with every take put right. */
function bothWays(moment: CloneMoment, ruler: Ruler, material: Material) {
  const takes = Object.fromEntries(
    Object.entries(material.takes).map(([slot, chosen]) => [
      slot,
      slot === plateSlot ? chosen : corrected(chosen),
    ]),
  );
  return [buildClone(moment, ruler, material), buildClone(moment, ruler, { ...material, takes })] as const;
}

/** What a join depends on of a frame that is pushed; nothing where it is not. */
const pushed = ({ push }: Framed) => (push ? [push] : []);

/** What a join depends on of what becomes of shadows; nothing where they are kept. */
const hides = (moment: CloneMoment) => (shadowsOf(moment) === 'hidden' ? ['hidden'] : []);

/** The join between the first two, once both takes are measured and held against the plate; two where an object changes hands. */
function firstJoins(moment: CloneMoment, ruler: Ruler, material: Material): Work[] {
  const { plate, left, right } = cloneMaterial(material);
  if (plate && !plate.measure) return [];
  if (!isReady(plate, left) || !isReady(plate, right)) return [];
  const { project } = ruler;
  const { settings } = moment;
  const frames = cloneFrames(moment, ruler);
  const changes = handedFrame(moment, ruler, frames);
  const join = (
    name: string,
    title: string,
    span: { from: number; until: number },
    outline: Point[] | null,
  ): Work => ({
    name,
    title,
    is: 'seam',
    parts: [
      [plate, left, right].map(partsOf),
      [frames.start, frames.lands, frames.end],
      [project.rate, project.width, project.height, ...pushed(project)],
      [settings.first, sides.map((side) => fillOf(moment, side)), outline],
      ...hides(moment),
      ...(changes === null ? [] : [[span.from, span.until]]),
    ],
    task: () => {
      const [nodes, put] = bothWays(moment, ruler, material).map(mediaIn);
      return {
        is: 'seam',
        sides: [
          sideOf(moment, ruler, 'left', left, [nodes, put]),
          sideOf(moment, ruler, 'right', right, [nodes, put]),
        ],
        plate: nodes.find(({ id }) => id === plateSlot) ?? null,
        ...span,
        delivery: { width: project.width, height: project.height },
        outline,
        shadows: shadowsOf(moment),
      };
    },
  });
  const before = { from: frames.lands, until: changes ?? frames.end };
  const first = join(seamWork, 'the join', before, settings.seam);
  if (changes === null) return [first];
  const after = { from: changes, until: frames.end };
  return [first, join(handedWork, 'the join after the hand-over', after, drawnHanded(moment))];
}

/** The join of each further copy with all that was put together before it, one after the other. */
function furtherJoins(moment: CloneMoment, ruler: Ruler, material: Material): Work[] {
  const { plate } = cloneMaterial(material);
  const { project } = ruler;
  const { end } = cloneFrames(moment, ruler);
  const works: Work[] = [];
  const crossings = crossingsOf(moment, cloneFrames(moment, ruler), material);
  const cut = crossingWorks(moment, ruler, cloneFrames(moment, ruler), material);
  for (const [index, { key, title }] of furtherOf(moment).entries()) {
    const before = furtherOf(moment).slice(0, index);
    const chosen = material.takes[key] ?? null;
    const others = [...sides, ...before.map((one) => one.key)];
    const earlierWorks = [...cut.map(({ name }) => name), ...before.map((one) => seamOfFurther(one.key))];
    const solved = [seamWork, ...earlierWorks].every((name) => material.solved[name]);
    const ready = [...others, key].every((slot) => isReady(plate, material.takes[slot] ?? null));
    if (!plate?.measure || !chosen || !ready || !solved) break;
    const drawn = drawnFurther(moment, key);
    const earlier: CloneMoment = { ...moment, settings: { ...moment.settings, copies: 2 + index } };
    const rings = [
      ringsInForce(moment, material),
      ...before.map((one) => ringsOfFurther(moment, material, one.key)),
    ];
    const moves = [seamIn(material.solved), ...before.map((one) => furtherSeamIn(material, one.key))].map(
      (seam) => seam?.moves ?? [],
    );
    const frames = cloneAnchors(moment, ruler).map(({ frame }) => frame);
    const parts = [
      [plate, ...others.map((slot) => material.takes[slot] ?? null), chosen].map(partsOf),
      [frames, project.rate, project.width, project.height, ...pushed(project)],
      [moment.settings.first, [...others, key].map((slot) => fillOf(moment, slot)), rings, moves],
      ...(drawn ? [drawn] : []),
      ...hides(moment),
      ...(crossings.length > 0 ? [crossings, sideInFront(moment)] : []),
    ];
    const task: Work['task'] = () => {
      const [whole, put] = bothWays(moment, ruler, material).map(mediaIn);
      const [asSet, putRight] = bothWays(earlier, ruler, material);
      const side = sideOf(moment, ruler, key, chosen, [whole, put]);
      return {
        is: 'seam',
        sides: [{ node: asSet, corrected: putRight, taps: [], all: true }, side],
        plate: whole.find(({ id }) => id === plateSlot) ?? null,
        from: side.node.from,
        until: end,
        delivery: { width: project.width, height: project.height },
        outline: drawn,
        shadows: shadowsOf(moment),
      };
    };
    works.push({ name: seamOfFurther(key), title: `the join of the ${title}`, is: 'seam', parts, task });
  }
  return works;
}

/** The joins of a clone, and who is cut out where no join parts them. */
export const cloneWorks = (moment: CloneMoment, ruler: Ruler, material: Material): Work[] => [
  ...firstJoins(moment, ruler, material),
  ...crossingWorks(moment, ruler, cloneFrames(moment, ruler), material),
  ...furtherJoins(moment, ruler, material),
];
