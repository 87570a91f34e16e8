import type { MomentOf } from '../../model/records';
import { fillOf } from '../../model/slots';
import type { Bezier } from '../../motion/easing';
import { still, type Track } from '../../motion/keyframes';
import { groupOf, type Node, type Transform } from '../../picture/node';
import { frameOfBeat } from '../../time/grid';
import { spanAnchors } from '../anchors';
import type { Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { whole } from './settings';
import { whipSlots } from './slots';

export type WhipMoment = MomentOf<'built-whip'>;

/**
 * The two halves of the curve with three quarters of influence at both ends, slow at the ends and fastest in the
 * middle: cubic-bezier(0.75, 0, 0.25, 1), divided at its middle by de Casteljau's construction.
 */
export const halves: Record<'out' | 'in', Bezier> = { out: [0.75, 0, 0.875, 0.5], in: [0.125, 0.5, 0.25, 1] };

/** How far a picture flies, in its own widths (or heights). Scaling up has to cover it all, so it flies less far. */
const travels = { mirrored: 1, scaled: 0.25 };

/** Sub-frames lie at most so many pixels apart. */
const apart = 2.5;

const ways = { left: [-1, 0], right: [1, 0], up: [0, -1], down: [0, 1] } as const;

/** The moment's instants, and the frames on which the movement begins and ends. */
export function whipFrames(moment: WhipMoment, { grid, project }: Ruler) {
  const at = (position: number) => frameOfBeat(grid, project.rate, position);
  const { frames } = whole(moment.settings);
  const [start, cut] = [at(moment.start), at(moment.lands)];
  const first = cut - Math.floor(frames / 2);
  return {
    start,
    cut: Math.max(start, cut),
    end: Math.max(start + 1, at(moment.end)),
    first,
    last: first + frames,
  };
}

const titles = { start: 'Begins on', lands: 'Cuts on', end: 'Ends on' };

/** The instants of a whip. */
export const whipAnchors = (moment: WhipMoment, ruler: Ruler): Anchor[] =>
  spanAnchors(moment, ruler, titles, 'Whip cuts');

/** How much a picture that is scaled up to hide its edges is enlarged at the cut. */
export const scaleAtCut = ({ settings }: WhipMoment): number =>
  whole(settings).edges === 'scaled' ? 1 + 2 * travels.scaled : 1;

/** The flight of one of the two pictures: out of its place until the cut, or into it from there. */
function flight(moment: WhipMoment, ruler: Ruler, slot: 'out' | 'in'): Transform {
  const { direction, edges } = whole(moment.settings);
  const { width, height } = ruler.project;
  const { first, cut, last } = whipFrames(moment, ruler);
  const [x, y] = ways[direction];
  const far = travels[edges] * (slot === 'out' ? 1 : -1);
  // Each flies on beyond the cut, so that the shutter that is open over the cut sees nothing stop.
  const track = (rest: number, atCut: number): Track => {
    if (rest === atCut) return still(rest);
    const beyond = 2 * atCut - rest;
    return [
      { frame: first, value: slot === 'out' ? rest : beyond, ease: halves.out },
      { frame: cut, value: atCut, ease: halves.in },
      { frame: last, value: slot === 'out' ? beyond : rest, ease: 'hold' },
    ];
  };
  return {
    is: 'move',
    size: { width, height },
    x: track(0, x * far * width),
    y: track(0, y * far * height),
    rotation: still(0),
    scale: track(1, scaleAtCut(moment)),
    undone: false,
  };
}

/** The picture of a whip: the first place until the cut, the second from there, both flying, seen through one shutter. */
export function buildWhip(moment: WhipMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const { start, cut, end } = whipFrames(moment, ruler);
  const { blur } = whole(moment.settings);
  const spans = { out: { from: start, until: cut }, in: { from: cut, until: end } };
  const nodes = whipSlots.flatMap(({ key, title }) => {
    const chosen = material.takes[key] ?? null;
    return takeNode(
      project,
      key,
      `${title[0].toUpperCase()}${title.slice(1)}: ${chosen?.take.name ?? ''}`,
      chosen,
      { ...spans[key], at: fillOf(moment, key).at },
      // A steadied take that is scaled up may leave an edge; mirrored it shows nothing that is not there.
      { edges: 'mirrored', transforms: [flight(moment, ruler, key)] },
    );
  });
  const size = { width: project.width, height: project.height };
  const shutter = blur > 0 ? { angle: blur, apart } : null;
  return groupOf('shot', size, { from: start, until: end }, nodes, { shutter });
}
