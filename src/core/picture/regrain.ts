import { seeded } from '../random';
import { gaussianWeights } from './gaussian';
import { chromaSide, factorsOf, packedYuv, planesLength, type YuvImage } from './planes';

/** The grain of a camera's pictures: what changes in them from one to the next where nothing does. Codes of 0..255. */
export type Grain = {
  /** pixels across the picture that it was measured in */
  across: number;
  /** standard deviation of the luma in even bands from black to white */
  luma: readonly number[];
  /** standard deviation of the two chroma planes */
  chroma: number;
  /** how wide grains are: standard deviation, in pixels, of the Gaussian that makes single ones as wide */
  soft: number;
};

/** side of a tile of grain, whose edges meet: a power of two, wider than what an eye takes for a pattern */
const side = 512;

/** Softens a tile along its rows (1) or down its columns (`side`), round its edges. */
function soften(tile: Float32Array, kernel: readonly number[], along: 1 | typeof side): Float32Array {
  const out = new Float32Array(tile.length);
  const across = along === 1 ? side : 1;
  const reach = (kernel.length - 1) / 2;
  for (let line = 0; line < side; line++)
    for (let at = 0; at < side; at++) {
      let sum = 0;
      for (let tap = 0; tap < kernel.length; tap++)
        sum += kernel[tap] * tile[line * across + ((at + tap - reach + side) % side) * along];
      out[line * across + at * along] = sum;
    }
  return out;
}

/** Normally distributed grains as wide as asked, of unit variance. @see Box & Muller 1958 */
function tileOf(soft: number): Float32Array {
  const next = seeded(1);
  let tile: Float32Array = Float32Array.from(
    { length: side * side },
    () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  );
  if (soft > 0) {
    const kernel = gaussianWeights(soft);
    tile = soften(soften(tile, kernel, 1), kernel, side);
  }
  let squares = 0;
  for (const value of tile) squares += value * value;
  const spread = Math.sqrt(squares / tile.length);
  return tile.map((value) => value / spread);
}

/** widths that are told apart, in shares of a pixel */
const widths = 10;
const tiles = new Map<number, Float32Array>();
function tileAsWide(soft: number): Float32Array {
  const width = Math.round(soft * widths);
  const known = tiles.get(width);
  if (known) return known;
  const tile = tileOf(width / widths);
  tiles.set(width, tile);
  return tile;
}

/** The variance that is left of grains when so many pixels in a row become one, and how wide they are then. */
function shrunk(soft: number, times: number): { left: number; soft: number } {
  // A Gaussian's grain is as strong as white noise over squares of this area. By its power spectrum.
  const area = 1 + 4 * Math.PI * soft * soft;
  const left = times > 1 ? area / (area + times * times - 1) : 1;
  return { left, soft: soft / times };
}

/** The deviation at each code of a plane. */
function spreadsOf({ luma }: Grain, { fullRange, matrix }: YuvImage, left: number): Float32Array {
  const f = factorsOf({ fullRange, matrix });
  return Float32Array.from({ length: 256 }, (_, code) => {
    const light = ((code - f.black) * f.luma * luma.length) / 256 - 0.5;
    const before = Math.min(luma.length - 1, Math.max(0, Math.floor(light)));
    const after = Math.min(luma.length - 1, before + 1);
    const share = Math.min(1, Math.max(0, light - before));
    return ((luma[before] * (1 - share) + luma[after] * share) / f.luma) * Math.sqrt(left);
  });
}

/** A plane whose samples carry grains of a tile. @param spreads the deviation at each code, or at all */
function laid(
  into: Uint8Array,
  from: Uint8Array,
  width: number,
  tile: Float32Array,
  spreads: Float32Array | number,
  next: () => number,
): void {
  const [left, top] = [Math.floor(next() * side), Math.floor(next() * side)];
  const height = from.length / width;
  for (let row = 0; row < height; row++) {
    const line = ((row + top) % side) * side;
    const at = row * width;
    for (let column = 0; column < width; column++) {
      const code = from[at + column];
      const spread = typeof spreads === 'number' ? spreads : spreads[code];
      const value = code + spread * tile[line + ((column + left) % side)];
      into[at + column] = value < 0 ? 0 : value > 255 ? 255 : Math.round(value);
    }
  }
}

/**
 * A picture with grain laid over it, others for each frame; the same for the same frame. A picture of another size has
 * it as it would be there.
 * @returns a picture of its own
 * @see Norkin & Birkbeck, Film Grain Synthesis for AV1 Video Codec, DCC 2018: grain is a template laid at chance places,
 * scaled by how light each pixel is
 */
export function regrained(picture: YuvImage, grain: Grain, frame: number): YuvImage {
  const { width, height } = picture;
  const out = packedYuv(new Uint8Array(planesLength(picture)), picture, picture);
  const next = seeded(frame);
  const here = shrunk(grain.soft, grain.across / width);
  const spreads = spreadsOf(grain, picture, here.left);
  laid(out.y, picture.y, width, tileAsWide(here.soft), spreads, next);
  const chroma = { width: chromaSide(width), height: chromaSide(height) };
  const colour = (grain.chroma / factorsOf(picture).chroma) * Math.sqrt(here.left);
  const colourTile = tileAsWide(here.soft / 2);
  laid(out.u, picture.u, chroma.width, colourTile, colour, next);
  laid(out.v, picture.v, chroma.width, colourTile, colour, next);
  return out;
}
