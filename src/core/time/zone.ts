import { refuse } from '../error';

const formats = new Map<string, Intl.DateTimeFormat>();

function formatOf(zone: string): Intl.DateTimeFormat {
  const known = formats.get(zone);
  if (known) return known;
  try {
    const made = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    });
    formats.set(zone, made);
    return made;
  } catch {
    return refuse('zone', `"${zone}" is no time zone that this device knows. Give one like Europe/Berlin.`);
  }
}

/** True for the name of a time zone that this device knows. */
export function isZone(zone: string): boolean {
  try {
    return Boolean(formatOf(zone));
  } catch {
    return false;
  }
}

function partsOf(instant: number, zone: string): Record<string, number> {
  const parts = formatOf(zone).formatToParts(instant);
  return Object.fromEntries(parts.map(({ type, value }) => [type, Number(value)]));
}

/** Milliseconds by which clocks of a zone are ahead of UTC at an instant. */
function aheadAt(instant: number, zone: string): number {
  const { year, month, day, hour, minute, second } = partsOf(instant, zone);
  return Date.UTC(year, month - 1, day, hour, minute, second) - Math.floor(instant / 1000) * 1000;
}

/** True for a date that calendars have: "2026-02-30" is none. */
export function isDate(date: string): boolean {
  const found = /^(\d{4})-(\d{2})-(\d{2})$/.exec(date);
  if (!found) return false;
  const [year, month, day] = found.slice(1).map(Number);
  const made = new Date(Date.UTC(year, month - 1, day));
  return made.getUTCFullYear() === year && made.getUTCMonth() === month - 1 && made.getUTCDate() === day;
}

/**
 * The instant at which clocks of a zone show a date and time of day. A time that a clock change leaves out is
 * taken as if the clocks had gone on; of a time that comes twice, the first.
 * @param date "2026-11-28"; @param clock "18:40"; @param later whole days added to the date
 * @throws CoreError `zone` for a name that is none, `date` for a date that is none
 */
export function instantOf(date: string, clock: string, zone: string, later = 0): number {
  const [year, month, day] = date.split('-').map(Number);
  const [hour, minute] = clock.split(':').map(Number);
  const shown = Date.UTC(year, month - 1, day + later, hour, minute);
  if (!isDate(date) || !Number.isFinite(shown))
    return refuse('date', 'Give a date like 2026-11-28 and a time like 18:40.');
  const guesses = [shown - aheadAt(shown - 86_400_000, zone), shown - aheadAt(shown + 86_400_000, zone)];
  const fits = guesses.filter((guess) => guess + aheadAt(guess, zone) === shown);
  return fits.length > 0 ? Math.min(...fits) : guesses[0];
}

/** The time of day that clocks of a zone show, "18:40". @param instant milliseconds since 1970 */
export function clockTime(instant: number, zone: string): string {
  const { hour, minute } = partsOf(instant, zone);
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}

/** The date that calendars of a zone show, "2026-11-28". @param instant milliseconds since 1970 */
export function dateOf(instant: number, zone: string): string {
  const { year, month, day } = partsOf(instant, zone);
  return `${year}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
}
