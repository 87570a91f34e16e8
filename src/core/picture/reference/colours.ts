import { colourMatrix } from '../colour-matrix';
import { lumaOfRgb } from '../image';
import { reachOf } from '../middle';
import type { Surface } from './surface';

const held = (value: number, most: number): number => Math.min(most, Math.max(0, value));

/** Every pixel by itself: its colours, its coverage, and where it is. */
function eachPixel(
  surface: Surface,
  change: (rgb: readonly [number, number, number], cover: number, x: number, y: number) => readonly number[],
): Surface {
  const data = surface.data.slice();
  for (let y = 0, at = 0; y < surface.height; y++)
    for (let x = 0; x < surface.width; x++, at += 4) {
      const cover = data[at + 3];
      change([data[at], data[at + 1], data[at + 2]], cover, x, y).forEach((value, channel) => {
        data[at + channel] = held(value, cover);
      });
    }
  return { ...surface, data };
}

/** Colours about their opposite, 0..1 of the way. */
export const negative = (surface: Surface, amount: number): Surface =>
  eachPixel(surface, (rgb, cover) => rgb.map((value) => value + (cover - 2 * value) * amount));

/** @see colourMatrix */
export function colours(surface: Surface, brightness: number, saturation: number, hue: number): Surface {
  const matrix = colourMatrix(brightness, saturation, hue);
  return eachPixel(surface, (rgb) =>
    matrix.map((row) => row[0] * rgb[0] + row[1] * rgb[1] + row[2] * rgb[2]),
  );
}

/** Its luma in a colour (0..255), so far of the way. */
export const tint = (surface: Surface, colour: readonly number[], amount: number): Surface =>
  eachPixel(surface, (rgb) =>
    rgb.map((value, channel) => value + ((lumaOfRgb(rgb) * colour[channel]) / 255 - value) * amount),
  );

/** Corners darker by a share, as the square of the distance from the middle. */
export function vignette(surface: Surface, amount: number): Surface {
  const [middleX, middleY, furthest] = reachOf(surface);
  return eachPixel(surface, (rgb, _, x, y) => {
    const share = ((x + 0.5 - middleX) ** 2 + (y + 0.5 - middleY) ** 2) / furthest ** 2;
    return rgb.map((value) => value * (1 - amount * share));
  });
}

/** What is brighter than `from`, softened, screened over so far. */
export function glow(
  surface: Surface,
  from: number,
  amount: number,
  softened: (light: Surface) => Surface,
): Surface {
  const light = softened(
    eachPixel(surface, (rgb, cover) =>
      rgb.map((value) => Math.max(0, value - from * cover) / Math.max(1e-6, 1 - from)),
    ),
  );
  let at = 0;
  return eachPixel(surface, (rgb, cover) => {
    const over = at;
    at += 4;
    return rgb.map((value, channel) => {
      const more = amount * Math.min(cover, light.data[over + channel]);
      return cover > 0 ? value + more - (value * more) / cover : 0;
    });
  });
}
