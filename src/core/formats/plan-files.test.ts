import { describe, expect, it } from 'vitest';
import ICAL from 'ical.js';
import Papa from 'papaparse';
import { day, moment, plan } from '../__tests__/plan';
import { scheduleOf, slotClock } from '../plan/order/schedule';
import { instantOf } from '../time/zone';
import { writeCalendar } from './calendar';
import { writeShotList } from './shot-list';

/** Events as ical.js reads them (RFC 5545). */
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));

describe('the timetable as iCalendar', () => {
  it('is read by ical.js with the same instants, over midnight and over a clock change', () => {
    const start = instantOf('2026-10-24', '23:30', 'Europe/Berlin');
    const hours = [0, 1, 2, 3, 4, 5];
    const events = hours.map((hour) => ({
      id: `shot ${hour}`,
      title: `Shot ${hour}; with, signs`,
      text: 'Line one\nline two',
      place: 'Yard',
      start: start + hour * 3600e3,
      end: start + (hour + 1) * 3600e3,
    }));
    const found = read(writeCalendar(events, Date.UTC(2026, 9, 1)));
    expect(found.map((event) => event.startDate.toJSDate().getTime())).toEqual(
      events.map((event) => event.start),
    );
    expect(found.map((event) => event.endDate.toJSDate().getTime())).toEqual(
      events.map((event) => event.end),
    );
    expect(found[0].summary).toBe('Shot 0; with, signs');
    expect(found[0].description).toBe('Line one\nline two');
    expect(new Set(found.map((event) => event.uid)).size).toBe(events.length);
  });

  it('writes a plan with nothing in it, and gives every event a length', () => {
    expect(read(writeCalendar([], 0))).toEqual([]);
    const [event] = read(writeCalendar([{ id: 'a', title: 'A', text: '', start: 6e4, end: 6e4 }], 0));
    expect(event.duration.toSeconds()).toBe(60);
  });
});

describe('the shot list as CSV', () => {
  it('has one line a shot in the order of filming, and no formula that a sheet would run', () => {
    const input = plan({ moments: [moment('clone', 0, 8)], day: day() });
    const schedule = scheduleOf(input);
    const csv = writeShotList(schedule.slots, {
      clock: (minutes) => slotClock(schedule, minutes, input.day),
      setup: () => '=SUM(A1)',
      moment: () => 'Two, "herself"',
      reason: () => 'because',
    });
    const rows = Papa.parse<Record<string, string>>(csv, { header: true }).data;
    expect(rows.map((row) => row.Shot)).toEqual(schedule.slots.map(({ shot }) => shot.title));
    expect(rows[1].For).toBe('Two, "herself"');
    expect(rows[0].Setup.startsWith('=')).toBe(false);
    expect(rows[0].From).toBe('09:30');
  });
});
