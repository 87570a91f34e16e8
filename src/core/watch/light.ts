import { ciede2000, labOf, toLinear } from '../picture/colour';
import { median } from '../statistics';
import { cellCount } from './cells';
import type { WatchReference } from './reference';

/** The value that most agree on: the median, then the mean of what lies near it, twice. */
export function consensus(values: readonly number[], near: number): number {
  if (values.length === 0) return 0;
  let centre = median(values);
  for (let round = 0; round < 2; round++) {
    const close = values.filter((value) => Math.abs(value - centre) < near);
    if (close.length > 0) centre = close.reduce((sum, value) => sum + value, 0) / close.length;
  }
  return centre;
}

/** Light of each cell against the plate's, per channel, as log2; cells that are too dark, clipped or on an edge are left out. */
export function lightOf(reference: WatchReference, colour: Float32Array) {
  const ratios: { cell: number; rgb: [number, number, number]; all: number }[] = [];
  for (let cell = 0; cell < cellCount; cell++) {
    const at = cell * 3;
    let usable = reference.edge[cell] < 40;
    for (let channel = 0; channel < 3; channel++) {
      const [one, two] = [colour[at + channel], reference.colour[at + channel]];
      if (one > 245 || two > 245 || one < 12 || two < 12) usable = false;
    }
    if (!usable) continue;
    const light = (from: Float32Array) => [0, 1, 2].map((channel) => toLinear(from[at + channel]));
    const [now, then] = [light(colour), light(reference.colour)];
    const rgb = now.map((value, channel) => Math.log2(value / then[channel])) as [number, number, number];
    const luma = (rgb: number[]) => 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
    ratios.push({ cell, rgb, all: Math.log2(luma(now) / luma(then)) });
  }
  return ratios;
}

/** Colour that is left once the change in light is taken out: median CIEDE2000 of cells that agree. */
export function colourShift(
  reference: WatchReference,
  ratios: ReturnType<typeof lightOf>,
  stops: number,
): { shift: number; gains: [number, number, number] } {
  const still = ratios.filter(({ all }) => Math.abs(all - stops) < 0.15);
  const gains = [0, 1, 2].map((channel) =>
    consensus(
      still.map(({ rgb }) => rgb[channel]),
      0.15,
    ),
  ) as [number, number, number];
  const code = (linear: number) => {
    const value = linear <= 0.0031308 ? linear * 12.92 : 1.055 * linear ** (1 / 2.4) - 0.055;
    return Math.round(255 * Math.min(1, Math.max(0, value)));
  };
  const apart = Math.ceil(still.length / 600);
  const spread = still.filter((_, index) => index % apart === 0);
  const differences = spread.map(({ cell }) => {
    const plate = [0, 1, 2].map((channel) => toLinear(reference.colour[cell * 3 + channel]));
    const codes = (by: (channel: number) => number) =>
      labOf(...(plate.map((value, channel) => code(value * 2 ** by(channel))) as [number, number, number]));
    return ciede2000(
      codes(() => 0),
      codes((channel) => gains[channel] - stops),
    );
  });
  return { shift: median(differences), gains };
}
