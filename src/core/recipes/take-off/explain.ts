import { mediaIn, type Node } from '../../picture/node';
import { beatLabel } from '../../time/grid';
import { rowsOfTake, tellLaid, tellMask } from '../explain-node';
import { tellShake } from '../ground-shake';
import type { Material } from '../material';
import type { Ruler, Step } from '../recipe';
import { hitsOf, leapAnchors, leapFrames, leapShake, pushOf, type LeapMoment } from './build';
import { wholeLeap } from './settings';
import { downSlot, leavesPin, upSlot } from './slots';

/** A leap in steps and numbers that fit any editor. */
export function explainLeap(moment: LeapMoment, ruler: Ruler, _material: Material, tree: Node): Step[] {
  const { project, grid } = ruler;
  const { shake, fast, way } = wholeLeap(moment.settings);
  const { frames: push } = pushOf(moment, ruler);
  const { leaves, meets } = leapFrames(moment, ruler);
  const on = (frame: number | null) => {
    const anchor = leapAnchors(moment, ruler).find(
      (one) => one.frame === frame && (one.name === 'lands' || one.name === leavesPin),
    );
    return anchor ? `frame ${anchor.frame} (${beatLabel(grid, anchor.position)})` : '';
  };
  const tell: Record<string, string> =
    way === 'raised'
      ? {}
      : {
          [upSlot.key]: `Its last ${push} frames run at ${fast} %, with a hard change of speed; it is gone on ${on(leaves)}.`,
          [downSlot.key]: `Until the feet meet the floor on ${on(meets)} it runs at ${fast} %, from there as filmed.`,
        };
  const raised =
    'One by one its pictures are cut out along the outlines below, laid over the empty set and moved up as the numbers say.';
  const streak = 'One picture of it stands; motion blur is on, with the shutter open all of each frame.';
  const steps = mediaIn(tree).map((node) => ({
    title: node.name,
    text: [
      tellLaid(node, project.rate),
      ...(tell[node.id] ? [tell[node.id]] : []),
      ...(node.id === `${upSlot.key}-raised`
        ? [raised]
        : node.mattes.length > 0
          ? [streak, ...node.mattes.map((matte) => tellMask(matte, node.from))]
          : []),
    ].join(' '),
    rows: rowsOfTake(node, project),
  }));
  return [...steps, ...tellShake(tree, project, leapShake(moment, ruler), hitsOf(moment, ruler), shake)];
}
