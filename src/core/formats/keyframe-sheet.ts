import Papa from 'papaparse';
import type { KeyframeRow, Step } from '../recipes/recipe';
import { timeOfFrame, type Rate } from '../time/rate';
import { formatTimecode } from '../time/timecode';

/** A row of a sheet with everything written out. `start` is the frame that the exported shot begins on. */
export function writtenRow(row: KeyframeRow, rate: Rate, start: number) {
  const inShot = row.frame - start;
  const digits = row.unit === 'px' || row.unit === '%' ? 3 : 4;
  return {
    layer: row.layer,
    what: row.what,
    frameInFilm: row.frame,
    frameInShot: inShot,
    secondsInShot: timeOfFrame(rate, inShot).toFixed(4),
    timecodeInFilm: formatTimecode(row.frame, rate),
    value: row.value === null ? '' : `${row.value.toFixed(digits)} ${row.unit}`.trim(),
    perCent: row.value !== null && row.of ? `${((row.value / row.of) * 100).toFixed(4)} %` : '',
    then: row.then,
  };
}

const heads: Record<keyof ReturnType<typeof writtenRow>, string> = {
  layer: 'layer',
  what: 'what',
  frameInFilm: 'frame in the film',
  frameInShot: 'frame in the shot',
  secondsInShot: 'seconds in the shot',
  timecodeInFilm: 'timecode in the film',
  value: 'value',
  perCent: 'per cent of the frame',
  then: 'until the next',
};

/** Every keyframe of a moment as CSV (RFC 4180). */
export function keyframeCsv(steps: readonly Step[], rate: Rate, start: number): string {
  const rows = steps.flatMap((step) => step.rows).map((row) => writtenRow(row, rate, start));
  const keys = Object.keys(heads) as (keyof typeof heads)[];
  return (
    Papa.unparse({
      fields: keys.map((key) => heads[key]),
      data: rows.map((row) => keys.map((key) => row[key])),
    }) + '\r\n'
  );
}
