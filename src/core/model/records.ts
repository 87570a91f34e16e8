import * as z from 'zod';
import { base } from './base';
import { rateSchema } from '../time/rate';
import { beatGridSchema } from '../time/grid';
import { films, momentKinds, type MomentKind } from '../recipes/films';
import { planSchemas } from './plan-records';
import { shootSchemas } from './shoot-records';
import { slotsSchema } from './slots';

const { id } = base;

const projectSchema = z.object({
  ...base,
  kind: z.literal('project'),
  name: z.string(),
  width: z.number().int().min(16).max(8192),
  height: z.number().int().min(16).max(8192),
  rate: rateSchema,
  container: z.enum(['mp4', 'mov', 'webm']),
  megabits: z.number().min(0.5).max(200),
  /** how lengths are shown; unset is metric */
  units: z.enum(['metric', 'imperial']).optional(),
  /** more kinds of effect than this make the film look like a catalogue; unset is 5 */
  kinds: z.number().int().min(1).max(20).optional(),
  /** an upright film is cut out of the picture */
  upright: z.boolean().optional(),
});

const songSchema = z.object({
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
const sectionSchema = z.object({
  ...base,
  kind: z.literal('section'),
  at: z.number(),
  name: z.string(),
  /** which of six dyes tints it */
  dye: z.number().int().min(0).max(5),
});

/** Sung or spoken words over some beats. */
const cueSchema = z.object({
  ...base,
  kind: z.literal('cue'),
  at: z.number(),
  until: z.number(),
  text: z.string(),
});

const takeSchema = z.object({
  ...base,
  kind: z.literal('take'),
  media: id,
  name: z.string(),
  /** the slot that it was filmed for, in whatever moment; null while nobody knows, `none` where it is kept out */
  slot: z.string().min(1).nullable(),
  /** fractional key: takes are listed in this order */
  order: z.number(),
  /** undo the camera's movement against the plate */
  steady: z.boolean(),
  /** bring light and colour to the plate's */
  match: z.boolean(),
  /** how the colours of a file that does not say so are read; left out, as its size suggests */
  matrix: z.enum(['bt709', 'bt601']).optional(),
});

/** What every moment has, whatever its kind. */
const momentFields = {
  ...base,
  kind: z.literal('moment'),
  name: z.string(),
  /** beat positions: begins, the effect strikes, ends */
  start: z.number(),
  lands: z.number(),
  end: z.number(),
  /** further beat positions, by the names that its kind gives them */
  pins: z.record(z.string(), z.number()).optional(),
  /** what it adds to the story, in the person's words */
  story: z.string().optional(),
  /** true once the person was asked for the story */
  asked: z.boolean().optional(),
  /** where it is filmed, and where its second part is filmed */
  setup: id.nullable().optional(),
  second: id.nullable().optional(),
  /** which take fills which slot, from which instant */
  slots: slotsSchema.optional(),
};
const momentOf = (recipe: MomentKind) =>
  z.object({ ...momentFields, recipe: z.literal(recipe), settings: films[recipe].settings as z.ZodType });
const [firstKind, ...otherKinds] = momentKinds;
export const momentSchema = z.discriminatedUnion('recipe', [
  momentOf(firstKind),
  ...otherKinds.map(momentOf),
]);

export type MomentOf<Kind extends MomentKind> = z.infer<z.ZodObject<typeof momentFields>> & {
  recipe: Kind;
  settings: z.infer<(typeof films)[Kind]['settings']>;
};
export type Moment = { [Kind in MomentKind]: MomentOf<Kind> }[MomentKind];

export const recordSchema = z.discriminatedUnion('kind', [
  projectSchema,
  songSchema,
  sectionSchema,
  cueSchema,
  takeSchema,
  momentSchema,
  ...planSchemas,
  ...shootSchemas,
]);

export type Project = z.infer<typeof projectSchema>;
export type Song = z.infer<typeof songSchema>;
export type Section = z.infer<typeof sectionSchema>;
export type Cue = z.infer<typeof cueSchema>;
export type Take = z.infer<typeof takeSchema>;
export type AnyRecord = Exclude<z.infer<typeof recordSchema>, { kind: 'moment' }> | Moment;
export type RecordKind = AnyRecord['kind'];
export type RecordOf<Kind extends RecordKind> = Extract<AnyRecord, { kind: Kind }>;
