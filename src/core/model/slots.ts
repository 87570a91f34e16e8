import * as z from 'zod';

const id = z.string().min(1);

/** A tap on a performer: seconds in the take's own file, point in shares of the frame. */
const tapSchema = z.object({
  time: z.number(),
  at: z.tuple([z.number(), z.number()]),
  /** the take that was tapped; left out by those of the first versions */
  take: id.optional(),
});
export type Tap = z.infer<typeof tapSchema>;

/**
 * What fills a slot of a moment. A slot is the key of a shot that its kind asks for in `film`; each field is
 * written by itself, and a take may fill slots of several moments.
 */
const fillSchema = z.object({
  take: id.nullable().optional(),
  /** seconds of the take at the frame on which it first shows */
  at: z.number().nonnegative().optional(),
  /** the performers that are kept; none where the bench finds one */
  taps: z.array(tapSchema).optional(),
});
export type Fill = Required<z.infer<typeof fillSchema>>;

/** Fills by slot. */
export const slotsSchema = z.record(z.string(), fillSchema);
export type Slots = z.infer<typeof slotsSchema>;

/** The slot of clean plates, whatever the kind: one plate serves all moments of its setup. */
export const plateSlot = 'plate';

/** The slot of a take that a person keeps out of every moment. */
export const noSlot = 'none';

const empty: Fill = { take: null, at: 0, taps: [] };

/** What fills a slot; nothing, from the take's beginning, where nobody said. */
export const fillOf = ({ slots }: { slots?: Slots }, slot: string): Fill => ({ ...empty, ...slots?.[slot] });

/** Taps on the take that fills a slot now; those on another take wait until it is back. */
export const tapsOf = ({ take, taps }: Fill): Tap[] => taps.filter((tap) => !tap.take || tap.take === take);
