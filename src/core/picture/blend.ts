/** Separable blend modes of W3C Compositing and Blending Level 1, section 10, on channel values 0..1. */
export const blendModes = {
  normal: (_: number, source: number) => source,
  multiply: (back: number, source: number) => back * source,
  screen: (back: number, source: number) => back + source - back * source,
  lighten: (back: number, source: number) => Math.max(back, source),
  darken: (back: number, source: number) => Math.min(back, source),
  difference: (back: number, source: number) => Math.abs(back - source),
  overlay: (back: number, source: number) =>
    back <= 0.5 ? 2 * back * source : 1 - 2 * (1 - back) * (1 - source),
  'colour-dodge': (back: number, source: number) =>
    back === 0 ? 0 : source >= 1 ? 1 : Math.min(1, back / (1 - source)),
  'colour-burn': (back: number, source: number) =>
    back >= 1 ? 1 : source <= 0 ? 0 : 1 - Math.min(1, (1 - back) / source),
} as const;

export type BlendMode = keyof typeof blendModes;

/** One channel of `source` at coverage `alpha` over an opaque `back`; all 0..1. */
export const blendOver = (mode: BlendMode, back: number, source: number, alpha: number): number =>
  back + (blendModes[mode](back, source) - back) * alpha;
