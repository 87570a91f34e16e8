import { allowed } from '../finding/allowed';
import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import { meanStep } from '../footage/picture-times';
import { cornerMove } from '../geometry/placement';
import type { Moment } from '../model/records';
import { mediaIn, secondsAt, type MediaNode } from '../picture/node';
import { slotsInUse } from './built';
import type { Material } from './material';
import type { Recipe, Ruler } from './recipe';
import { besideLead, framesBeyondPlate, repeatingIn, repeatsMove } from './repeats';

/** pictures by which a take may be out of step unsaid */
const outOfStep = 1.5;
/** share of the width by which what is laid back from out of step may lie off: the plate shows along that edge */
const mostAside = 0.04;

const repeatTroubles = {
  'repeat.in-step': ({ measured, facts }) =>
    `The camera moves, and every take repeats its move: all follow the camera of the ${facts.leads} take, in step to ${measured}.`,
  'repeat.out-of-step': ({ facts, measured, value, number }) =>
    `The camera of the ${facts.slot} take comes ${measured} ${value > 0 ? 'early' : 'late'} for the ${facts.leads} one’s: its picture is laid back by up to ${number('aside', 0)} px, and the plate shows along that edge. Lay it in step, or move both.`,
  'repeat.runs-out': ({ facts, measured }) =>
    `${measured} of the ${facts.slot} take show what the plate’s camera never came to: they cannot be laid on the others. Begin earlier, end earlier, or film the plate’s move longer.`,
  'repeat.other-kind': ({ facts }) =>
    `The camera of the plate moves. ${facts.kind} is built with a camera that stands: choose another plate, or film it from a tripod.`,
} satisfies Words;
type RepeatCode = keyof typeof repeatTroubles;
export const repeatWords: Words = repeatTroubles;

/** Whether takes that repeat a move are in step where they show. */
export function examineRepeats(
  moment: Moment,
  recipe: Recipe,
  ruler: Ruler,
  material: Material,
): Finding<RepeatCode>[] {
  if (!repeatsMove(material)) return [];
  const where = { moment: moment.id };
  if (!recipe.leads)
    return [{ code: 'repeat.other-kind', severity: 'stop', where, facts: { kind: recipe.title } }];
  const leads = recipe.leads(moment);
  const tree = recipe.build(moment, ruler, material);
  const repeating = repeatingIn(tree, material, leads);
  if (!repeating) return [];
  const slots = slotsInUse(moment, recipe);
  const called = (slot: string) => slots.find(({ key }) => key === slot)?.title ?? slot;
  const { lead, late } = repeating;
  const shown = mediaIn(tree).filter(({ id }) => slots.some(({ key }) => key === id));
  const lateOf = ({ content }: MediaNode) => late.get(content.media) ?? 0;
  const steps = shown.flatMap((node) => {
    if (node === lead || node.content.media === repeating.plate || !late.has(node.content.media)) return [];
    const early = secondsAt(node, node.from) - lateOf(node) - (secondsAt(lead, node.from) - lateOf(lead));
    return [{ node, early }];
  });
  const findings: Finding<RepeatCode>[] = [];
  for (const { node, early } of steps) {
    const chosen = material.takes[node.id];
    const step = chosen?.measure ? meanStep(chosen.measure.times) : 0;
    const { size } = node.content;
    const aside = Math.max(...besideLead(node, repeating).map((placed) => cornerMove(placed, size)));
    if (Math.abs(early) <= outOfStep * step || aside <= mostAside * size.width) continue;
    findings.push({
      code: 'repeat.out-of-step',
      severity: 'fix',
      where: { ...where, take: chosen?.take.id },
      measured: { value: early, unit: 'seconds' },
      facts: {
        slot: called(node.id),
        leads: called(leads),
        aside: (aside * ruler.project.width) / size.width,
      },
      // The same take at another time is meant to be out of step.
      ...(node.content.media !== lead.content.media && {
        fix: {
          command: 'layInStep',
          args: { moment: moment.id, slot: node.id, at: Math.max(0, secondsAt(node, node.from) - early) },
        },
      }),
    });
  }
  for (const node of shown) {
    if (node.content.media === repeating.plate) continue;
    const out = framesBeyondPlate(
      node,
      repeating,
      allowed.passMove / (ruler.project.width / node.content.size.width),
    );
    if (out > 0)
      findings.push({
        code: 'repeat.runs-out',
        severity: 'fix',
        where: { ...where, take: material.takes[node.id]?.take.id },
        measured: { value: out, unit: 'frames' },
        facts: { slot: called(node.id) },
      });
  }
  if (findings.length === 0)
    findings.push({
      code: 'repeat.in-step',
      severity: 'fine',
      where,
      measured: {
        value: steps.reduce((most, { early }) => Math.max(most, Math.abs(early)), 0),
        unit: 'seconds',
      },
      allowed: { value: allowed.late, unit: 'seconds' },
      facts: { leads: called(leads) },
    });
  return findings;
}
