import * as z from 'zod/mini';
import { cutoutWays } from '../../footage/cutout';
import { mendSchema, mostMends } from '../../model/mend';

export const ghostSchema = z.object({
  copies: z.int().check(z.minimum(2), z.maximum(40)),
  /** delivery frames from one copy to the next */
  apart: z.int().check(z.minimum(1), z.maximum(30)),
  /** per cent of its opacity that the first copy has, the others ever less; unset is 80 */
  first: z.optional(z.number().check(z.minimum(1), z.maximum(100))),
  /** how the performer is cut out; without a clean plate they are found as a person */
  by: z.optional(z.enum(cutoutWays)),
  /** strokes that put the cut-outs right; unset is none */
  mends: z.optional(z.array(mendSchema).check(z.maxLength(mostMends))),
});
type GhostSettings = z.infer<typeof ghostSchema>;

/** 15 copies, one frame apart, the first at 80 %: CRAFT.md, starting values of the ghost trail. */
export const emptyGhost = {
  copies: 15,
  apart: 1,
  first: 80,
  by: 'plate',
} as const satisfies GhostSettings;

/** Settings with everything that was never said as it is at first. */
export const wholeGhost = (settings: GhostSettings) => ({ ...emptyGhost, mends: [], ...settings });
