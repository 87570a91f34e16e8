import { describe, expect, it } from 'vitest';
import { choice, day, moment, pass, plan, setup } from '../../__tests__/plan';
import type { Finding } from '../../finding/finding';
import { sayFinding } from '../../finding/say';
import { momentKinds } from '../../recipes/films';
import { dateOf, clockTime, instantOf } from '../../time/zone';
import { examineSchedule } from './examine-order';
import { dayOf, lightFor, scheduleOf, slotClock } from './schedule';
import { planShots, shotsOnlyFor } from '../shots';

const titles = (input: ReturnType<typeof plan>) => scheduleOf(input).slots.map(({ shot }) => shot.title);

describe('the shots of a plan', () => {
  const two = plan({ moments: [moment('clone', 0, 8), moment('vanish', 12, 16)] });

  it('shares plates between the moments of a setup, long enough for the longest', () => {
    const plates = planShots(two).filter((shot) => shot.share);
    expect(plates).toHaveLength(2);
    expect(plates[0].moments).toEqual(['clone-0', 'vanish-12']);
    expect(plates[0].seconds).toBe(10);
    const long = planShots(plan({ moments: [moment('clone', 0, 40)] })).find((shot) => shot.share);
    expect(long?.seconds).toBe(24);
  });

  it('takes with a moment only what nothing else needs', () => {
    const going = shotsOnlyFor(planShots(two), 'clone-0').map((shot) => shot.title);
    expect(going).toEqual(['Left: first role', 'Right: the copy']);
    const left = planShots(plan({ moments: [two.moments[1]] })).map((shot) => shot.id);
    expect(
      planShots(two)
        .filter((shot) => !left.includes(shot.id))
        .map((shot) => shot.title),
    ).toEqual(going);
  });

  it('keeps the id of every shot while the plan is edited', () => {
    const before = planShots(two).map((shot) => shot.id);
    const edited = plan({
      moments: [...two.moments.map((one) => ({ ...one, start: one.start + 4, end: one.end + 4 }))],
    });
    expect(planShots(edited).map((shot) => shot.id)).toEqual(before);
  });

  it('follows the beats, the handle and what was decided by hand', () => {
    const shot = (more: Parameters<typeof plan>[0]) =>
      planShots(plan({ moments: [moment('clone', 0, 8)], ...more })).find(({ key }) => key === 'left');
    expect(shot({})?.seconds).toBe(8); // 8 beats of half a second and twice 2 s
    expect(shot({ day: day({ handle: 5 }) })?.seconds).toBe(14);
    expect(shot({ choices: [choice('clone-0/left', { takes: 9, minutes: 44 })] })).toMatchObject({
      takes: 9,
      minutes: 44,
    });
  });

  it('films the second place of a whip in the next setup', () => {
    const input = plan({
      moments: [moment('built-whip', 0, 4)],
      setups: [setup('a'), setup('b', { order: 2 })],
    });
    expect(planShots(input).map((shot) => shot.setup)).toEqual(['a', 'b']);
  });

  it('makes parts of one take where a setup is filmed unbroken', () => {
    const input = plan({ moments: [moment('clone', 0, 8)], setups: [setup('a', { approach: 'unbroken' })] });
    const right = planShots(input).find((shot) => shot.key === 'right');
    expect(right?.straightAfter).toBe('left');
    expect(titles(input)).toEqual([
      'Clean plate',
      'Left: first role',
      'Right: the copy',
      'Clean plate again',
    ]);
  });
});

