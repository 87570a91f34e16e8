import * as z from 'zod/mini';
import { base, beatPosition, longText, nameText } from './base';
import { hiddenSchema } from './hidden';
import { keptSchema } from '../keep/schema';
import { rateSchema } from '../time/rate';
import { beatGridSchema } from '../time/grid';
import { handheldSchema, handKeysSchema } from '../hand/schema';
import { lookSchema } from '../look/schema';
import { films, momentKinds, type MomentKind } from '../recipes/films';
import { planSchemas } from './plan-records';
import { shootSchemas } from './shoot-records';
import { slotsSchema } from './slots-schema';
import { soundSchema } from '../sounds/sound';

const { id } = base;

const projectSchema = z.object({
  ...base,
  kind: z.literal('project'),
  name: nameText,
  width: z.int().check(z.minimum(16), z.maximum(8192)),
  height: z.int().check(z.minimum(16), z.maximum(8192)),
  rate: rateSchema,
  container: z.enum(['mp4', 'mov', 'webm']),
  megabits: z.number().check(z.minimum(0.5), z.maximum(200)),
  /** how lengths are shown; unset is metric */
  units: z.optional(z.enum(['metric', 'imperial'])),
  /** more kinds of effect than this make the film look like a catalogue; unset is 5 */
  kinds: z.optional(z.int().check(z.minimum(1), z.maximum(20))),
  /** how much each part of a pair's score counts; unset is as usual */
  pairWeights: z.optional(z.record(z.string(), z.number().check(z.minimum(0), z.maximum(9)))),
  /** an upright film is cut out of the picture */
  upright: z.optional(z.boolean()),
});

const songSchema = z.object({
  ...base,
  kind: z.literal('song'),
  /** null for a ruler of seconds, while there is no song */
  media: z.nullable(id),
  /** null until beats were found or set */
  grid: z.nullable(beatGridSchema),
  /** how sure the search was, 0..1; null where the grid was set by hand */
  confidence: z.nullable(z.number()),
  /** beat positions between which beats stay when they are looked for again */
  locked: z.optional(z.array(z.object({ from: beatPosition, to: beatPosition }))),
  /** when the rest was last asked to be found again; null once it is done */
  again: z.optional(z.nullable(z.number())),
  /** hits weaker than this are not knotted into the ribbon, 0..1 */
  hitsAbove: z.optional(z.number().check(z.minimum(0), z.maximum(1))),
});

/** A part of the song, from a beat position until the next section. */
const sectionSchema = z.object({
  ...base,
  kind: z.literal('section'),
  at: beatPosition,
  name: nameText,
  /** which of six dyes tints it */
  dye: z.int().check(z.minimum(0), z.maximum(5)),
});

/** Sung or spoken words over some beats. */
const cueSchema = z.object({
  ...base,
  kind: z.literal('cue'),
  at: beatPosition,
  until: beatPosition,
  text: longText,
});

const takeSchema = z.object({
  ...base,
  kind: z.literal('take'),
  media: id,
  name: nameText,
  /** the slot that it was filmed for, in whatever moment; null while nobody knows, `none` where it is kept out */
  slot: z.nullable(z.string().check(z.minLength(1))),
  /** fractional key: takes are listed in this order */
  order: z.number(),
  /** undo the camera's movement against the plate */
  steady: z.boolean(),
  /** bring light and colour to the plate's */
  match: z.boolean(),
  /** of a clean plate: its camera moves, and takes repeat its move, so that they are held against it picture by picture */
  moves: z.optional(z.boolean()),
  /** per cent by which a camera that moves freely is smoothed on its way; unset is not at all */
  smooth: z.optional(z.number().check(z.minimum(0), z.maximum(100))),
  /** how the colours of a file that does not say so are read; left out, as its size suggests */
  matrix: z.optional(z.enum(['bt709', 'bt601'])),
  /** what somebody noted of a film that is taken apart, by the frame of its shot */
  notes: z.optional(z.record(z.string(), longText)),
  /** who is hidden in it wherever it is shown, by ids of their own */
  veils: z.optional(z.record(z.string(), hiddenSchema)),
  /** a still that stands in for what is to be filmed */
  sketch: z.optional(z.literal(true)),
  /** a clean plate that the bench puts together from other takes, and the setup that it serves; its file is missing until it has */
  made: z.optional(
    z.object({
      from: z.array(id),
      setup: z.nullable(id),
      /** share of it in which somebody may stand, and how many of the takes are in it; left out until it is there */
      doubt: z.optional(z.number()),
      takes: z.optional(z.number()),
    }),
  ),
});

