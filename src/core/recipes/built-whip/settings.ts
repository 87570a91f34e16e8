import * as z from 'zod/mini';

export const whipSchema = z.object({
  /** where the picture flies to */
  direction: z.enum(['left', 'right', 'up', 'down']),
  /** delivery frames from the first movement to the last */
  frames: z.int().check(z.minimum(4), z.maximum(60)),
  /** what is seen where the picture has left; unset is mirrored */
  edges: z.optional(z.enum(['mirrored', 'scaled'])),
  /** degrees of a frame for which the shutter is open; unset is 180 */
  blur: z.optional(z.number().check(z.minimum(0), z.maximum(360))),
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
