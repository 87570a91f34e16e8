import { perSecond, type Rate } from '../time/rate';

/** Capture rates that cameras and phones offer. */
export const captureRates: readonly Rate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 48, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
  { num: 100, den: 1 },
  { num: 120000, den: 1001 },
  { num: 120, den: 1 },
  { num: 240, den: 1 },
];

/** Slowest speed at which every delivered picture still has one of its own: delivery / capture. */
export const slowestSpeed = (capture: Rate, delivery: Rate): number =>
  perSecond(delivery) / perSecond(capture);

/**
 * How fast the song plays on the set so that lips fit where the picture runs at a speed: as much faster as it is slowed.
 * How many pictures a second were filmed is nothing to it. 1 where it is not slowed.
 */
export const playbackSpeed = (speed: number): number => 1 / Math.min(1, speed);

/**
 * The lowest capture rate that gives every delivered picture one of its own at a speed; of equals the one that
 * divides evenly. Null where no camera is that fast.
 */
export function captureRateFor(delivery: Rate, speed: number): Rate | null {
  const needed = perSecond(delivery) / Math.min(1, speed);
  const enough = captureRates.filter((rate) => perSecond(rate) >= needed - 1e-6);
  const whole = (rate: Rate) =>
    Math.abs(perSecond(rate) / perSecond(delivery) - Math.round(perSecond(rate) / perSecond(delivery)));
  const even = enough.filter((rate) => whole(rate) < 1e-6 && perSecond(rate) < needed * 1.35);
  return even[0] ?? enough[0] ?? null;
}

/** Pixels that something moving smears over during one exposure. */
export const blurLength = (pixelsPerSecond: number, seconds: number): number =>
  Math.abs(pixelsPerSecond) * seconds;

/**
 * Seconds that an object should take across the frame so that a pan does not judder.
 * American Cinematographer Manual, panning tables (from memory): about 7 s at 24 frames a second and 180°.
 */
export const calmPan = (capture: Rate): number => (7 * 24) / perSecond(capture);
