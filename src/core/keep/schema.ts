import * as z from 'zod/mini';
import { handheldSchema, handKeysSchema } from '../hand/schema';
import { lookSchema } from '../look/schema';
import { beatPosition } from '../model/base';
import { slotsSchema } from '../model/slots-schema';
import { soundSchema } from '../sounds/sound';

/** How a moment is built, without where in the song it lies: beats count from its landing. */
export const keptSchema = z.object({
  settings: z.record(z.string(), z.unknown()),
  span: z.object({ before: beatPosition, after: beatPosition, pins: z.record(z.string(), beatPosition) }),
  sounds: z.optional(z.record(z.string(), soundSchema)),
  keys: z.optional(handKeysSchema),
  handheld: z.optional(handheldSchema),
  look: z.optional(lookSchema),
  /** of a version only: its takes, and how its frame is pushed */
  slots: z.optional(slotsSchema),
  framing: z.optional(z.record(z.string(), z.number())),
});
export type Kept = z.infer<typeof keptSchema>;
