import * as z from 'zod/mini';
import { secondsOf } from '../../model/base';

/** as many poses as one ramp has at most */
export const mostPoses = 12;

export const rampSchema = z.object({
  /** speed on poses, per cent of what was filmed */
  slow: z.number().check(z.minimum(5), z.maximum(100)),
  /** the fastest that the take may run between them, per cent */
  fast: z.number().check(z.minimum(100), z.maximum(1000)),
  poses: z.int().check(z.minimum(1), z.maximum(mostPoses)),
  /** per cent of the way from pose to pose over which the speed changes; unset is 50 */
  ease: z.optional(z.number().check(z.minimum(0), z.maximum(100))),
  /** per cent by which it is enlarged on every other pose, the first one included; unset is 0 */
  zoom: z.optional(z.number().check(z.minimum(0), z.maximum(200))),
  /** what shows where the take has too few pictures; unset repeats them */
  lacking: z.optional(z.enum(['repeats', 'blends', 'moves'])),
  /** seconds of the take at each pose, by its number; one that is unset shows when it was filmed at */
  instants: z.optional(z.record(z.string(), z.nullable(secondsOf.check(z.nonnegative())))),
});
type RampSettings = z.infer<typeof rampSchema>;

/** 40 % on poses, faster on moves: CRAFT.md, starting values. */
export const emptyRamp = {
  slow: 40,
  fast: 300,
  poses: 2,
  ease: 50,
  zoom: 0,
  lacking: 'repeats',
} as const satisfies RampSettings;

/** Settings with everything that was never said as it is at first. */
export const wholeRamp = (settings: RampSettings) => ({ ...emptyRamp, instants: {}, ...settings });
