import { toLinear } from '../picture/colour';
import type { YuvImage } from '../picture/planes';

/** Relative luminance 0..1 of a picture, or of a part of it, at one time. */
export type Light = { time: number; light: number };

/** More flashes than this in any second are too many. @see WCAG 2.2, success criterion 2.3.1 */
export const mostFlashes = 3;

/**
 * The most flashes that any one second holds. A flash is a pair of opposing changes of relative luminance of at
 * least 0.1, where the darker one is under 0.8.
 * @param lights in the order of their times, seconds
 * @see WCAG 2.2, definition of general flash
 */
export function flashesPerSecond(lights: readonly Light[]): number {
  if (lights.length === 0) return 0;
  // Turning points: the light at which each rise or fall ends.
  const changes: { time: number; up: boolean }[] = [];
  let [low, high] = [lights[0], lights[0]];
  let direction = 0;
  for (const now of lights) {
    if (now.light > high.light) high = now;
    if (now.light < low.light) low = now;
    if (direction <= 0 && now.light - low.light >= 0.1 && low.light < 0.8) {
      changes.push({ time: now.time, up: true });
      [direction, high, low] = [1, now, now];
    } else if (direction >= 0 && high.light - now.light >= 0.1 && now.light < 0.8) {
      changes.push({ time: now.time, up: false });
      [direction, high, low] = [-1, now, now];
    }
    if (direction > 0 && now.light >= high.light) [high, low] = [now, now];
    if (direction < 0 && now.light <= low.light) [high, low] = [now, now];
  }
  let most = 0;
  for (let from = 0; from < changes.length; from++) {
    let to = from;
    while (to < changes.length && changes[to].time < changes[from].time + 1) to++;
    most = Math.max(most, Math.floor((to - from) / 2));
  }
  return most;
}

/** A picture is looked at in so many parts along each side. */
const side = 4;
/** so many parts of it are a quarter of the picture */
const quarter = (side * side) / 4;

/** Relative luminance of each part of a picture, 0..1, row after row; every fourth pixel of every fourth row counts. */
export function lightsOf({ width, height, y, fullRange }: YuvImage): number[] {
  const [black, range] = fullRange ? [0, 255] : [16, 219];
  const sums = new Float64Array(side * side);
  const counts = new Uint32Array(side * side);
  for (let row = 0; row < height; row += 4)
    for (let column = 0; column < width; column += 4) {
      const part = Math.floor((row * side) / height) * side + Math.floor((column * side) / width);
      const code = ((y[row * width + column] - black) / range) * 255;
      sums[part] += toLinear(Math.min(255, Math.max(0, code)));
      counts[part]++;
    }
  return Array.from(sums, (sum, part) => sum / Math.max(1, counts[part]));
}

/** The most flashes in any one second that at least a quarter of the picture shows. @see WCAG 2.2, general flash */
export function flashesOfFilm(pictures: readonly { time: number; lights: readonly number[] }[]): number {
  const parts = Array.from({ length: side * side }, (_, part) =>
    flashesPerSecond(pictures.map(({ time, lights }) => ({ time, light: lights[part] }))),
  );
  return parts.sort((a, b) => b - a)[quarter - 1];
}
