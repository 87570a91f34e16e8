import { writeCsv } from './csv';
import type { Bezier } from '../motion/easing';
import { influencesOf } from '../motion/influence';
import type { KeyframeRow, Step } from '../recipes/recipe';
import { timeOfFrame, type Rate } from '../time/rate';
import { formatTimecode } from '../time/timecode';

/** A curve as its handles, and as influences where it rests on both ends. */
function curveLabel(curve: Bezier): string {
  const { leaves, arrives } = influencesOf(curve);
  const handles = `cubic-bezier(${curve.map((value) => Number(value.toFixed(4))).join(', ')})`;
  const share = (value: number) => `${Math.round(100 * value)} %`;
  return leaves.speed === 0 && arrives.speed === 0
    ? `${handles}, influence ${share(leaves.share)} and ${share(arrives.share)}`
    : handles;
}

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
    then: row.curve ? `${row.then}, ${curveLabel(row.curve)}` : row.then,
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
  const lines = writeCsv(
    keys.map((key) => heads[key]),
    rows.map((row) => keys.map((key) => row[key])),
  );
  return `${lines}\r\n`;
}
