import { describe, expect, it } from 'vitest';
import { day, moment, plan, setup } from '../../__tests__/plan';
import { sayFinding } from '../../finding/say';
import type { Finding } from '../../finding/finding';
import { dateOf, instantOf, isDate } from '../../time/zone';
import { layOut, type Days } from './lay-out';
import { examineSchedule } from './examine-order';
import { dayOf, lightFor, scheduleOf, slotClock } from './schedule';

const job = (id: string, setupId: string, minutes: number) => ({
  id,
  setup: setupId,
  clothes: '',
  minutes,
  rank: 0,
});
const changes = { setUp: 30, changing: 10 };
/** Days of eight hours, a day apart. */
const days: Days = {
  span: (later) => ({ from: later * 1440, until: later * 1440 + 480 }),
  light: () => undefined,
};

describe('laying an order out over days', () => {
  it('lets a whole setup wait for the next day where it does not fit today', () => {
    const places = layOut(
      [job('a', 'one', 300), job('b', 'two', 100), job('c', 'two', 100)],
      new Set(),
      changes,
      days,
    );
    expect(places.map((place) => place.day)).toEqual([0, 1, 1]);
    expect(places[1]).toMatchObject({ from: 1470, newSetup: true });
  });

  it('parts a setup that is longer than a day, but never what is glued', () => {
    const jobs = [job('a', 'one', 200), job('b', 'one', 200), job('c', 'one', 200)];
    expect(layOut(jobs, new Set(), changes, days).map((place) => place.day)).toEqual([0, 0, 1]);
    const glued = layOut(jobs, new Set(['c']), changes, days);
    expect(glued.map((place) => place.day)).toEqual([0, 1, 1]);
    // Everything is set up again on another day.
    expect(glued.map((place) => place.newSetup)).toEqual([true, true, false]);
  });

  it('says what no day holds, gives it a day of its own, and goes on after it', () => {
    const jobs = [job('a', 'one', 50), job('b', 'two', 600), job('c', 'three', 50)];
    const places = layOut(jobs, new Set(), changes, days);
    expect(places.map((place) => [place.day, place.over])).toEqual([
      [0, false],
      [1, true],
      [2, false],
    ]);
  });

  it('has no end while no day is set', () => {
    const places = layOut([job('a', 'one', 5000), job('b', 'two', 5000)], new Set(), changes, null);
    expect(places.every((place) => place.day === 0 && !place.over)).toBe(true);
  });
});

const lisbon = { latitude: 38.72, longitude: -9.14 };
const outside = (more: Parameters<typeof day>[0]) => {
  const input = plan({
    setups: [setup('a', { place: 'outside' })],
    moments: [moment('clone', 0, 8)],
    day: day(more),
  });
  const schedule = scheduleOf(input);
  const found = examineSchedule(input, schedule, { a: 'Yard' });
  const said = (code: string) => {
    const finding = found.find((one) => one.code === code);
    return finding && sayFinding(finding as Finding, { takes: {}, grid: null }).text;
  };
  return { input, schedule, found, said };
};

describe('days of filming', () => {
  it('names every day with its call, and the setup that is parted', () => {
    const input = plan({
      setups: [setup('a')],
      moments: Array.from({ length: 30 }, (_, index) => moment('clone', index * 8, index * 8 + 8)),
      day: day({ start: '09:00', end: '12:00' }),
    });
    const schedule = scheduleOf(input);
    expect(schedule.days.length).toBeGreaterThan(1);
    for (const slot of schedule.slots) expect(slot.until).toBeLessThanOrEqual(slot.day * 1440 + 180);
    const found = examineSchedule(input, schedule, { a: 'Workshop' });
    const codes = found.map(({ code }) => code);
    expect(codes).toEqual(expect.arrayContaining(['order.days', 'order.parted']));
    expect(codes).not.toContain('order.fits');
    expect(found.find(({ code }) => code === 'order.days')?.facts?.days).toMatch(
      /^2026-11-28, call 09:00, done \d\d:\d\d; 2026-11-29, call 09:00, done/,
    );
    const second = schedule.slots.find((slot) => slot.day === 1);
    expect(slotClock(schedule, second?.from ?? 0, input.day)).toBe('day 2, 09:30');
  });

  it('takes the sun of the date that is filmed on, also near midnight', () => {
    // Sunrise of 29 November at about 07:35 in Lisbon, by suncalc 2.0.2; filming begins the evening before.
    const night = outside({ ...lisbon, start: '22:00', end: '13:00' });
    const [first] = night.schedule.slots;
    const begins = dayOf(night.input.day as never).start + first.from * 60_000;
    expect(dateOf(begins, 'Europe/Lisbon')).toBe('2026-11-29');
    expect(slotClock(night.schedule, first.from, night.input.day)).toMatch(/^07:3/);
    expect(night.schedule.slots.some(({ late }) => late)).toBe(false);
    // Far from Greenwich the date of the clocks is not that of UTC.
    const auckland = { latitude: -36.85, longitude: 174.76, zone: 'Pacific/Auckland' };
    const morning = outside({ ...auckland, start: '00:30', end: '12:00' });
    expect(slotClock(morning.schedule, morning.schedule.slots[0].from, morning.input.day)).toMatch(/^0[56]:/);
  });

  it('does not call dark what it promised for the minute of sunrise', () => {
    const early = outside({ ...lisbon, start: '05:00', end: '13:00' });
    const codes = early.found.map(({ code }) => code);
    expect(codes).not.toContain('plan.sun-down');
    expect(codes).not.toContain('order.late');
    const [light] = lightFor(early.schedule, early.input, early.input.setups[0]);
    expect(light.needed).toBeGreaterThan(0);
  });

  it('says “later” before the sun has risen and “earlier” once it has set', () => {
    const before = outside({ ...lisbon, start: '05:00', end: '06:30' });
    expect(before.said('plan.sun-down')).toMatch(/It rises at 07:\d\d: film later/);
    expect(before.found.some(({ code }) => code === 'order.late')).toBe(true);
    expect(outside({ ...lisbon, start: '18:00', end: '23:00' }).said('plan.sun-down')).toMatch(
      /It set at 17:\d\d: film earlier/,
    );
    const north = outside({ latitude: 78.2, longitude: 15.6, start: '10:00' });
    expect(north.said('plan.sun-down')).toMatch(/does not rise on that day/);
  });

  it('knows which dates there are', () => {
    expect(['2026-02-28', '2028-02-29'].every(isDate)).toBe(true);
    expect(['2026-02-30', '2026-02-29', '2026-13-01', '2026-00-10', 'soon', '2026-1-1'].some(isDate)).toBe(
      false,
    );
    expect(() => instantOf('2026-02-30', '10:00', 'UTC')).toThrow(expect.objectContaining({ code: 'date' }));
  });
});
