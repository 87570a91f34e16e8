import * as z from 'zod/mini';
import { framePoint, secondsOf } from './base';

/** as many strokes as put one cut-out right at most, and as many points as one has */
export const [mostMends, mostMendPoints] = [400, 60];

/** A stroke that says what belongs to somebody who was cut out. Shares of the take's picture. */
export const mendSchema = z.object({
  /** of the take: which picture it was drawn on */
  seconds: secondsOf,
  /** whether what is under it belongs to them, or does not */
  keep: z.boolean(),
  points: z.array(framePoint).check(z.minLength(1), z.maxLength(mostMendPoints)),
  /** its width, in shares of the picture's width */
  wide: z.number().check(z.minimum(0.0005), z.maximum(1)),
});
export type Mend = z.infer<typeof mendSchema>;
