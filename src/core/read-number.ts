import { positionOf, type BeatGrid } from './time/grid';

/**
 * Reads a number as people write it, with or without a unit behind it: "12", "1.5", "1,5", "1 920", "1,920.5",
 * "1.920,5", "−3 px". Of two kinds of signs the last one is the decimal sign; one comma before exactly three digits
 * parts thousands, as the bench itself writes them, unless nothing but a zero stands before it. Null where there is no
 * number.
 */
export function readNumber(text: string): number | null {
  const found = /([-−]?)\s*(\d[\d.,'’\s\u00a0\u202f]*|[.,]\d+)/.exec(text);
  if (!found) return null;
  const digits = found[2].replace(/['’\s\u00a0\u202f]/g, '').replace(/[.,]+$/, '');
  const last = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
  const sign = digits[last];
  const parts = digits.split(/[.,]/);
  const mixed = digits.includes('.') && digits.includes(',');
  const groups = parts.slice(1).every((part) => part.length === 3);
  const thousands = !mixed && groups && (parts.length > 2 || (sign === ',' && Number(parts[0]) !== 0));
  const value =
    last < 0 || thousands
      ? Number(parts.join(''))
      : Number(`${digits.slice(0, last).replace(/[.,]/g, '')}.${digits.slice(last + 1)}`);
  return Number.isFinite(value) ? (found[1] ? -value : value) : null;
}

/** The number behind a stroke: "f/2.8", "1/50 s"; without a stroke the number itself. */
export const readAfterSlash = (text: string): number | null =>
  readNumber(text.slice(text.lastIndexOf('/') + 1));

/** Seconds of a clock: `1:02.5`, `1:00:02` or seconds alone; null where it is none. */
export function readClock(text: string): number | null {
  const parts = text.split(':').map((part) => readNumber(part));
  if (parts.length > 3 || parts.some((part) => part === null || part < 0)) return null;
  return parts.reduce<number>((sum, part) => 60 * sum + (part ?? 0), 0);
}

/**
 * Reads a place among beats: "10" is the first of bar 10; "10.4", "10 4", "bar 10, beat 4" are its fourth beat, and
 * "10.4.5" is half a beat after it. Null where no bar is named.
 */
export function readBeatPlace(grid: BeatGrid, text: string): number | null {
  const found = /^\D*?([-−]?\d+)(?:[^\d−-]+(\d+(?:[.,]\d+)?))?\D*$/.exec(text);
  if (!found || (/beat/i.test(text) && found[2] === undefined)) return null;
  const beat = Number((found[2] ?? '1').replace(',', '.'));
  return positionOf(grid, Number(found[1].replace('−', '-')), beat);
}
