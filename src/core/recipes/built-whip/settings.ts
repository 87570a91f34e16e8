import * as z from 'zod';

export const whipSchema = z.object({
  /** where the picture flies to */
  direction: z.enum(['left', 'right', 'up', 'down']),
  /** delivery frames from the first movement to the last */
  frames: z.number().int().min(4).max(60),
  /** what is seen where the picture has left; unset is mirrored */
  edges: z.enum(['mirrored', 'scaled']).optional(),
  /** degrees of a frame for which the shutter is open; unset is 180 */
  blur: z.number().min(0).max(360).optional(),
});
type WhipSettings = z.infer<typeof whipSchema>;

/** 20 frames, cut in the middle, mirrored edges, blur along the travel: common practice, no published source. */
export const emptyWhip = {
  direction: 'right',
  frames: 20,
  edges: 'mirrored',
  blur: 180,
} as const satisfies WhipSettings;

/** Settings with everything that was never said as it is at first. */
export const whole = (settings: WhipSettings): Required<WhipSettings> => ({ ...emptyWhip, ...settings });
