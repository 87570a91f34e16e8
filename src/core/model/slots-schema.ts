import * as z from 'zod/mini';
import { framePoint, secondsOf } from './base';

const id = z.string().check(z.minLength(1));

/** A tap on a performer: seconds in the take's own file, point in shares of the frame. */
const tapSchema = z.object({
  time: secondsOf,
  at: framePoint,
  /** the take that was tapped; left out by those of the first versions */
  take: z.optional(id),
});
export type Tap = z.infer<typeof tapSchema>;

/**
 * What fills a slot of a moment. A slot is the key of a shot that its kind asks for in `film`; each field is
 * written by itself, and a take may fill slots of several moments.
 */
const fillSchema = z.object({
  take: z.optional(z.nullable(id)),
  /** seconds of the take at the frame on which it first shows */
  at: z.optional(secondsOf.check(z.nonnegative())),
  /** the performers that are kept; none where the bench finds one */
  taps: z.optional(z.array(tapSchema)),
});
export type Fill = Required<z.infer<typeof fillSchema>>;

/** Fills by slot. */
export const slotsSchema = z.record(z.string(), fillSchema);
export type Slots = z.infer<typeof slotsSchema>;
