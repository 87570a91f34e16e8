/** Where something lies on the ribbon, in beat positions: begins, strikes, ends. */
export type Span = { start: number; lands: number; end: number };

/** What is taken hold of: all of it, one end, or the beat on which it strikes. */
export type SpanPart = 'body' | 'start' | 'lands' | 'end';

/** A span is at least this many beats long. */
const least = 0.25;

/**
 * A span of which a part is moved by some beats. It keeps its order: what strikes stays within what begins and ends.
 * @param by beats; negative is earlier
 */
export function moveSpan({ start, lands, end }: Span, part: SpanPart, by: number): Span {
  switch (part) {
    case 'start':
      return { start: Math.min(start + by, lands), lands, end };
    case 'end':
      return {
        start,
        lands: Math.min(lands, Math.max(start, end + by - least)),
        end: Math.max(start + least, end + by),
      };
    case 'lands':
      return { start, lands: Math.min(end - least, Math.max(start, lands + by)), end };
    default:
      return { start: start + by, lands: lands + by, end: end + by };
  }
}
