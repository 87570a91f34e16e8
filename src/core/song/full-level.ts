import { quantile } from '../statistics';
import { peaksOf } from './loudness';
import type { Sound } from './spectrum';

/** a tenth of a second, and the share of them that may be louder than what counts as full */
const part = 0.1;
const louder = 0.02;
/** how far below its loudest sample a song's full level may lie: 18 dB */
const least = 1 / 8;

/** What counts as full level in a song, 0 in silence: one click far above the music does not lower all of it. */
export function fullLevel({ data, rate }: Sound): number {
  const peaks = peaksOf(data, Math.max(1, Math.round(data.length / rate / part)));
  return Math.max(quantile(peaks, 1 - louder), least * quantile(peaks, 1));
}
