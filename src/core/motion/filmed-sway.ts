import type { Placement } from '../geometry/placement';
import type { Size } from '../geometry/size';

/**
 * The sway of a camera that was held in a hand, at even instants: sideways and down in shares of its own strength,
 * turned in degrees for one per cent of the width.
 */
export type FilmedSway = { every: number; x: number[]; y: number[]; turn: number[] };
type Filmed = { every: number; x: readonly number[]; y: readonly number[]; turn: readonly number[] };

/** seconds between two instants, and as many of them as are kept */
const [every, most] = [1 / 12, 144];
/** seconds over which the mean is taken off: slower movement is the path, not the hand */
const path = 2;
/** instants at both ends over which it fades, so that it can begin again without a jump */
const fade = 6;
/** per cent of the width that a hand sways by at least */
const least = 0.02;

/** The value at a time between two pictures. */
function sampled(values: readonly number[], times: ArrayLike<number>, at: number): number {
  let index = 0;
  while (index + 2 < values.length && times[index + 1] <= at) index++;
  if (values.length < 2) return values[0] ?? 0;
  const share = Math.min(1, Math.max(0, (at - times[index]) / (times[index + 1] - times[index])));
  return values[index] + (values[index + 1] - values[index]) * share;
}

/** What is left of values when the mean round each of them is taken off, fading at both ends. */
function swaying(values: readonly number[]): number[] {
  const last = values.length - 1;
  return values.map((value, index) => {
    // As far on one side as on the other, so that an even walk leaves nothing.
    const reach = Math.min(Math.round(path / every / 2), index, last - index);
    const round = values.slice(index - reach, index + reach + 1);
    const mean = round.reduce((sum, one) => sum + one, 0) / round.length;
    return (value - mean) * Math.min(1, index / fade, (last - index) / fade);
  });
}

/**
 * The sway of a hand out of how a take's camera stood, and its strength in per cent of the width.
 * @param placements each picture against the first, in pixels of `size`
 * @param times seconds at which each picture begins to show
 * @returns null where the camera stood, or the take is too short to say
 */
export function filmedSway(
  placements: readonly Placement[],
  times: ArrayLike<number>,
  { width }: Size,
): { sway: FilmedSway; strength: number } | null {
  const length = Math.min(most, Math.floor((times[placements.length - 1] - times[0]) / every) + 1);
  if (!(length > 3 * fade)) return null;
  const of = (key: 'dx' | 'dy' | 'rotation', scale: number) => {
    const values = placements.map((placement) => placement[key] * scale);
    return swaying(Array.from({ length }, (_, index) => sampled(values, times, times[0] + index * every)));
  };
  const [x, y, turn] = [of('dx', 100 / width), of('dy', 100 / width), of('rotation', 1)];
  const strength = Math.sqrt(
    x.reduce((sum, value, index) => sum + value ** 2 + y[index] ** 2, 0) / (2 * length),
  );
  if (strength < least) return null;
  const shares = (values: number[]) => values.map((value) => Math.round((value / strength) * 1000) / 1000);
  return { sway: { every, x: shares(x), y: shares(y), turn: shares(turn) }, strength };
}

/** A filmed sway at an instant, again and again: in shares of its strength, and degrees for one per cent of the width. */
export function swayAt({ every: step, x, y, turn }: Filmed, seconds: number) {
  const place = (seconds / step) % Math.max(1, x.length - 1);
  const at = place < 0 ? place + x.length - 1 : place;
  const index = Math.floor(at);
  const mix = (values: readonly number[]) => {
    const [one, other] = [values[index] ?? 0, values[index + 1] ?? 0];
    return one + (other - one) * (at - index);
  };
  return { x: mix(x), y: mix(y), turn: mix(turn) };
}
