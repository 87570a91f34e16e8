import * as z from 'zod/mini';
import { framePoint } from '../../model/base';

export const coverSchema = z.object({
  objects: z.int().check(z.minimum(1), z.maximum(12)),
  /** delivery frames over which the patch goes */
  frames: z.int().check(z.minimum(1), z.maximum(120)),
  /** delivery pixels over which the patch's edge is soft; unset is 16 */
  soft: z.optional(z.number().check(z.minimum(0), z.maximum(400))),
  /** outline of the patch in shares of the frame, as it was drawn; null is where it lies at first */
  patch: z.optional(z.nullable(z.array(framePoint).check(z.minLength(3), z.maxLength(200)))),
});
type CoverSettings = z.infer<typeof coverSchema>;

export const emptyCover = {
  objects: 1,
  frames: 12,
  soft: 16,
  patch: null,
} as const satisfies CoverSettings;

/** Settings with everything that was never said as it is at first. */
export const wholeCover = (settings: CoverSettings) => ({ ...emptyCover, ...settings });
