import * as z from 'zod/mini';
import { cutoutWays } from '../../footage/cutout';
import { framePoint, secondsOf } from '../../model/base';

export const mostPieces = 24;

export const freezeSchema = z.object({
  pieces: z.int().check(z.minimum(2), z.maximum(mostPieces)),
  /** degrees that the cuts between the pieces lean; unset is 0 */
  lean: z.optional(z.number().check(z.minimum(-60), z.maximum(60))),
  /** the outline of a piece in shares of the frame, by its number, where it was drawn; else it is cut level */
  cuts: z.optional(
    z.record(z.string(), z.nullable(z.array(framePoint).check(z.minLength(3), z.maxLength(200)))),
  ),
  /** degrees that a piece is turned by where it comes from */
  turn: z.number().check(z.minimum(0), z.maximum(360)),
  /** per cent of its size where it comes from; unset is 85 */
  size: z.optional(z.number().check(z.minimum(10), z.maximum(300))),
  /** delivery frames from where it comes from to its place; unset is 12, or as many as there are before the first lands */
  flight: z.optional(z.int().check(z.minimum(1), z.maximum(120))),
  from: z.optional(z.enum(['sides', 'above', 'below', 'place'])),
  /** delivery pixels by which the whole picture shakes as a piece lands; unset is 6 */
  shake: z.optional(z.number().check(z.minimum(0), z.maximum(100))),
  after: z.optional(z.enum(['stands', 'runs'])),
  /** seconds of the take in which the pose is held; unset is where the take begins */
  frozen: z.optional(z.nullable(secondsOf.check(z.nonnegative()))),
  /** how the pose is cut out where nobody drew its outline; without a clean plate it is found as a person */
  by: z.optional(z.enum(cutoutWays)),
  /** outline of the pose in shares of its file, as it was drawn; null cuts it out */
  outline: z.optional(z.nullable(z.array(framePoint).check(z.minLength(3), z.maxLength(200)))),
});
type FreezeSettings = z.infer<typeof freezeSchema>;

/** 85 % and 35°: CRAFT.md, starting values of the freeze piece. */
export const emptyFreeze = {
  pieces: 4,
  turn: 35,
  size: 85,
  from: 'sides',
  shake: 6,
  after: 'stands',
  by: 'plate',
} as const satisfies FreezeSettings;

/** Settings with everything that was never said as it is at first. */
export const wholeFreeze = (settings: FreezeSettings) => ({
  ...emptyFreeze,
  flight: null,
  frozen: null,
  outline: null,
  lean: 0,
  cuts: {},
  ...settings,
});

/** frames that a piece flies for where nobody says otherwise and there is room */
export const usualFlight = 12;
