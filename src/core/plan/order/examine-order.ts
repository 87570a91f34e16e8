import { calmestLight, risen, sunAt, sunDay } from '../../camera/sun';
import type { Finding } from '../../finding/finding';
import { clockTime, dateOf, instantOf } from '../../time/zone';
import type { Order } from './order';
import type { PlanInput } from '../plan';
import type { Rule } from './rule';
import { dayOf, lightFor, type Schedule } from './schedule';
import type { OrderCode } from './order-words';

const count = (value: number, one: string, many: string) =>
  value === 0 ? `no ${one}` : `${value} ${value === 1 ? one : many}`;

type Names = Record<string, string>;

/** A shot with the moment that it is for, or the setup where several share it. */
function sayShot(id: string, { slots }: Schedule, names: Names): string {
  const shot = slots.find((slot) => slot.shot.id === id)?.shot;
  const name = names[id] ?? id.split('/').at(-1) ?? id;
  const of = shot && (shot.share || shot.moments.length !== 1 ? shot.setup : shot.moments[0]);
  return of && names[of] ? `“${name}” of ${names[of]}` : `“${name}”`;
}

/** A rule in words. */
function sayRule({ first, then, tight, why }: Rule, schedule: Schedule, names: Names): string {
  const reason: Record<Rule['why'], string> = {
    'plate first': 'the plate comes first',
    'plate last': 'the plate comes last',
    needs: 'the one needs the other',
    'shared object': 'they share an object',
    'one take': 'they are one unbroken take',
    'back to front': 'from the back to the front',
    'performer first': 'the performer before the dressing',
    'cannot be undone': 'it cannot be undone',
    locked: 'locked by hand',
  };
  const [one, other] = [then, first].map((id) => sayShot(id, schedule, names));
  return `${one} ${tight ? 'straight after' : 'after'} ${other} (${reason[why]})`;
}

/** What is wrong with the order and the days, and how good they are. */
export function examineSchedule(input: PlanInput, schedule: Schedule, names: Names): Finding<OrderCode>[] {
  const findings: Finding<OrderCode>[] = [];
  const { order, conflict, slots } = schedule;
  if (conflict.length > 0)
    findings.push({
      code: 'order.conflict',
      severity: 'stop',
      where: {},
      facts: {
        rules: conflict.map((rule) => sayRule(rule, schedule, names)).join('; '),
        locked: conflict.some(({ why }) => why === 'locked') ? 1 : 0,
      },
    });
  for (const { shot, late } of slots)
    if (late) findings.push({ code: 'order.late', severity: 'stop', where: { shot: shot.id } });
  const days = dayFindings(input, schedule, names);
  findings.push(...days);
  if (order && slots.length > 0 && days.length === 0) findings.push(fitFinding(schedule, order));
  return [...findings, ...lightFindings(input, schedule)];
}

function fitFinding({ days, available, slots }: Schedule, order: Order): Finding<OrderCode> {
  const minutes = days.reduce((sum, { from, until }) => sum + until - from, 0);
  const spare = available === null ? 0 : Math.floor(available - minutes);
  return {
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
  };
}

/** What does not fit a day, what goes on on the next, and which setups are parted by that. */
function dayFindings({ day, setups }: PlanInput, schedule: Schedule, names: Names): Finding<OrderCode>[] {
  const { days, slots, start, available } = schedule;
  if (!day || start === null || available === null) return [];
  const findings: Finding<OrderCode>[] = [];
  // What is too long begins its day; all that follows it without a break is over as well, and is not named again.
  const tooLong = slots.filter(({ over }, index) => over && !slots[index - 1]?.over);
  for (const { shot, until, day: later } of tooLong)
    findings.push({
      code: 'order.over',
      severity: 'fix',
      where: { shot: shot.id },
      measured: { value: until - days[later].from, unit: 'minutes' },
      allowed: { value: available, unit: 'minutes' },
    });
  if (days.length > 1)
    findings.push({
      code: 'order.days',
      severity: 'watch',
      where: {},
      facts: {
        days: days
          .map(({ from, until }) => {
            const [call, wrap] = [from, until].map((at) => start + at * 60_000);
            return `${dateOf(call, day.zone)}, call ${clockTime(call, day.zone)}, done ${clockTime(wrap, day.zone)}`;
          })
          .join('; '),
      },
    });
  for (const { id } of setups) {
    const on = new Set(slots.filter(({ shot }) => shot.setup === id).map((slot) => slot.day));
    if (on.size > 1)
      findings.push({
        code: 'order.parted',
        severity: 'fix',
        where: { setup: id },
        facts: { name: names[id] ?? '', days: [...on].map((one) => `day ${one + 1}`).join(' and ') },
      });
  }
  return findings;
}

function lightFindings(input: PlanInput, schedule: Schedule): Finding<OrderCode>[] {
  const { day } = input;
  if (!day || day.latitude === null || day.longitude === null) return [];
  const spot = { latitude: day.latitude, longitude: day.longitude };
  const clock = (instant: number) => clockTime(instant, day.zone);
  return input.setups.flatMap((setup): Finding<OrderCode>[] =>
    lightFor(schedule, input, setup)
      .filter(({ there, needed }) => there < needed)
      .map((light): Finding<OrderCode> => {
        const where = { setup: setup.id };
        const facts = { from: clock(light.from) };
        if (sunAt(spot, light.from).altitude < risen) {
          const date = dateOf(light.from, day.zone);
          const { sunrise, sunset } = sunDay(spot, instantOf(date, '12:00', day.zone));
          const advice =
            sunrise !== null && light.from < sunrise
              ? `It rises at ${clock(sunrise)}: film later, or bring lamps`
              : sunset !== null
                ? `It set at ${clock(sunset)}: film earlier, or bring lamps`
                : 'It does not rise on that day: bring lamps, or film on another';
          return { code: 'plan.sun-down', severity: 'fix', where, facts: { ...facts, advice } };
        }
        const { start, end } = dayOf(day, light.day);
        const { best } = calmestLight(spot, start, end, day);
        return {
          code: 'plan.light',
          severity: 'watch',
          where,
          measured: { value: light.there, unit: 'minutes' },
          allowed: { value: light.needed, unit: 'minutes' },
          facts: {
            ...facts,
            best:
              best && best.minutes > light.there
                ? `longest at ${clock(best.start)}, ${best.minutes} min`
                : 'not on this day',
          },
        };
      }),
  );
}
