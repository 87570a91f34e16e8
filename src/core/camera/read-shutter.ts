import { readAfterSlash, readNumber } from '../read-number';

/**
 * Reads a shutter as people write it: "1/50", "50", "1/50 s", "0.02 s", "0.5", "180°".
 * @param rate pictures a second that the camera takes, of which an angle is a share
 * @returns which part of a second it is open: 50 for a fiftieth; null where nothing like that is said
 */
export function readShutter(text: string, rate: number): number | null {
  const positive = (value: number | null) =>
    value !== null && value > 0 && Number.isFinite(value) ? value : null;
  const written = positive(readNumber(text));
  if (written === null) return null;
  if (/°|deg/i.test(text)) return written <= 360 ? (360 * rate) / written : null;
  if (text.includes('/')) {
    const part = positive(readAfterSlash(text));
    return part === null ? null : part / written;
  }
  const isSeconds = written < 1 || /\d\s*(s|sec|seconds?|″|")\s*$/i.test(text);
  return isSeconds ? 1 / written : written;
}

/** Reads an aperture: "f/2.8", "2.8", "f 4". Null where nothing like that is said. */
export function readAperture(text: string): number | null {
  const value = readAfterSlash(text);
  return value !== null && value > 0 ? value : null;
}
