import { refuse } from '../error';
import { nominalRate, type Rate } from './rate';

/** Drop-frame counting exists for 30000/1001 and 60000/1001 only (SMPTE ST 12-1); 24000/1001 never drops. */
const canDrop = (rate: Rate): boolean => rate.den === 1001 && nominalRate(rate) % 30 === 0;

const two = (value: number) => String(value).padStart(2, '0');

/**
 * Timecode of a frame number, `HH:MM:SS:FF`, with `;` before the frames where numbers are dropped.
 * @param frame frames from zero; negative frames are written with a leading minus
 * @param drop count in drop-frame where the rate allows it
 * @see SMPTE ST 12-1: two (or four) numbers are left out each minute, but not each tenth minute
 */
export function formatTimecode(frame: number, rate: Rate, drop = canDrop(rate)): string {
  const count = nominalRate(rate);
  const dropping = drop && canDrop(rate);
  const sign = frame < 0 ? '-' : '';
  let number = Math.abs(Math.round(frame));
  if (dropping) {
    const left = count / 15;
    const tenMinutes = count * 600 - left * 9;
    const minute = count * 60 - left;
    const tens = Math.floor(number / tenMinutes);
    const rest = number % tenMinutes;
    number +=
      left * 9 * tens + (rest < count * 60 ? 0 : left * (1 + Math.floor((rest - count * 60) / minute)));
  }
  const seconds = Math.floor(number / count);
  const clock = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60].map(two).join(':');
  return `${sign}${clock}${dropping ? ';' : ':'}${two(number % count)}`;
}

/**
 * The frame number of a timecode. `;` before the frames means drop-frame.
 * @throws CoreError `timecode` where the text is no timecode or names a dropped number
 */
export function parseTimecode(text: string, rate: Rate): number {
  const match = /^(\d{1,2}):(\d{2}):(\d{2})([:;])(\d{2})$/.exec(text.trim());
  const count = nominalRate(rate);
  if (!match) refuse('timecode', `"${text}" is not a timecode. Write it as 00:01:02:03.`);
  const [hours, minutes, seconds, frames] = [match[1], match[2], match[3], match[5]].map(Number);
  const dropping = match[4] === ';' && canDrop(rate);
  const left = dropping ? count / 15 : 0;
  const missing = dropping && seconds === 0 && minutes % 10 !== 0 && frames < left;
  if (minutes > 59 || seconds > 59 || frames >= count || missing) {
    refuse('timecode', `${text} does not exist at this frame rate. Use the next frame.`);
  }
  const wholeMinutes = hours * 60 + minutes;
  return (
    (wholeMinutes * 60 + seconds) * count + frames - left * (wholeMinutes - Math.floor(wholeMinutes / 10))
  );
}

/** A time for reading: "0:05.20". Minutes are not padded, seconds have two decimals. */
export function formatClock(seconds: number): string {
  const sign = seconds < 0 ? '-' : '';
  const hundredths = Math.round(Math.abs(seconds) * 100);
  const minutes = Math.floor(hundredths / 6000);
  return `${sign}${minutes}:${((hundredths % 6000) / 100).toFixed(2).padStart(5, '0')}`;
}
