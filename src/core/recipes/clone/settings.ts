import * as z from 'zod';

const point = z.tuple([z.number(), z.number()]);

export const cloneSchema = z.object({
  /** what happens between them, for the plan; unset is a mere meeting */
  way: z.enum(['meet', 'contact', 'shared', 'mirror']).optional(),
  /** who is in the picture from the start; the other one appears */
  first: z.enum(['left', 'right']),
  /** frames over which the copy appears; 0 is at once */
  fade: z.number().int().min(0).max(240),
  /** width of the soft edge in delivery pixels */
  feather: z.number().min(0).max(400),
  /** outline of where the right take shows, in shares of the frame, where it was set by hand */
  seam: z.array(point).min(3).nullable(),
});
type CloneSettings = z.infer<typeof cloneSchema>;

/** A clone before anything is chosen. */
export const emptyClone: CloneSettings = { first: 'left', fade: 0, feather: 12, seam: null };
