import { calmestLight } from '../../camera/sun';
import type { Finding } from '../../finding/finding';
import { clockTime } from '../../time/zone';
import type { PlanInput } from '../plan';
import type { Rule } from './rule';
import { dayOf, lightFor, type Schedule } from './schedule';
import type { OrderCode } from './order-words';

const count = (value: number, one: string, many: string) =>
  value === 0 ? `no ${one}` : `${value} ${value === 1 ? one : many}`;

/** A rule in words. */
function sayRule({ first, then, tight, why }: Rule, names: Record<string, string>): string {
  const name = (id: string) => names[id] ?? id.split('/').at(-1) ?? id;
  const reason: Record<Rule['why'], string> = {
    'plate first': 'the plate comes first',
    'plate last': 'the plate comes last',
    needs: 'the one needs the other',
    'shared object': 'they share an object',
    'back to front': 'from the back to the front',
    'performer first': 'the performer before the dressing',
    'cannot be undone': 'it cannot be undone',
    locked: 'locked by hand',
  };
  return `“${name(then)}” ${tight ? 'straight after' : 'after'} “${name(first)}” (${reason[why]})`;
}

/** What is wrong with the order and the day, and how good it is. */
export function examineSchedule(
  input: PlanInput,
  schedule: Schedule,
  names: Record<string, string>,
): Finding<OrderCode>[] {
  const findings: Finding<OrderCode>[] = [];
  const { order, conflict, minutes, available, slots } = schedule;
  if (conflict.length > 0)
    findings.push({
      code: 'order.conflict',
      severity: 'stop',
      where: {},
      facts: { rules: conflict.map((rule) => sayRule(rule, names)).join('; ') },
    });
  for (const { shot, late } of slots)
    if (late) findings.push({ code: 'order.late', severity: 'stop', where: { shot: shot.id } });
  if (available !== null && minutes > available)
    findings.push({
      code: 'order.over',
      severity: 'fix',
      where: {},
      measured: { value: minutes, unit: 'minutes' },
      allowed: { value: available, unit: 'minutes' },
    });
  else if (order && slots.length > 0) {
    const spare = available === null ? 0 : Math.floor(available - minutes);
    findings.push({
      code: 'order.fits',
      severity: 'fine',
      where: {},
      measured: { value: minutes, unit: 'minutes' },
      facts: {
        shots: slots.length,
        setups: count(order.setups, 'change of setup', 'changes of setup'),
        clothes: count(order.clothes, 'change of clothes', 'changes of clothes'),
        proved: order.proved ? 1 : 0,
        spare: spare > 0 ? `${spare} min` : '',
      },
    });
  }
  return [...findings, ...lightFindings(input, schedule)];
}

function lightFindings(input: PlanInput, schedule: Schedule): Finding<OrderCode>[] {
  const { day } = input;
  return input.setups.flatMap((setup): Finding<OrderCode>[] => {
    const light = lightFor(schedule, input, setup);
    if (!light || !day || day.latitude === null || day.longitude === null || light.there >= light.needed)
      return [];
    const facts = { from: clockTime(light.from, day.zone) };
    if (light.there <= 0)
      return [{ code: 'plan.sun-down', severity: 'fix', where: { setup: setup.id }, facts }];
    const { start, end } = dayOf(day);
    const { best } = calmestLight({ latitude: day.latitude, longitude: day.longitude }, start, end, day);
    return [
      {
        code: 'plan.light',
        severity: 'watch',
        where: { setup: setup.id },
        measured: { value: light.there, unit: 'minutes' },
        allowed: { value: light.needed, unit: 'minutes' },
        facts: {
          ...facts,
          best:
            best && best.minutes > light.there
              ? `longest at ${clockTime(best.start, day.zone)}, ${best.minutes} min`
              : 'not on this day',
        },
      },
    ];
  });
}
