import { z } from 'zod';

const id = z.string().min(1);
const point = z.tuple([z.number(), z.number()]);
/** A tap on a performer: seconds in the take's own file, point in shares of the frame. */
const tap = z.object({ time: z.number(), at: point });

export const cloneSchema = z.object({
  /** what happens between them, for the plan; unset is a mere meeting */
  way: z.enum(['meet', 'contact', 'shared', 'mirror']).optional(),
  plate: id.nullable(),
  left: id.nullable(),
  right: id.nullable(),
  /** who is in the picture from the start; the other one appears */
  first: z.enum(['left', 'right']),
  /** seconds of each take at the frame on which it first shows */
  leftIn: z.number().nonnegative(),
  rightIn: z.number().nonnegative(),
  leftTap: tap.nullable(),
  rightTap: tap.nullable(),
  /** frames over which the copy appears; 0 is at once */
  fade: z.number().int().min(0).max(240),
  /** width of the soft edge in delivery pixels */
  feather: z.number().min(0).max(400),
  /** outline of where the right take shows, in shares of the frame, where it was set by hand */
  seam: z.array(point).min(3).nullable(),
});
export type CloneSettings = z.infer<typeof cloneSchema>;

/** A clone before anything is chosen. */
export const emptyClone: CloneSettings = {
  plate: null,
  left: null,
  right: null,
  first: 'left',
  leftIn: 0,
  rightIn: 0,
  leftTap: null,
  rightTap: null,
  fade: 0,
  feather: 12,
  seam: null,
};
