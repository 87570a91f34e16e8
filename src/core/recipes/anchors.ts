import { pinnedAt, type Pinned } from '../model/pins';
import { frameOfBeat } from '../time/grid';
import type { Anchor, Ruler } from './recipe';

/** No moment begins further before the song, or ends further after it. */
const earliest = -16;
const latest = 1e5;
/** A moment is at least so many beats long. */
const least = 0.25;

/** An instant that a field of the moment holds, rounded to its frame from absolute time. */
const anchorOf = (
  moment: Pinned,
  { grid, project }: Ruler,
  anchor: Omit<Anchor, 'position' | 'frame'>,
): Anchor => {
  const position = pinnedAt(moment)[anchor.field] ?? moment.lands;
  return { ...anchor, position, frame: frameOfBeat(grid, project.rate, position) };
};

/** True where a moment lands on a frame of its own: not before its first, and before the one after its last. */
export function landsInTurn({ start, lands, end }: Pinned, { grid, project }: Ruler): boolean {
  const [first, on, last] = [start, lands, end].map((beat) => frameOfBeat(grid, project.rate, beat));
  return first <= on && on < last;
}

/** Where one of some parts of a span begins, while nobody has set it: on half a beat, where they are that long. */
export function evenly(from: number, until: number, index: number, parts: number): number {
  const length = (until - from) / parts;
  const position = from + length * index;
  return length < 0.5 ? position : Math.min(until, Math.round(position * 2) / 2);
}

/** A further instant, which `pins` of the moment hold. @param between the positions of its neighbours */
export function pinAnchor(
  { grid, project }: Ruler,
  pin: { name: string; title: string; position: number; between: [number, number]; marks?: string },
): Anchor {
  const { between, ...anchor } = pin;
  return {
    ...anchor,
    field: `pins.${pin.name}`,
    frame: frameOfBeat(grid, project.rate, pin.position),
    limits: [between[0] + least, between[1] - least],
    step: 0.5,
  };
}

/**
 * The three instants that every moment has.
 * @param titles what the sentence calls them
 * @param marks what happens where it lands, for markers
 */
export function spanAnchors(
  moment: Pinned,
  ruler: Ruler,
  titles: Record<'start' | 'lands' | 'end', string>,
  marks: string,
): Anchor[] {
  const { start, lands, end } = moment;
  const limits: Record<'start' | 'lands' | 'end', [number, number]> = {
    start: [earliest, lands],
    lands: [start, end - least],
    end: [lands + least, latest],
  };
  return (['start', 'lands', 'end'] as const).map((name) =>
    anchorOf(moment, ruler, {
      name,
      field: name,
      title: titles[name],
      limits: limits[name],
      step: name === 'lands' ? 0.5 : 1,
      ...(name === 'lands' ? { marks } : {}),
    }),
  );
}
