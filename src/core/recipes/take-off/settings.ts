import * as z from 'zod/mini';
import { secondsOf } from '../../model/base';
import { mendSchema, mostMends } from '../../model/mend';

const seconds = z.optional(z.nullable(secondsOf.check(z.nonnegative())));

export const leapSchema = z.object({
  way: z.enum(['take-off', 'landing', 'both', 'raised']),
  /** per cent of the frame's height by which a raised jump is higher than it was; unset is 15 */
  raise: z.optional(z.number().check(z.minimum(1), z.maximum(100))),
  /** frames that the streak takes on its way out of the frame, or into it; unset is 2 */
  streak: z.optional(z.int().check(z.minimum(1), z.maximum(8))),
  /** delivery frames of the push-off, and of the landing before the floor; unset is 4 */
  push: z.optional(z.int().check(z.minimum(0), z.maximum(60))),
  /** per cent of the speed as filmed over those frames; unset is 200 */
  fast: z.optional(z.number().check(z.minimum(25), z.maximum(800))),
  /** delivery pixels by which the whole picture shakes; unset is 10 */
  shake: z.optional(z.number().check(z.minimum(0), z.maximum(100))),
  /** seconds of the take of the jump: its last picture in the air; unset is what was measured */
  left: seconds,
  /** seconds of the take of the landing in which the feet meet the floor; unset is what was measured */
  met: seconds,
  /** strokes that put right who is cut out of the pictures of a raised jump */
  mends: z.optional(z.array(mendSchema).check(z.maxLength(mostMends))),
});
type LeapSettings = z.infer<typeof leapSchema>;

/** Two frames of streak, the push-off before it at 200 %: CRAFT.md, starting values of the take-off streak. */
export const emptyLeap = {
  way: 'both',
  streak: 2,
  push: 4,
  fast: 200,
  shake: 10,
  raise: 15,
} as const satisfies LeapSettings;

/** Settings with everything that was never said as it is at first. */
export const wholeLeap = (settings: LeapSettings) => ({
  ...emptyLeap,
  left: null,
  met: null,
  mends: [],
  ...settings,
});
