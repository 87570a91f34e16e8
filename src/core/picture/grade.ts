type Three = [number, number, number];

/**
 * A colour decision on display-coded values 0..1: `clamp(in × slope + offset) ^ power`, then saturation
 * about BT.709 luma. @see ASC CDL 1.2
 */
export type Cdl = { slope: Three; offset: Three; power: Three; saturation: number };

const clamp = (value: number) => Math.min(1, Math.max(0, value));

/** Three tables of 0..1 results for inputs of `0..255`, in steps of 1 / `fineness`; saturation is left out. */
export function cdlTables(cdl: Cdl, fineness = 1): Float32Array[] {
  return [0, 1, 2].map((channel) =>
    Float32Array.from({ length: 255 * fineness + 1 }, (_, step) =>
      clamp(
        clamp((step / (255 * fineness)) * cdl.slope[channel] + cdl.offset[channel]) ** cdl.power[channel],
      ),
    ),
  );
}

/** A graded colour; all values 0..255. */
export function gradeColour(cdl: Cdl, rgb: readonly number[]): [number, number, number] {
  const [r, g, b] = [0, 1, 2].map(
    (channel) => clamp((rgb[channel] / 255) * cdl.slope[channel] + cdl.offset[channel]) ** cdl.power[channel],
  );
  const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
  const mix = (value: number) => clamp(luma + (value - luma) * cdl.saturation) * 255;
  return [mix(r), mix(g), mix(b)];
}
