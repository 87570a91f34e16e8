import * as z from 'zod/mini';

const share = z.number().check(z.minimum(0), z.maximum(100));

export const revealSchema = z.object({
  edge: z.enum(['line', 'circle', 'falling']),
  /** delivery frames from the first change to the last */
  frames: z.int().check(z.minimum(1), z.maximum(240)),
  /** where the edge of a line moves to: degrees, 0 to the right, 90 downwards; unset is 90 */
  angle: z.optional(z.number().check(z.minimum(0), z.maximum(360))),
  /** delivery pixels over which the edge is soft; unset is 24 */
  soft: z.optional(z.number().check(z.minimum(0), z.maximum(400))),
  /** the middle of a circle, per cent of the frame; unset is its middle */
  across: z.optional(share),
  down: z.optional(share),
});
type RevealSettings = z.infer<typeof revealSchema>;

export const emptyReveal = {
  edge: 'line',
  frames: 24,
  angle: 90,
  soft: 24,
  across: 50,
  down: 50,
} as const satisfies RevealSettings;

/** Settings with everything that was never said as it is at first. */
export const wholeReveal = (settings: RevealSettings) => ({ ...emptyReveal, ...settings });