describe('the timetable', () => {
  it('keeps the rules of the trade', () => {
    const input = plan({
      moments: [
        moment('masked-reveal', 0, 8, { settings: { edge: 'falling', frames: 20 } }),
        moment('build-up', 8, 16, { settings: { objects: 3, way: 'pop' } }),
        moment('clone', 20, 28, { settings: { way: 'shared' } as never }),
      ],
      passes: [pass('one')],
    });
    const order = titles(input);
    const at = (title: string) => order.indexOf(title);
    expect(at('Clean plate')).toBe(0);
    expect(at('Clean plate again')).toBe(order.length - 1);
    expect(at('What falls')).toBe(order.length - 2);
    expect(at('Right: the copy')).toBe(at('Left: first role') + 1);
    expect(at('Object 1 of 3, from the back')).toBeLessThan(at('Object 2 of 3, from the back'));
    expect(at('Object 1 of 3, from the back')).toBeGreaterThan(at('Right: the copy'));
    expect(at('After the change')).toBeGreaterThan(at('Before the change'));
    const why = Object.fromEntries(
      scheduleOf(input).slots.map(({ shot, reason }) => [shot.title, reason.why]),
    );
    expect(why).toMatchObject({
      'Clean plate': 'plate first',
      'Right: the copy': 'shared object',
      'What falls': 'cannot be undone',
      'Object 2 of 3, from the back': 'back to front',
      'Clean plate again': 'plate last',
    });
  });

  it('obeys a place locked by hand, and names what contradicts it', () => {
    const moments = [moment('clone', 0, 8), moment('freeze-stack', 8, 12)];
    const locked = plan({ moments, choices: [choice('freeze-stack-8/pose', { after: 'clone-0/left' })] });
    const order = titles(locked);
    expect(order.indexOf('The pose')).toBe(order.indexOf('Left: first role') + 1);
    const wrong = plan({ moments, choices: [choice('clone-0/left', { after: 'clone-0/right' })] });
    const schedule = scheduleOf(wrong);
    expect(schedule.order).toBeNull();
    expect(schedule.conflict.map((rule) => rule.why).sort()).toEqual(['locked', 'needs']);
    expect(schedule.slots).toHaveLength(planShots(wrong).length);
    const [finding] = examineSchedule(wrong, schedule, {});
    expect(finding).toMatchObject({ code: 'order.conflict', severity: 'stop' });
  });

  it('counts setups, clothes, takes and resets into clock times, and warns when the day is too short', () => {
    const input = plan({ moments: [moment('clone', 0, 8)], day: day({ end: '09:20' }) });
    const schedule = scheduleOf(input);
    expect(slotClock(schedule, schedule.slots[0].from, input.day)).toBe('09:30');
    expect(examineSchedule(input, schedule, {})[0]).toMatchObject({ code: 'order.over', severity: 'fix' });
    const enough = { ...input, day: day() };
    const { slots } = scheduleOf(enough);
    slots.slice(1).forEach((slot, index) => expect(slot.from).toBe(slots[index].until));
    expect(examineSchedule(enough, scheduleOf(enough), {})[0].code).toBe('order.fits');
  });

  it('puts what needs daylight into it, and says how long the light holds', () => {
    const lisbon = { latitude: 38.72, longitude: -9.14 };
    const input = plan({
      setups: [setup('a'), setup('b', { place: 'outside', order: 2 })],
      moments: [moment('clone', 0, 8), moment('speed-ramp', 8, 16, { setup: 'b' })],
      day: day({ ...lisbon, start: '16:00', end: '23:00' }),
    });
    const schedule = scheduleOf(input);
    expect(schedule.slots[0].shot.setup).toBe('b'); // the sun sets at about 17:15 in November
    const [light] = lightFor(schedule, input, input.setups[1]);
    expect(light.there).toBeLessThan(60);
    const late = scheduleOf({ ...input, day: day({ ...lisbon, start: '18:00', end: '23:00' }) });
    expect(late.slots.filter((slot) => slot.late).map(({ shot }) => shot.setup)).toEqual(['b']);
    expect(late.order?.late).toBe(1);
  });

  it('says when sunlight does not hold for as long as filming takes, and when it would', () => {
    const lisbon = { latitude: 38.72, longitude: -9.14 };
    const found = (more: Parameters<typeof day>[0]) => {
      const input = plan({
        setups: [setup('a', { place: 'outside' })],
        moments: [moment('clone', 0, 8)],
        day: day({ ...lisbon, ...more }),
      });
      return examineSchedule(input, scheduleOf(input), {}).find(({ code }) => code.startsWith('plan.'));
    };
    const short = found({ start: '14:00', stops: 0.1, degrees: 3 });
    expect(short).toMatchObject({ code: 'plan.light', severity: 'watch' });
    expect(short?.measured?.value).toBeLessThan(short?.allowed?.value ?? 0);
    expect(sayFinding(short as Finding, { takes: {}, grid: null }).text).toMatch(
      /holds for \d+ min from 14:30, .*\((longest at \d\d:\d\d, \d+ min|not on this day)\)/,
    );
    expect(found({ start: '10:00', stops: 3, degrees: 90 })).toBeUndefined();
    // North of the polar circle the sun stays down in November.
    expect(found({ latitude: 78.2, longitude: 15.6, start: '10:00' })).toMatchObject({
      code: 'plan.sun-down',
    });
  });

  it('takes an empty plan, every kind at once, and 500 shots', () => {
    expect(scheduleOf(plan()).slots).toEqual([]);
    expect(scheduleOf(plan({ setups: [], moments: [moment('clone', 0, 8)] })).slots).toHaveLength(4);
    const every = plan({ moments: momentKinds.map((kind, index) => moment(kind, index * 8, index * 8 + 8)) });
    expect(scheduleOf(every).order?.ids).toHaveLength(planShots(every).length);
    const many = plan({
      setups: ['a', 'b', 'c', 'd'].map((id, order) => setup(id, { order })),
      moments: Array.from({ length: 60 }, (_, index) =>
        moment('split-screen', index * 4, index * 4 + 4, {
          id: `m${index}`,
          setup: 'abcd'[index % 4],
          settings: { panels: 9 },
        }),
      ),
    });
    const schedule = scheduleOf(many);
    expect(schedule.slots).toHaveLength(540);
    expect(schedule.order).toMatchObject({ setups: 3, clothes: 0, proved: true });
  });
});

