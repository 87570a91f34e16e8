import * as z from 'zod/mini';
import { framePoint } from '../../model/base';

export const cloneSchema = z.object({
  /** what happens between them, for the plan; unset is a mere meeting */
  way: z.optional(z.enum(['meet', 'contact', 'shared', 'mirror'])),
  /** who is in the picture from the start; the other one appears */
  first: z.enum(['left', 'right']),
  /** how many of them stand in the picture in the end; unset is 2 */
  copies: z.optional(z.int().check(z.minimum(2), z.maximum(6))),
  /** who is in front where they stand in one place: the copy, which is so where nothing is said, or who was there first */
  front: z.optional(z.enum(['copy', 'first'])),
  /** what becomes of the shadows that they throw on the set; kept where nothing is said */
  shadows: z.optional(z.enum(['kept', 'hidden'])),
  /** frames over which the copy appears; 0 is at once */
  fade: z.int().check(z.minimum(0), z.maximum(240)),
  /** width of the soft edge in delivery pixels */
  feather: z.number().check(z.minimum(0), z.maximum(400)),
  /** outline of where the right take shows, in shares of the frame, where it was set by hand */
  seam: z.nullable(z.array(framePoint).check(z.minLength(3))),
  /** the same of where each further copy shows, by its slot */
  seams: z.optional(z.record(z.string(), z.nullable(z.array(framePoint).check(z.minLength(3))))),
});
export type CloneSettings = z.infer<typeof cloneSchema>;

/** A clone before anything is chosen. */
export const emptyClone: CloneSettings = { first: 'left', copies: 2, fade: 0, feather: 12, seam: null };
