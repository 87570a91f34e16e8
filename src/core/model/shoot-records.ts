import * as z from 'zod/mini';
import { base, beatPosition, secondsOf } from './base';

const { id } = base;

export const ratings = ['good', 'maybe', 'no'] as const;
export type Rating = (typeof ratings)[number];

/** What went wrong or is to be remembered, in one tap. */
export const logTags = [
  'bumped',
  'touched',
  'crossed the seam',
  'off the beat',
  'eye line',
  'light',
  'focus',
  'sound',
] as const;
export type LogTag = (typeof logTags)[number];

/** Letters of a variation's own words, and of a note. */
export const longestVariation = 80;
export const longestNote = 4000;

/** One take as the set saw it; its file may come later, or be recorded here. */
const logSchema = z.object({
  ...base,
  kind: z.literal('log'),
  setup: id,
  /** id of the planned shot, or `pickup/` and a pick-up's id */
  shot: id,
  /** number on the slate, from 1 */
  number: z.int().check(z.minimum(1), z.maximum(999)),
  /** time of day at which it began: milliseconds since 1970, by this device's clock */
  started: z.number(),
  /** seconds by a clock that does not jump; null while it runs */
  length: z.nullable(z.number().check(z.nonnegative(), z.maximum(1e6))),
  rating: z.nullable(z.enum(ratings)),
  tags: z.partialRecord(z.enum(logTags), z.boolean()),
  /** how it differed from the others: "closer", own words, or '' */
  variation: z.string().check(z.maxLength(longestVariation)),
  notes: z.string().check(z.maxLength(longestNote)),
  /** the take in the project that this became */
  take: z.nullable(id),
  /** the song was played: seconds of the take at which a beat position of it sounded, and how fast */
  passage: z.optional(
    z.object({ at: secondsOf, from: beatPosition, speed: z.number().check(z.minimum(0.01), z.maximum(100)) }),
  ),
  /** recorded here, with exposure, focus or white balance left to the camera */
  draft: z.optional(z.boolean()),
  /** what the live watch said, seconds of the take */
  seen: z.array(z.object({ at: z.number(), code: z.string(), value: z.nullable(z.number()) })),
});

/** A setup that was taken down. Its id is made from the setup's, so that two phones strike it once. */
const strikeSchema = z.object({
  ...base,
  kind: z.literal('strike'),
  setup: id,
  at: z.number(),
  /** shots that were given up for it */
  given: z.array(z.string()),
});

/** A shot that was found missing on the set. */
const pickupSchema = z.object({
  ...base,
  kind: z.literal('pickup'),
  setup: id,
  /** the planned shot that it mends */
  shot: z.string(),
  moment: z.nullable(id),
  title: z.string().check(z.minLength(1), z.maxLength(200)),
  /** what was found, in the words it was said with */
  why: z.string().check(z.maxLength(2000)),
});

/** A move that is repeated for each copy. */
const moveSchema = z.object({
  ...base,
  kind: z.literal('move'),
  setup: id,
  /** marks on the floor or the rail */
  from: z.string().check(z.maxLength(80)),
  to: z.string().check(z.maxLength(80)),
  seconds: z
    .number()
    .check(
      z.positive('give the seconds of the move, more than 0'),
      z.maximum(120, 'a move of at most 120 seconds'),
    ),
});

export const shootSchemas = [logSchema, strikeSchema, pickupSchema, moveSchema] as const;

export type Log = z.infer<typeof logSchema>;
export type Strike = z.infer<typeof strikeSchema>;
export type Pickup = z.infer<typeof pickupSchema>;
export type Move = z.infer<typeof moveSchema>;
