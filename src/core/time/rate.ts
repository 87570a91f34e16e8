import * as z from 'zod/mini';

/** A frame rate as an exact fraction: 24000/1001 is `{ num: 24000, den: 1001 }`. */
export const rateSchema = z.object({
  num: z.int().check(z.positive(), z.maximum(1e6)),
  den: z.int().check(z.positive(), z.maximum(1e6)),
});
export type Rate = z.infer<typeof rateSchema>;

/** The rates that films and videos are delivered at. */
export const deliveryRates: readonly Rate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
];

/** Frames a second as a plain number. */
export const perSecond = (rate: Rate): number => rate.num / rate.den;

/** The whole number of frames that timecode counts in a second: 24 for 24000/1001. */
export const nominalRate = (rate: Rate): number => Math.round(perSecond(rate));

/** The frame nearest to a time in seconds. Always from absolute time, so that nothing adds up. */
export const frameOfTime = (rate: Rate, seconds: number): number =>
  Math.round((seconds * rate.num) / rate.den);

/** The frame that is showing at a time in seconds: the last one that has begun. */
export const frameShownAt = (rate: Rate, seconds: number): number =>
  Math.floor((seconds * rate.num) / rate.den + 1e-6);

/** The time in seconds at which a frame begins. */
export const timeOfFrame = (rate: Rate, frame: number): number => (frame * rate.den) / rate.num;

/** True where both fractions are the same rate. */
export const sameRate = (a: Rate, b: Rate): boolean => a.num * b.den === b.num * a.den;

/** The delivery rate that lies nearest to a measured number of frames a second. */
export function nearestRate(framesPerSecond: number): Rate {
  const distance = (rate: Rate) => Math.abs(perSecond(rate) - framesPerSecond);
  return deliveryRates.reduce((best, rate) => (distance(rate) < distance(best) ? rate : best));
}

/** A rate as people write it: "23.976", "25". */
export const rateLabel = (rate: Rate): string =>
  rate.num % rate.den === 0 ? String(rate.num / rate.den) : perSecond(rate).toFixed(3);
