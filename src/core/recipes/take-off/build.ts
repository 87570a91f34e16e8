import type { Flight } from '../../footage/flight';
import type { MomentOf } from '../../model/records';
import { fillOf, plateSlot } from '../../model/slots';
import { linear } from '../../motion/easing';
import { still, type Track } from '../../motion/keyframes';
import { groupOf, type MediaNode, type Node } from '../../picture/node';
import { frameOfTime, timeOfFrame } from '../../time/rate';
import { evenly, pinAnchor, spanAnchors } from '../anchors';
import { boxRound, cutoutBy, cutoutIn, cutoutMatte, fileInFrame, inFile } from '../cutouts';
import { groundShake, type GroundShake } from '../ground-shake';
import type { ChosenTake, Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { raisedJump } from './raised';
import { wholeLeap } from './settings';
import { cutoutOfSlot, downSlot, flightOfSlot, leavesPin, upSlot } from './slots';

export type LeapMoment = MomentOf<'take-off'>;

const marks = { leaves: 'Gone', meets: 'Lands' };

/** The instants of a leap: where the performer is gone, where their feet meet the floor. */
export function leapAnchors(moment: LeapMoment, ruler: Ruler): Anchor[] {
  const { start, lands, settings, pins = {} } = moment;
  const flies = settings.way === 'take-off';
  const titles = {
    start: 'Begins on',
    lands: flies ? 'The performer is gone on' : 'The feet meet the floor on',
    end: 'Ends on',
  };
  const span = spanAnchors(moment, ruler, titles, flies ? marks.leaves : marks.meets);
  if (settings.way !== 'both') return span;
  const leaves = pinAnchor(ruler, {
    name: leavesPin,
    title: 'The performer is gone on',
    position: pins[leavesPin] ?? evenly(start, lands, 1, 2),
    between: [start - 0.25, lands + 0.25],
    marks: marks.leaves,
  });
  return [span[0], leaves, ...span.slice(1)];
}

/** The frames of its instants; null where a way has none. */
export function leapFrames(moment: LeapMoment, ruler: Ruler) {
  const anchors = leapAnchors(moment, ruler);
  const at = (name: string) => anchors.find((anchor) => anchor.name === name)?.frame ?? null;
  const start = at('start') ?? 0;
  const end = Math.max(start + 1, at('end') ?? 0);
  const lands = Math.max(start, at('lands') ?? start);
  const { way } = moment.settings;
  // A raised jump is one take, whose feet meet the floor where it lands.
  const leaves = way === 'take-off' ? lands : way === 'both' ? Math.max(start, at(leavesPin) ?? start) : null;
  return { start, leaves, meets: way === 'take-off' ? null : lands, end };
}

/** When somebody in a slot's take is in the air, as it was measured; undefined while it was not. */
export function flightIn({ solved }: Material, slot: string): Flight | null | undefined {
  const answer = solved[flightOfSlot(slot)];
  return answer?.method === 'flight-1' ? answer.flight : undefined;
}

/** The last picture in the air on the way up, in seconds of its take: as marked, as measured, or a second in. */
export const leftAt = (moment: LeapMoment, material: Material): number =>
  wholeLeap(moment.settings).left ??
  flightIn(material, upSlot.key)?.highest ??
  fillOf(moment, upSlot.key).at + 1;

/** When the feet meet the floor, in seconds of its take: as marked, as measured, or a second in. */
export const metAt = (moment: LeapMoment, material: Material): number =>
  wholeLeap(moment.settings).met ??
  flightIn(material, downSlot.key)?.meets ??
  fillOf(moment, downSlot.key).at + 1;

/** How far the frames before an instant reach back into the take. */
export function pushOf(moment: LeapMoment, { project }: Ruler): { frames: number; seconds: number } {
  const { push, fast } = wholeLeap(moment.settings);
  return { frames: push, seconds: (timeOfFrame(project.rate, push) * fast) / 100 };
}

/** The picture out of which the streak is cut: the last in the air going up, the first in the air coming down. */
export const streakAt = (moment: LeapMoment, ruler: Ruler, material: Material, slot: string): number =>
  slot === upSlot.key
    ? leftAt(moment, material)
    : Math.max(0, metAt(moment, material) - pushOf(moment, ruler).seconds);

/** A take that runs as filmed, with a fast stretch that ends on an instant; before its first picture that one stands. */
function timeUpTo(
  from: number,
  until: number,
  push: number,
  last: number,
  ruler: Ruler,
  fast: number,
): Track {
  const { rate } = ruler.project;
  const pushes = Math.min(push, until - from);
  const before = last - (timeOfFrame(rate, pushes) * fast) / 100;
  const first = before - timeOfFrame(rate, until - pushes - from);
  const begins: Track =
    first >= 0
      ? [{ frame: from, value: first, ease: linear }]
      : [
          { frame: from, value: 0, ease: 'hold' },
          { frame: Math.min(until, from + frameOfTime(rate, -first)), value: 0, ease: linear },
        ];
  return [
    ...begins,
    ...(before > 0 && pushes > 0 && until - pushes > from
      ? [{ frame: until - pushes, value: before, ease: linear }]
      : []),
    { frame: until, value: Math.max(0, last), ease: 'hold' as const },
  ];
}

/** The streak: the cut-out of one picture on its way out of the frame (or into it), seen through an open shutter. */
function streak(
  moment: LeapMoment,
  ruler: Ruler,
  material: Material,
  slot: string,
  from: number,
): MediaNode[] {
  const { project } = ruler;
  const { streak: frames } = wholeLeap(moment.settings);
  const chosen = material.takes[slot] ?? null;
  const source = chosen?.measure?.size;
  const rings = cutoutIn(material, cutoutOfSlot(slot))?.rings ?? [];
  const box = source && boxRound(rings.flat().map((point) => fileInFrame(point, source, project)));
  if (!source || !box) return [];
  // So far that the feet are just out of the frame.
  const far = box.bottom * project.height;
  const up = slot === upSlot.key;
  const y: Track = [
    { frame: up ? from - 1 : from, value: up ? 0 : -far, ease: linear },
    { frame: up ? from - 1 + frames : from + frames, value: up ? -far : 0, ease: 'hold' },
  ];
  return takeNode(
    project,
    `${slot}-streak`,
    `Streak: ${chosen.take.name}`,
    chosen,
    { from, until: from + frames, at: streakAt(moment, ruler, material, slot), hold: true },
    {
      mattes: [
        cutoutMatte([{ frame: from, rings: inFile(rings, source) }], source, cutoutBy('plate', material)),
      ],
      transforms: [
        {
          is: 'move',
          size: { width: project.width, height: project.height },
          x: still(0),
          y,
          rotation: still(0),
          scale: still(1),
          undone: false,
        },
      ],
      // Open all the time, so that the streak has no gap between its frames.
      shutter: { angle: 360, apart: 8 },
    },
  );
}

/** The frames after which the ground shakes. */
export function hitsOf(moment: LeapMoment, ruler: Ruler): number[] {
  const { leaves, meets } = leapFrames(moment, ruler);
  return [leaves, meets].flatMap((frame) => (frame === null ? [] : [frame]));
}

/** The shake of the ground as the performer leaves it, and as they meet it. */
export const leapShake = (moment: LeapMoment, ruler: Ruler): GroundShake =>
  groundShake(ruler.project, hitsOf(moment, ruler), wholeLeap(moment.settings).shake);

function goingUp(moment: LeapMoment, ruler: Ruler, material: Material, take: ChosenTake | null): Node[] {
  const { start, leaves } = leapFrames(moment, ruler);
  if (leaves === null) return [];
  const { push, fast } = wholeLeap(moment.settings);
  const last = leftAt(moment, material);
  const until = Math.max(start + 1, leaves);
  const time = timeUpTo(start, until, push, last, ruler, fast);
  return [
    ...takeNode(ruler.project, upSlot.key, `Jump: ${take?.take.name ?? ''}`, take, {
      from: start,
      until,
      at: time[0].value,
      time,
    }),
    ...streak(moment, ruler, material, upSlot.key, until),
  ];
}

function comingDown(moment: LeapMoment, ruler: Ruler, material: Material, take: ChosenTake | null): Node[] {
  const { start, meets, end } = leapFrames(moment, ruler);
  if (meets === null) return [];
  const { streak: frames, push, fast } = wholeLeap(moment.settings);
  const { rate } = ruler.project;
  const met = metAt(moment, material);
  const from = Math.max(start, meets - push);
  const first = met - (timeOfFrame(rate, meets - from) * fast) / 100;
  const until = Math.max(from + 1, end);
  const time: Track = [
    ...(meets > from ? [{ frame: from, value: Math.max(0, first), ease: linear }] : []),
    { frame: meets, value: met, ease: linear },
    {
      frame: Math.max(meets + 1, until),
      value: met + timeOfFrame(rate, Math.max(1, until - meets)),
      ease: 'hold',
    },
  ];
  return [
    ...(from - frames >= start ? streak(moment, ruler, material, downSlot.key, from - frames) : []),
    ...takeNode(ruler.project, downSlot.key, `Landing: ${take?.take.name ?? ''}`, take, {
      from,
      until,
      at: time[0].value,
      time,
    }),
  ];
}

/** The picture of a leap: the empty set, the jump until it is gone, the landing once it is back, and a streak between. */
export function buildLeap(moment: LeapMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const { start, end } = leapFrames(moment, ruler);
  const { takes } = material;
  return groupOf(
    'shot',
    { width: project.width, height: project.height },
    { from: start, until: end },
    [
      ...takeNode(project, plateSlot, 'Clean plate', takes[plateSlot] ?? null, {
        from: start,
        until: end,
        at: 0,
        hold: true,
      }),
      ...(moment.settings.way === 'raised'
        ? raisedJump(moment, ruler, material)
        : [
            ...goingUp(moment, ruler, material, takes[upSlot.key] ?? null),
            ...comingDown(moment, ruler, material, takes[downSlot.key] ?? null),
          ]),
    ],
    { transforms: leapShake(moment, ruler).transforms },
  );
}
