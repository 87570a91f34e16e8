import { z } from 'zod';
import { rateSchema } from '../time/rate';
import { beatGridSchema } from '../time/grid';

/** Version of everything stored and exchanged. Raised with a migration. */
export const schemaVersion = 1;

const id = z.string().min(1);
const base = { id, project: id, created: z.number(), changed: z.number(), alive: z.boolean() };

export const projectSchema = z.object({
  ...base,
  kind: z.literal('project'),
  name: z.string(),
  width: z.number().int().min(16).max(8192),
  height: z.number().int().min(16).max(8192),
  rate: rateSchema,
  container: z.enum(['mp4', 'mov', 'webm']),
  megabits: z.number().min(0.5).max(200),
});

export const songSchema = z.object({
  ...base,
  kind: z.literal('song'),
  /** null for a ruler of seconds, while there is no song */
  media: id.nullable(),
  /** null until beats were found or set */
  grid: beatGridSchema.nullable(),
  /** how sure the search was, 0..1; null where the grid was set by hand */
  confidence: z.number().nullable(),
  /** beat positions between which beats stay when they are looked for again */
  locked: z.array(z.object({ from: z.number(), to: z.number() })).optional(),
  /** when the rest was last asked to be found again; null once it is done */
  again: z.number().nullable().optional(),
  /** hits weaker than this are not knotted into the ribbon, 0..1 */
  hitsAbove: z.number().min(0).max(1).optional(),
});

/** A part of the song, from a beat position until the next section. */
export const sectionSchema = z.object({
  ...base,
  kind: z.literal('section'),
  at: z.number(),
  name: z.string(),
  /** which of six dyes tints it */
  dye: z.number().int().min(0).max(5),
});

/** Sung or spoken words over some beats. */
export const cueSchema = z.object({
  ...base,
  kind: z.literal('cue'),
  at: z.number(),
  until: z.number(),
  text: z.string(),
});

export const roleSchema = z.enum(['plate', 'left', 'right', 'none']);
export type Role = z.infer<typeof roleSchema>;

export const takeSchema = z.object({
  ...base,
  kind: z.literal('take'),
  media: id,
  name: z.string(),
  role: roleSchema,
  /** fractional key: takes are listed in this order */
  order: z.number(),
  /** undo the camera's movement against the plate */
  steady: z.boolean(),
  /** bring light and colour to the plate's */
  match: z.boolean(),
});

const point = z.tuple([z.number(), z.number()]);
/** A tap on a performer: seconds in the take's own file, point in shares of the frame. */
const tap = z.object({ time: z.number(), at: point });

export const cloneSchema = z.object({
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

export const momentSchema = z.object({
  ...base,
  kind: z.literal('moment'),
  recipe: z.literal('clone'),
  name: z.string(),
  /** beat positions: begins, copy appears, ends */
  start: z.number(),
  lands: z.number(),
  end: z.number(),
  settings: cloneSchema,
});

export const recordSchema = z.discriminatedUnion('kind', [
  projectSchema,
  songSchema,
  sectionSchema,
  cueSchema,
  takeSchema,
  momentSchema,
]);

export type Project = z.infer<typeof projectSchema>;
export type Song = z.infer<typeof songSchema>;
export type Section = z.infer<typeof sectionSchema>;
export type Cue = z.infer<typeof cueSchema>;
export type Take = z.infer<typeof takeSchema>;
export type Moment = z.infer<typeof momentSchema>;
export type AnyRecord = z.infer<typeof recordSchema>;
export type RecordKind = AnyRecord['kind'];
export type RecordOf<Kind extends RecordKind> = Extract<AnyRecord, { kind: Kind }>;
