import { createEvents, type DateArray } from 'ics';
import { refuse } from '../error';

/** Something at a time; instants in milliseconds. */
type CalendarEvent = {
  id: string;
  title: string;
  text: string;
  place?: string;
  start: number;
  end: number;
};

function utc(instant: number): DateArray {
  const date = new Date(instant);
  return [
    date.getUTCFullYear(),
    date.getUTCMonth() + 1,
    date.getUTCDate(),
    date.getUTCHours(),
    date.getUTCMinutes(),
  ];
}

/**
 * An iCalendar file. Times are written in UTC, so that no clock change can move them.
 * @param made milliseconds, when it was written
 * @throws CoreError `calendar` where an event has no length
 * @see RFC 5545
 */
export function writeCalendar(events: readonly CalendarEvent[], made: number): string {
  const { error, value } = createEvents(
    events.map((event) => ({
      uid: event.id,
      title: event.title,
      description: event.text,
      location: event.place,
      start: utc(event.start),
      startInputType: 'utc' as const,
      startOutputType: 'utc' as const,
      end: utc(Math.max(event.end, event.start + 60_000)),
      endInputType: 'utc' as const,
      endOutputType: 'utc' as const,
      timestamp: made,
      productId: 'fickle-ribbon',
    })),
  );
  if (error || !value)
    return refuse(
      'calendar',
      'The timetable could not be written. Give the day a date and a start.',
      String(error),
    );
  return value;
}
