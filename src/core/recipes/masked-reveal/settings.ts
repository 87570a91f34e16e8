import * as z from 'zod/mini';
import { framePoint, secondsOf } from '../../model/base';

const share = z.number().check(z.minimum(0), z.maximum(100));

export const revealSchema = z.object({
  edge: z.enum(['line', 'circle', 'falling', 'drawn']),
  /** delivery frames from the first change to the last */
  frames: z.int().check(z.minimum(1), z.maximum(240)),
  /** where the edge of a line moves to: degrees, 0 to the right, 90 downwards; unset is 90 */
  angle: z.optional(z.number().check(z.minimum(0), z.maximum(360))),
  /** seconds of each take at which what falls begins to fall, by its slot; where that is marked it falls on the beat */
  falls: z.optional(z.record(z.string(), z.nullable(secondsOf.check(z.nonnegative())))),
  /** per cent of the speed as filmed while it changes; unset is 100 */
  fast: z.optional(z.number().check(z.minimum(50), z.maximum(400))),
  /** per cent by which the picture is closer once it has changed; unset is 0 */
  closer: z.optional(z.number().check(z.minimum(0), z.maximum(200))),
  /** delivery pixels over which the edge is soft; unset is 24 */
  soft: z.optional(z.number().check(z.minimum(0), z.maximum(400))),
  /** the middle of a circle, per cent of the frame; unset is its middle */
  across: z.optional(share),
  down: z.optional(share),
  /** where a drawn edge lies, frame by frame after the change began; unset is a circle that grows */
  shape: z.optional(
    z.nullable(
      z
        .array(
          z.object({
            after: z.int().check(z.minimum(0), z.maximum(2000)),
            ring: z.array(framePoint).check(z.minLength(3), z.maxLength(200)),
          }),
        )
        .check(z.minLength(1), z.maxLength(500)),
    ),
  ),
  /** the take that carries a drawn edge with what lies under it, by its slot; unset is nothing */
  follows: z.optional(z.enum(['nothing', 'before', 'after'])),
});
type RevealSettings = z.infer<typeof revealSchema>;

export const emptyReveal = {
  edge: 'line',
  frames: 24,
  angle: 90,
  soft: 24,
  across: 50,
  down: 50,
  fast: 100,
  closer: 0,
  shape: null,
  follows: 'nothing',
} as const satisfies RevealSettings;

/** Settings with everything that was never said as it is at first. */
export const wholeReveal = (settings: RevealSettings) => ({ ...emptyReveal, falls: {}, ...settings });
