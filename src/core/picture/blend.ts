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

/**
 * One channel of a source over what lies behind, both multiplied by their own coverage; all 0..1.
 * @see W3C Compositing and Blending Level 1, sections 5.1 and 9.1.4 (source over), with mixing of 10
 */
export function blendOver(
  mode: BlendMode,
  back: number,
  backCover: number,
  source: number,
  cover: number,
): number {
  if (cover <= 0) return back;
  if (mode === 'normal' || backCover <= 0) return source + back * (1 - cover);
  const mixed = blendModes[mode](back / backCover, source / cover);
  return (1 - backCover) * source + (1 - cover) * back + cover * backCover * mixed;
}