/** A sound of one's own, to be laid on instants of moments. */
const ownSoundSchema = z.object({
  ...base,
  kind: z.literal('sound'),
  media: id,
  name: nameText,
});

/** What every moment has, whatever its kind. */
const momentFields = {
  ...base,
  kind: z.literal('moment'),
  name: nameText,
  /** beat positions: begins, the effect strikes, ends */
  start: beatPosition,
  lands: beatPosition,
  end: beatPosition,
  /** further beat positions, by the names that its kind gives them */
  pins: z.optional(z.record(z.string(), beatPosition)),
  /** what it adds to the story, in the person's words */
  story: z.optional(longText),
  /** true once the person was asked for the story */
  asked: z.optional(z.boolean()),
  /** where it is filmed, and where its second part is filmed */
  setup: z.optional(z.nullable(id)),
  second: z.optional(z.nullable(id)),
  /** which take fills which slot, from which instant */
  slots: z.optional(slotsSchema),
  /** how far its frame is pushed over what was filmed in another shape, per cent of what there is; unset is 0 */
  framing: z.optional(
    z.object({
      across: z.optional(z.number().check(z.minimum(-100), z.maximum(100))),
      down: z.optional(z.number().check(z.minimum(-100), z.maximum(100))),
    }),
  ),
  /** what was keyed by hand: by the layer, then by what of it */
  keys: z.optional(handKeysSchema),
  /** how it sways as if it were held in a hand; unset stands still */
  handheld: z.optional(handheldSchema),
  /** how all of it looks; unset is as filmed */
  look: z.optional(lookSchema),
  /** what sounds at its instants, by their names */
  sounds: z.optional(z.record(z.string(), soundSchema)),
};
const momentOf = (recipe: MomentKind) =>
  z.object({ ...momentFields, recipe: z.literal(recipe), settings: films[recipe].settings as z.ZodMiniType });
const [firstKind, ...otherKinds] = momentKinds;
export const momentSchema = z.discriminatedUnion('recipe', [
  momentOf(firstKind),
  ...otherKinds.map(momentOf),
]);

export type MomentOf<Kind extends MomentKind> = z.infer<z.ZodMiniObject<typeof momentFields>> & {
  recipe: Kind;
  settings: z.infer<(typeof films)[Kind]['settings']>;
};
export type Moment = { [Kind in MomentKind]: MomentOf<Kind> }[MomentKind];

/** How one moment was built once, kept beside how it is built now. */
const versionSchema = z.object({
  ...base,
  kind: z.literal('version'),
  moment: id,
  name: z.string().check(z.minLength(1), z.maxLength(60)),
  kept: keptSchema,
});

/** How a kind of moment is built, kept for others; with the delivery that its frames and pixels count in. */
const styleSchema = z.object({
  ...base,
  kind: z.literal('style'),
  recipe: z.enum(momentKinds),
  name: z.string().check(z.minLength(1), z.maxLength(60)),
  kept: keptSchema,
  rate: rateSchema,
  width: z.int().check(z.positive(), z.maximum(65_536)),
  height: z.int().check(z.positive(), z.maximum(65_536)),
});

export const recordSchema = z.discriminatedUnion('kind', [
  projectSchema,
  songSchema,
  sectionSchema,
  cueSchema,
  takeSchema,
  ownSoundSchema,
  momentSchema,
  versionSchema,
  styleSchema,
  ...planSchemas,
  ...shootSchemas,
]);

export type Project = z.infer<typeof projectSchema>;
export type Song = z.infer<typeof songSchema>;
export type Section = z.infer<typeof sectionSchema>;
export type Cue = z.infer<typeof cueSchema>;
export type Take = z.infer<typeof takeSchema>;
export type OwnSound = z.infer<typeof ownSoundSchema>;
export type Version = z.infer<typeof versionSchema>;
export type Style = z.infer<typeof styleSchema>;
export type AnyRecord = Exclude<z.infer<typeof recordSchema>, { kind: 'moment' }> | Moment;
export type RecordKind = AnyRecord['kind'];
export type RecordOf<Kind extends RecordKind> = Extract<AnyRecord, { kind: Kind }>;
