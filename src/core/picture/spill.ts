import { lumaOfRgb, type RgbaImage } from './image';
import { factorsOf, type YuvImage } from './planes';

export type Rgb = readonly [red: number, green: number, blue: number];
/** Blue and red less luma: what is left of a colour once its light is taken away. */
type Chroma = readonly [blue: number, red: number];

/** Source: ITU-R BT.709, colour differences. */
export function chromaOf(rgb: Rgb): Chroma {
  const luma = lumaOfRgb(rgb);
  return [(rgb[2] - luma) / 1.8556, (rgb[0] - luma) / 1.5748];
}

export const pixelOf = ({ data }: RgbaImage, pixel: number): Rgb => [
  data[4 * pixel],
  data[4 * pixel + 1],
  data[4 * pixel + 2],
];

/** How strongly a pixel has the key's colour, in shares of the key itself; colours beside it count less. */
export function strengthOf([blue, red]: Chroma, [keyBlue, keyRed]: Chroma): number {
  const whole = Math.hypot(keyBlue, keyRed);
  if (whole < 1e-6) return 0;
  const along = (blue * keyBlue + red * keyRed) / whole;
  const beside = Math.abs(blue * keyRed - red * keyBlue) / whole;
  return Math.max(0, along - beside) / whole;
}

/** A picture without the backdrop's light on what stands before it: no pixel keeps more of the key than of what is beside it. */
export function withoutSpill(frame: RgbaImage, key: Rgb): RgbaImage {
  const of = chromaOf(key);
  const data = Uint8ClampedArray.from(frame.data);
  for (let pixel = 0; pixel < frame.width * frame.height; pixel++) {
    const strength = strengthOf(chromaOf(pixelOf(frame, pixel)), of);
    if (strength <= 0) continue;
    const [blue, red] = [-strength * of[0] * 1.8556, -strength * of[1] * 1.5748];
    // Luma stays: what blue and red lose, green makes up for.
    const green = -(0.0722 * blue + 0.2126 * red) / 0.7152;
    [red, green, blue].forEach((change, channel) => {
      data[4 * pixel + channel] = frame.data[4 * pixel + channel] + change;
    });
  }
  return { width: frame.width, height: frame.height, data };
}

/**
 * The same on planes: what a pixel of their chroma has of the key is taken out of it, its luma stays.
 * @returns planes of which the luma is the picture's own
 */
export function planesWithoutSpill(picture: YuvImage, key: Rgb): YuvImage {
  const { kr, kb, chroma } = factorsOf(picture);
  const luma = kr * key[0] + (1 - kr - kb) * key[1] + kb * key[2];
  const blue = (key[2] - luma) / (2 * (1 - kb)) / chroma;
  const red = (key[0] - luma) / (2 * (1 - kr)) / chroma;
  const whole = blue * blue + red * red;
  const [u, v] = [picture.u.slice(), picture.v.slice()];
  if (whole < 1e-6) return { ...picture, u, v };
  for (let at = 0; at < u.length; at++) {
    const [du, dv] = [u[at] - 128, v[at] - 128];
    const strength = (du * blue + dv * red - Math.abs(du * red - dv * blue)) / whole;
    if (strength <= 0) continue;
    u[at] = Math.round(u[at] - strength * blue);
    v[at] = Math.round(v[at] - strength * red);
  }
  return { ...picture, u, v };
}

/** Pictures without the light of a backdrop, each worked out once while it is the same. */
export class CleanPictures {
  private readonly kept = new Map<YuvImage, Map<string, YuvImage>>();

  /** The picture as it is where no colour is given. */
  of(picture: YuvImage, key: Rgb | undefined): YuvImage {
    if (!key) return picture;
    const known = this.kept.get(picture) ?? new Map<string, YuvImage>();
    this.kept.set(picture, known);
    const clean = known.get(`${key}`) ?? planesWithoutSpill(picture, key);
    known.set(`${key}`, clean);
    return clean;
  }

  /** Forgets them: the memory of pictures is used again. */
  clear(): void {
    this.kept.clear();
  }
}
