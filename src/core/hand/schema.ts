import * as z from 'zod/mini';

/** What can be keyed by hand: its words, its unit, what it is at rest, and between what it lies. */
export const handValues = {
  across: { title: 'place sideways', unit: '% of the width', rest: 0, min: -300, max: 300, step: 1 },
  down: { title: 'place downwards', unit: '% of the height', rest: 0, min: -300, max: 300, step: 1 },
  size: { title: 'size', unit: '%', rest: 100, min: 1, max: 1000, step: 1 },
  turn: { title: 'turn', unit: '°', rest: 0, min: -720, max: 720, step: 1 },
  opacity: { title: 'opacity', unit: '%', rest: 100, min: 0, max: 100, step: 1 },
} as const;
export type HandValue = keyof typeof handValues;
export const handValueNames = Object.keys(handValues) as HandValue[];

/** The layer that stands for the whole picture. */
export const wholeLayer = 'whole';

/** What can be keyed of a layer; the whole picture has nothing behind it to show through. */
export const valuesOf = (layer: string): HandValue[] =>
  handValueNames.filter((name) => name !== 'opacity' || layer !== wholeLayer);

const share = z.number().check(z.minimum(0), z.maximum(1));
const overshoot = z.number().check(z.minimum(-100), z.maximum(100));
const curveSchema = z.tuple([share, overshoot, share, overshoot]);

/** A value at an instant that is counted from one of the moment's own. */
const handKeySchema = z.object({
  /** the instant by its name, and how long after it (before it, below zero) */
  from: z.string(),
  by: z.number().check(z.minimum(-1e6), z.maximum(1e6)),
  unit: z.enum(['frames', 'beats', 'seconds']),
  value: z.number().check(z.minimum(-1e5), z.maximum(1e5)),
  /** how it goes on to the next key: not at all until that comes, or along a curve */
  ease: z.union([z.literal('hold'), curveSchema]),
});
export type HandKey = z.infer<typeof handKeySchema>;
export type KeyUnit = HandKey['unit'];

/** Keys by the layer that they move and by what they change. */
export const handKeysSchema = z.record(z.string(), z.record(z.string(), z.array(handKeySchema)));
export type HandKeys = z.infer<typeof handKeysSchema>;

const swaySchema = z.array(z.number()).check(z.minLength(2), z.maxLength(200));

/** How the whole picture sways as if it were held in a hand; strength in per cent of the width, 0 stands still. */
export const handheldSchema = z.object({
  strength: z.optional(z.number().check(z.minimum(0), z.maximum(10))),
  /** sways a second of the widest one */
  pace: z.optional(z.number().check(z.minimum(0.1), z.maximum(5))),
  /** another number is another hand */
  seed: z.optional(z.int().check(z.minimum(1), z.maximum(999))),
  /** the sway of a camera that was held in a hand, in shares of the strength; null sways as a made-up hand does */
  filmed: z.optional(
    z.nullable(
      z.object({
        /** of the take that it was measured in */
        name: z.string(),
        /** seconds from one value to the next */
        every: z.number().check(z.minimum(0.01), z.maximum(1)),
        x: swaySchema,
        y: swaySchema,
        /** degrees for one per cent of the width */
        turn: swaySchema,
      }),
    ),
  ),
});
/** Strength and pace: from memory, of lenses about as wide as a phone's; no published source. */
export const wholeHandheld = (said: z.infer<typeof handheldSchema> | undefined) => ({
  strength: 0,
  pace: 0.7,
  seed: 1,
  filmed: null,
  ...said,
});
