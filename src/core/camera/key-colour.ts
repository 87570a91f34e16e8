import { ciede2000, labOf } from '../picture/colour';
import { refuse } from '../error';

type Rgb = [number, number, number];

/** Cloths and paints that are sold for keying, as sRGB. Typical values, no published source. */
export const screens: readonly { name: string; rgb: Rgb }[] = [
  { name: 'green', rgb: [40, 170, 70] },
  { name: 'blue', rgb: [30, 80, 190] },
  { name: 'red', rgb: [200, 30, 40] },
  { name: 'magenta', rgb: [210, 40, 160] },
  { name: 'yellow', rgb: [240, 220, 40] },
];

/** "#2c5f8d" as three numbers. @throws CoreError `colour` for anything else */
export function readColour(text: string): Rgb {
  const match = /^#?([0-9a-f]{6})$/i.exec(text.trim());
  if (!match) return refuse('colour', 'Give a colour as six digits, like #2c5f8d.');
  const value = parseInt(match[1], 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
}

/** The colours that a text lists, with spaces or commas between. */
export const coloursIn = (text: string): string[] => text.split(/[\s,;]+/).filter(Boolean);

/**
 * Screens by how far they lie from the nearest colour of clothes and set, furthest first.
 * @see CIE 142 (CIEDE2000)
 */
export function rankScreens(used: readonly Rgb[]): { name: string; rgb: Rgb; distance: number }[] {
  const nearest = (rgb: Rgb) =>
    used.reduce((least, one) => Math.min(least, ciede2000(labOf(...rgb), labOf(...one))), Infinity);
  return screens
    .map((screen) => ({ ...screen, distance: nearest(screen.rgb) }))
    .sort((a, b) => b.distance - a.distance);
}
