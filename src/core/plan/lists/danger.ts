import { cautions, type CautionKind } from '../../safety/cautions';
import { dateOf } from '../../time/zone';
import { dayOf } from '../order/schedule';
import type { PlanInput } from '../plan';
import { planMoments } from '../shots';

/** A caution with the moments it comes from and what to tick. */
type PlannedCaution = {
  kind: CautionKind;
  title: string;
  for: string[];
  steps: { key: string; text: string }[];
};

/** Every caution that the plan involves. */
export function cautionsOf(input: PlanInput): PlannedCaution[] {
  const because = new Map<CautionKind, string[]>();
  const add = (kind: CautionKind, reason: string) => {
    const reasons = because.get(kind) ?? [];
    if (!reasons.includes(reason)) because.set(kind, [...reasons, reason]);
  };
  for (const { moment, filming } of planMoments(input))
    for (const kind of filming.cautions) add(kind, moment.name);
  for (const setup of input.setups) if (setup.place === 'outside') add('outside', setup.name);
  if (input.day) {
    const { start, end } = dayOf(input.day);
    const night = dateOf(start, input.day.zone) !== dateOf(end, input.day.zone) || input.day.end > '22:00';
    if (night) add('alone', 'a day that ends late');
  }
  return [...because].map(([kind, reasons]) => ({
    kind,
    title: cautions[kind].title,
    for: reasons,
    steps: cautions[kind].steps.map((text) => ({ key: `caution/${kind}/${text}`, text })),
  }));
}
