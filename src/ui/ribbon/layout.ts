import { barAndBeat, beatOfTime, timeOfBeat, type BeatGrid } from '@/core/time/grid';

/** One line of the folded song: whole bars between two beat positions. */
export type Line = { from: number; to: number; top: number; firstBar: number };
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

/** Folds a song of `duration` seconds into lines of whole bars. Lengths in CSS pixels. */
export function foldSong(
  grid: BeatGrid,
  duration: number,
  width: number,
  bars: number,
  height: number,
  gap: number,
): RibbonLayout {
  const perBar = grid.beatsPerBar;
  const first = Math.floor(beatOfTime(grid, 0) / perBar + 0.02) * perBar;
  const last = Math.ceil(beatOfTime(grid, duration) / perBar - 0.02) * perBar;
  const lines: Line[] = [];
  for (let from = first; from < Math.max(last, first + perBar); from += bars * perBar) {
    const top = 14 + lines.length * (height + gap);
    lines.push({ from, to: Math.min(last, from + bars * perBar), top, firstBar: barAndBeat(grid, from).bar });
  }
  return {
    lines,
    left: margins.left,
    right: width - margins.right,
    height,
    pitch: height + gap,
    perBar: bars * perBar,
  };
}

/** A passage on one long line, for looking closely. */
export function passage(from: number, to: number, width: number, height: number): RibbonLayout {
  return {
    lines: [{ from, to, top: 12, firstBar: 0 }],
    left: 20,
    right: width - 20,
    height,
    pitch: height,
    perBar: to - from,
  };
}

/** Where a beat position lies across its line. */
export const xOf = (layout: RibbonLayout, line: Line, position: number): number =>
  layout.left + ((position - line.from) / layout.perBar) * (layout.right - layout.left);

/** The line that a position lies on; the last one for what comes after. */
export const lineOf = (layout: RibbonLayout, position: number): Line =>
  layout.lines.findLast((line) => position >= line.from) ?? layout.lines[0];

/** The beat position under a point of the drawing. */
export function positionAt(layout: RibbonLayout, x: number, y: number): number {
  const index = Math.floor((y - layout.lines[0].top + (layout.pitch - layout.height) / 2) / layout.pitch);
  const line = layout.lines[Math.min(layout.lines.length - 1, Math.max(0, index))];
  const position = line.from + ((x - layout.left) / (layout.right - layout.left)) * layout.perBar;
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
  for (let x = layout.left; x < end; x += 3) {
    const next = timeOfBeat(
      grid,
      line.from + ((x + 3 - layout.left) / (layout.right - layout.left)) * layout.perBar,
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