describe('days and clocks', () => {
  it('goes over midnight', () => {
    const { start, end } = dayOf(day({ start: '22:00', end: '02:30' }));
    expect((end - start) / 3600e3).toBe(4.5);
    expect(dateOf(end, 'Europe/Lisbon')).toBe('2026-11-29');
  });

  it('counts real hours over a clock change', () => {
    // The European Union's summer time ends on the last Sunday of October at 01:00 UTC (Directive 2000/84/EC).
    const autumn = dayOf(day({ date: '2026-10-24', start: '23:00', end: '05:00', zone: 'Europe/Berlin' }));
    expect((autumn.end - autumn.start) / 3600e3).toBe(7);
    const spring = dayOf(day({ date: '2026-03-28', start: '23:00', end: '05:00', zone: 'Europe/Berlin' }));
    expect((spring.end - spring.start) / 3600e3).toBe(5);
    expect(clockTime(autumn.start + 5 * 3600e3, 'Europe/Berlin')).toBe('03:00');
    // 02:30 is left out in spring and comes twice in autumn: the first of them.
    expect(new Date(instantOf('2026-03-29', '02:30', 'Europe/Berlin')).toISOString()).toMatch(/T01:30/);
    expect(new Date(instantOf('2026-10-25', '02:30', 'Europe/Berlin')).toISOString()).toMatch(/T00:30/);
  });

  it('refuses zones and dates that are none', () => {
    expect(() => instantOf('2026-11-28', '10:00', 'Nowhere/City')).toThrow(
      expect.objectContaining({ code: 'zone' }),
    );
    expect(() => instantOf('soon', '10:00', 'UTC')).toThrow(expect.objectContaining({ code: 'date' }));
  });
});
