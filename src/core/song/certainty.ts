import { median } from '../statistics';
import type { ReadBeats } from './track';

/** confidence from which beats are called sure, and from which they are called likely */
export const sureFrom = 0.95;
export const likelyFrom = 0.7;

/** Which other reading of the same strokes a row of beats is, in words. */
export function sayReading(found: ReadBeats, other: ReadBeats): string {
  const ratio = other.bpm / found.bpm;
  const near = (wanted: number) => Math.abs(Math.log(ratio / wanted)) < 0.04;
  const bpm = `${other.bpm.toFixed(0)} beats a minute`;
  if (near(2)) return `twice as fast, ${bpm}`;
  if (near(1 / 2)) return `half as fast, ${bpm}`;
  if (!near(1)) return bpm;
  const gap = 60 / found.bpm;
  const away = median(found.beats.map((time) => Math.min(...other.beats.map((one) => Math.abs(one - time)))));
  return away > 0.4 * gap ? 'half a beat later' : `${Math.round(1000 * away)} ms later`;
}
