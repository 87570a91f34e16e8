import { barStart, beatOfTime, nextBar, timeOfBeat, type BeatGrid } from '@/core/time/grid';

/** One line of the folded song, between two beat positions; `base` lies at the left margin. */
export type Line = { from: number; to: number; top: number; base: number };
export type RibbonLayout = {
  lines: Line[];
  left: number;
  right: number;
  /** height of the fabric, and from one line to the next */
  height: number;
  pitch: number;
  perBar: number;
};

const margins = { left: 34, right: 40 };

/** Bars on a line by the room there is: 2 on a phone, 8 on a desktop. */
export const barsFor = (width: number): number => (width >= 860 ? 8 : width >= 520 ? 4 : 2);

/**
 * Folds a song of `duration` seconds into lines of whole bars. Lengths in CSS pixels. Where bars change their length,
 * a line holds as many as fit into `bars` bars of the first length.
 * @param span beat positions of bars; only these are shown
 */
export function foldSong(
  grid: BeatGrid,
  duration: number,
  width: number,
  bars: number,
  height: number,
  gap: number,
  span?: { from: number; to: number },
): RibbonLayout {
  const room = bars * grid.beatsPerBar;
  const begin = span?.from ?? beatOfTime(grid, 0);
  const beatWidth = (width - margins.left - margins.right) / room;
  // A short pickup hangs over the left edge; a long one is a bar of its own.
  const hangs = !span && begin < 0 && -begin * beatWidth < margins.left - 6;
  const slack = 0.02 * grid.beatsPerBar;
  const first = hangs ? 0 : barStart(grid, begin + slack);
  const last = nextBar(grid, (span?.to ?? beatOfTime(grid, duration)) - slack);
  const lines: Line[] = [];
  for (let base = first; base < last || lines.length === 0;) {
    let to = nextBar(grid, base);
    while (to < last && nextBar(grid, to) - base <= room) to = nextBar(grid, to);
    const from = hangs && lines.length === 0 ? begin : base;
    lines.push({ from, base, to, top: gap - 14 + lines.length * (height + gap) });
    base = to;
  }
  return {
    lines,
    left: margins.left,
    right: width - margins.right,
    height,
    pitch: height + gap,
    perBar: room,
  };
}

/** A passage on one long line, for looking closely. */
export function passage(from: number, to: number, width: number, height: number): RibbonLayout {
  return {
    lines: [{ from, base: from, to, top: 22 }],
    left: 20,
    right: width - 20,
    height,
    pitch: height,
    perBar: to - from,
  };
}

/** How deep a patch is on the fabric, and where it begins. */
export const patchBox = (height: number): { top: number; deep: number } => ({
  top: height * 0.3,
  deep: Math.min(height * 0.52, 36),
});

/** Where a beat position lies across its line. */
export const xOf = (layout: RibbonLayout, line: Line, position: number): number =>
  layout.left + ((position - line.base) / layout.perBar) * (layout.right - layout.left);

/** The line that a position lies on; the last one for what comes after. */
export const lineOf = (layout: RibbonLayout, position: number): Line =>
  layout.lines.findLast((line) => position >= line.from) ?? layout.lines[0];

/** The beat position under a point of the drawing. */
export function positionAt(layout: RibbonLayout, x: number, y: number): number {
  const index = Math.floor((y - layout.lines[0].top + (layout.pitch - layout.height) / 2) / layout.pitch);
  const line = layout.lines[Math.min(layout.lines.length - 1, Math.max(0, index))];
  const position = line.base + ((x - layout.left) / (layout.right - layout.left)) * layout.perBar;
  return Math.min(line.to, Math.max(line.from, position));
}

/** The pieces of a span of beats, one a line. */
export function piecesOf(
  layout: RibbonLayout,
  start: number,
  end: number,
): { line: Line; x0: number; x1: number; first: boolean; last: boolean }[] {
  return layout.lines
    .filter((line) => start < line.to && end > line.from)
    .map((line) => ({
      line,
      x0: xOf(layout, line, Math.max(start, line.from)),
      x1: xOf(layout, line, Math.min(end, line.to)),
      first: start >= line.from,
      last: end <= line.to,
    }));
}

/** The waveform of a line as thin threads, one every three pixels. `peaks` are loudest samples, `perSecond` of them. */
export function threadsOf(
  layout: RibbonLayout,
  line: Line,
  grid: BeatGrid,
  peaks: Float32Array,
  perSecond: number,
  tall: number,
): string {
  const end = xOf(layout, line, line.to);
  const middle = line.top + layout.height * 0.47;
  let path = '';
  let time = timeOfBeat(grid, line.from);
  for (let x = xOf(layout, line, line.from); x < end; x += 3) {
    const next = timeOfBeat(
      grid,
      line.base + ((x + 3 - layout.left) / (layout.right - layout.left)) * layout.perBar,
    );
    let most = 0;
    for (
      let at = Math.max(0, Math.floor(time * perSecond));
      at <= next * perSecond && at < peaks.length;
      at++
    ) {
      most = Math.max(most, peaks[at]);
    }
    time = next;
    const reach = Math.min(1, most * tall) * layout.height * 0.42;
    if (reach > 0.4)
      path += `M${(x + 0.8).toFixed(1)} ${(middle - reach).toFixed(1)}v${(reach * 1.75).toFixed(1)}`;
  }
  return path;
}
