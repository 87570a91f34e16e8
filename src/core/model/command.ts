import * as z from 'zod/mini';

/** Milliseconds since 1970 at which a stamp was made. */
export const timeOfStamp = (stamp: string): number => parseInt(stamp.slice(0, 9), 36);

/** No clock is ever set so far ahead: a later stamp would leave no room for those that are still to come. */
const latest = Date.UTC(2200, 0);

/** Sorts after every stamp that may be. */
export const latestStamp = latest.toString(36).padStart(9, '0');

/** A stamp of the hybrid clock: time and count in base 36, then the device. Sorts as text. */
const stampSchema = z.string().check(
  z.regex(/^[0-9a-z]{9}:[0-9a-z]{4}:[0-9a-z]{1,12}$/, 'no stamp of this clock'),
  z.refine((stamp) => timeOfStamp(stamp) < latest, 'no time of any clock'),
);

/** Names that lead out of a record instead of into it. */
const leadsOut = /(^|\.)(__proto__|constructor|prototype)(\.|$)/;

/** One field that changed; dots lead inwards. Deletion is a change of `alive`; nothing is ever removed. */
export const fieldOpSchema = z.object({
  record: z.string().check(z.minLength(1), z.maxLength(200)),
  kind: z.string().check(z.minLength(1), z.maxLength(40)),
  field: z.string().check(
    z.minLength(1),
    z.maxLength(200),
    z.refine((field) => !leadsOut.test(field), 'no field of a record'),
  ),
  before: z.optional(z.unknown()),
  after: z.optional(z.unknown()),
});

/** What a person, or the bench by itself, did in one step. */
export const commandSchema = z.object({
  id: stampSchema,
  project: z.string().check(z.minLength(1)),
  label: z.string().check(z.maxLength(200)),
  ops: z.array(fieldOpSchema),
  /** done by the bench, not the person: undo passes over it */
  automatic: z.optional(z.boolean()),
  /** steps of one held key or turned wheel share it, and are taken back together */
  gesture: z.optional(z.string().check(z.maxLength(60))),
  /** the last step that this one takes back; with it go the others of its gesture */
  undoes: z.optional(z.string()),
  redoes: z.optional(z.string()),
});
