import Papa from 'papaparse';
import { refuse } from '../error';
import { frameOfTime, type Rate } from '../time/rate';
import type { BeatGrid } from '../time/grid';
import { gridOfLabels, labelBeats, type ReadGrid } from './labelled-beats';

/** Beats as CSV (RFC 4180): bar, beat, seconds to the microsecond, and the frame at `rate`. */
export const writeBeatCsv = (grid: BeatGrid, rate: Rate): string =>
  Papa.unparse({
    fields: ['bar', 'beat', 'seconds', 'frame'],
    data: labelBeats(grid).map(({ bar, beat, time }) => [
      bar,
      beat,
      time.toFixed(6),
      frameOfTime(rate, time),
    ]),
  }) + '\r\n';

const numberIn = (text: string | undefined) =>
  text && text.trim() !== '' ? Number(text.trim().replace(',', '.')) : NaN;

/**
 * Reads beats from CSV: a column called seconds or time, else the first column; columns called bar and beat if
 * there are any.
 * @throws CoreError `beats-file` where a line holds no number, naming the line
 */
export function readBeatCsv(text: string): ReadGrid {
  const { data } = Papa.parse<string[]>(text.trim(), { skipEmptyLines: true });
  const heads = (data[0] ?? []).map((head) => head.trim().toLowerCase());
  const hasHead = heads.some((head) => head !== '' && Number.isNaN(numberIn(head)));
  const column = (...names: string[]) => (hasHead ? heads.findIndex((head) => names.includes(head)) : -1);
  const [named, bar, beat] = [column('seconds', 'time', 'start'), column('bar'), column('beat')];
  const time = Math.max(0, named);
  const rows = data.slice(hasHead ? 1 : 0).map((cells, index) => {
    const seconds = numberIn(cells[time]);
    if (!Number.isFinite(seconds)) {
      const line = index + (hasHead ? 2 : 1);
      refuse(
        'beats-file',
        `Line ${line} says “${(cells[time] ?? '').slice(0, 24)}” where seconds should stand. Put the beats' seconds into the first column, or call their column “seconds”.`,
      );
    }
    const whole = (at: number) =>
      at >= 0 && Number.isInteger(numberIn(cells[at])) ? numberIn(cells[at]) : undefined;
    return { time: seconds, bar: whole(bar), beat: whole(beat) };
  });
  return gridOfLabels(rows);
}
