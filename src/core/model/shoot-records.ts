import * as z from 'zod';
import { base } from './base';

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

/** One take as the set saw it; its file may come later, or be recorded here. */
const logSchema = z.object({
  ...base,
  kind: z.literal('log'),
  setup: id,
  /** id of the planned shot, or `pickup/` and a pick-up's id */
  shot: id,
  /** number on the slate, from 1 */
  number: z.number().int().min(1).max(999),
  /** time of day at which it began: milliseconds since 1970, by this device's clock */
  started: z.number(),
  /** seconds by a clock that does not jump; null while it runs */
  length: z.number().nonnegative().nullable(),
  rating: z.enum(ratings).nullable(),
  tags: z.partialRecord(z.enum(logTags), z.boolean()),
  /** how it differed from the others: "closer", own words, or '' */
  variation: z.string().max(80),
  notes: z.string().max(4000),
  /** the take in the project that this became */
  take: id.nullable(),
  /** the song was played: seconds of the take at which a beat position of it sounded, and how fast */
  passage: z.object({ at: z.number(), from: z.number(), speed: z.number().positive() }).optional(),
  /** recorded here, with exposure, focus or white balance left to the camera */
  draft: z.boolean().optional(),
  /** what the live watch said, seconds of the take */
  seen: z.array(z.object({ at: z.number(), code: z.string(), value: z.number().nullable() })),
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
  moment: id.nullable(),
  title: z.string().min(1).max(200),
  /** what was found, in the words it was said with */
  why: z.string().max(2000),
});

/** A move that is repeated for each copy. */
const moveSchema = z.object({
  ...base,
  kind: z.literal('move'),
  setup: id,
  /** marks on the floor or the rail */
  from: z.string().max(80),
  to: z.string().max(80),
  seconds: z
    .number()
    .positive('give the seconds of the move, more than 0')
    .max(120, 'a move of at most 120 seconds'),
});

export const shootSchemas = [logSchema, strikeSchema, pickupSchema, moveSchema] as const;

export type Log = z.infer<typeof logSchema>;
export type Strike = z.infer<typeof strikeSchema>;
export type Pickup = z.infer<typeof pickupSchema>;
export type Move = z.infer<typeof moveSchema>;
