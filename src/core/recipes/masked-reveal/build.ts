import type { MomentOf } from '../../model/records';
import { fillOf } from '../../model/slots';
import { still } from '../../motion/keyframes';
import { groupOf, type Matte, type Node } from '../../picture/node';
import { spanAnchors } from '../anchors';
import type { Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { revealKeys } from './edge';
import { wholeReveal } from './settings';
import { beforeSlot, revealedSlot } from './slots';

export type RevealMoment = MomentOf<'masked-reveal'>;

const titles = { start: 'Begins on', lands: 'The change begins on', end: 'Ends on' };

/** The instants of a reveal. */
export const revealAnchors = (moment: RevealMoment, ruler: Ruler): Anchor[] =>
  spanAnchors(moment, ruler, titles, 'The change begins');

/** Its first frame, those of the change, and the one after its last. */
export function revealFrames(moment: RevealMoment, ruler: Ruler) {
  const [start, lands, last] = revealAnchors(moment, ruler).map(({ frame }) => frame);
  const end = Math.max(start + 1, last);
  return { start, lands: Math.max(start, lands), done: Math.max(start, lands) + moment.settings.frames, end };
}

/** The picture of a reveal: the take before the change, and over it the other behind its moving edge. */
export function buildReveal(moment: RevealMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const size = { width: project.width, height: project.height };
  const { start, lands, end } = revealFrames(moment, ruler);
  const { soft } = wholeReveal(moment.settings);
  const into = revealedSlot(moment.settings);
  const edge: Matte = {
    space: 'parent',
    shape: { is: 'outline', keys: revealKeys(moment.settings, lands, size), between: 'moves' },
    inverted: false,
    grow: still(0),
    feather: still(soft),
  };
  const node = (slot: { key: string; title: string }, from: number, mattes: Matte[]) => {
    const chosen = material.takes[slot.key] ?? null;
    const name = `${slot.title[0].toUpperCase()}${slot.title.slice(1)}: ${chosen?.take.name ?? ''}`;
    const shown = { from, until: end, at: fillOf(moment, slot.key).at };
    return from < end ? takeNode(project, slot.key, name, chosen, shown, { mattes }) : [];
  };
  return groupOf('shot', size, { from: start, until: end }, [
    ...node(beforeSlot, start, []),
    ...node(into, lands, [edge]),
  ]);
}
