import * as z from 'zod/mini';

/** The sounds that come with the bench. */
export const soundNames = ['whoosh', 'thump', 'click', 'riser', 'cloth'] as const;
export type SoundName = (typeof soundNames)[number];

/** What of a sound lies on the frame of an event. */
export const soundPoints = ['start', 'loudest', 'end'] as const;
export type SoundPoint = (typeof soundPoints)[number];

/** What usually sounds where something happens. */
export type UsualSound = { sound: SoundName; by: SoundPoint };

/** The sound of one instant of a moment, as far as somebody said it. */
export const soundSchema = z.object({
  /** one that comes with the bench, or the record of a file of one's own; unset or null is silence */
  sound: z.optional(z.nullable(z.string())),
  by: z.optional(z.enum(soundPoints)),
  /** milliseconds by which it leads the frame */
  lead: z.optional(z.number().check(z.minimum(0), z.maximum(5000))),
  /** decibels */
  level: z.optional(z.number().check(z.minimum(-60), z.maximum(12))),
  /** milliseconds over which it swells and dies away */
  swell: z.optional(z.number().check(z.minimum(0), z.maximum(10_000))),
  fade: z.optional(z.number().check(z.minimum(0), z.maximum(10_000))),
  backwards: z.optional(z.boolean()),
});
export type SoundSettings = z.infer<typeof soundSchema>;

/** A sound with everything that was never said as it is at first. Levels: common practice, no published source. */
export const wholeSound = (settings: SoundSettings, usual: UsualSound | null) => ({
  lead: 0,
  level: -6,
  swell: 0,
  fade: 0,
  backwards: false,
  ...settings,
  sound: settings.sound ?? null,
  by: settings.by ?? usual?.by ?? ('loudest' as SoundPoint),
});
export type WholeSound = ReturnType<typeof wholeSound>;
