import * as z from 'zod/mini';

/** The quantities of a look: what they are as filmed, and between what they lie. */
export const lookQuantities = {
  brightness: { title: 'Brightness', unit: '%', plain: 100, min: 0, max: 300, step: 5 },
  saturation: { title: 'Saturation', unit: '%', plain: 100, min: 0, max: 300, step: 5 },
  hue: { title: 'Turn of the hue', unit: '°', plain: 0, min: -180, max: 180, step: 5 },
  tone: { title: 'Tone', unit: '%', plain: 0, min: 0, max: 100, step: 5 },
  negative: { title: 'Negative', unit: '%', plain: 0, min: 0, max: 100, step: 5 },
  glow: { title: 'Glow', unit: '%', plain: 0, min: 0, max: 100, step: 5 },
  corners: { title: 'Darker corners', unit: '%', plain: 0, min: 0, max: 100, step: 5 },
  fringe: { title: 'Colours apart', unit: 'px', plain: 0, min: 0, max: 60, step: 1 },
  blur: { title: 'Blur', unit: 'px', plain: 0, min: 0, max: 60, step: 1 },
  square: { title: 'Blur by squares', unit: 'px', plain: 0, min: 0, max: 60, step: 1 },
  sweep: { title: 'Blur along a line', unit: 'px', plain: 0, min: 0, max: 300, step: 5 },
  along: { title: 'Turn of that line', unit: '°', plain: 0, min: -180, max: 180, step: 5 },
  zoom: { title: 'Blur towards the middle', unit: '%', plain: 0, min: 0, max: 60, step: 1 },
  bend: { title: 'Bent lines', unit: '%', plain: 0, min: -60, max: 60, step: 1 },
  wave: { title: 'Waves', unit: 'px', plain: 0, min: 0, max: 100, step: 1 },
  grain: { title: 'Grain', unit: '%', plain: 0, min: 0, max: 100, step: 5 },
} as const;
export type LookQuantity = keyof typeof lookQuantities;
export const lookNames = Object.keys(lookQuantities) as LookQuantity[];

/** Colours that a picture is toned in: red, green and blue, 0..255. */
export const tones = {
  amber: [255, 196, 120],
  blue: [140, 180, 255],
  green: [160, 230, 170],
  rose: [255, 165, 190],
} as const satisfies Record<string, readonly [number, number, number]>;
export type Tone = keyof typeof tones;

const quantity = (name: LookQuantity) => {
  const { min, max } = lookQuantities[name];
  return z.optional(z.number().check(z.minimum(min), z.maximum(max)));
};

/** How a whole moment looks; what is not said is as filmed. */
export const lookSchema = z.object({
  ...(Object.fromEntries(lookNames.map((name) => [name, quantity(name)])) as Record<
    LookQuantity,
    ReturnType<typeof quantity>
  >),
  toneOf: z.optional(z.enum(['amber', 'blue', 'green', 'rose'])),
  /** all of the time, or struck where the moment lands and dying away */
  when: z.optional(z.enum(['always', 'hit'])),
  /** a picture that is held beside one that runs is made as grainy and as soft, or stands as it is */
  held: z.optional(z.enum(['evened', 'left'])),
  /** frames in which a hit dies away */
  dies: z.optional(z.int().check(z.minimum(1), z.maximum(240))),
});
export type Look = z.infer<typeof lookSchema>;

const plain = Object.fromEntries(lookNames.map((name) => [name, lookQuantities[name].plain])) as Record<
  LookQuantity,
  number
>;

/** A look with everything that nobody said. How long a hit takes: common practice, no published source. */
export const wholeLook = (said: Look | undefined) => ({
  ...plain,
  toneOf: 'amber' as Tone,
  when: 'always' as 'always' | 'hit',
  dies: 12,
  held: 'evened' as 'evened' | 'left',
  ...Object.fromEntries(Object.entries(said ?? {}).filter(([, value]) => value !== undefined)),
});

/** The quantities by which a look differs from what was filmed. A turned line without a length is nothing. */
export function changedIn(said: Look | undefined): LookQuantity[] {
  const whole = wholeLook(said);
  return lookNames.filter((name) => name !== 'along' && whole[name] !== lookQuantities[name].plain);
}
