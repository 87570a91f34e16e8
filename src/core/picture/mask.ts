import type { GrayImage } from './image';
import type { Size } from '../geometry/size';
import type { Rings } from './node';

/** Mean over 2 × `reach` + 1 neighbours along rows, edges repeated, so that the frame's own edge stays hard. */
function boxRows(source: Float32Array, { width, height }: Size, reach: number, into: Float32Array): void {
  const whole = Math.floor(reach);
  const part = reach - whole;
  const scale = 1 / (2 * reach + 1);
  const beyond = whole + 1;
  const line = new Float32Array(width + 2 * beyond);
  for (let base = 0; base < width * height; base += width) {
    line.fill(source[base], 0, beyond);
    line.set(source.subarray(base, base + width), beyond);
    line.fill(source[base + width - 1], beyond + width);
    let sum = 0;
    for (let at = 1; at < 2 * beyond; at++) sum += line[at];
    for (let x = 0; x < width; x++) {
      const next = line[x + 2 * beyond];
      into[base + x] = (sum + part * (line[x] + next)) * scale;
      sum += next - line[x + 1];
    }
  }
}

/** The same along columns: sums of all columns go down together, so that memory is read in its order. */
function boxColumns(source: Float32Array, { width, height }: Size, reach: number, into: Float32Array): void {
  const whole = Math.floor(reach);
  const part = reach - whole;
  const scale = 1 / (2 * reach + 1);
  const row = (y: number) => Math.min(height - 1, Math.max(0, y)) * width;
  const sums = new Float64Array(width);
  for (let y = -whole; y <= whole; y++) {
    const from = row(y);
    for (let x = 0; x < width; x++) sums[x] += source[from + x];
  }
  for (let y = 0; y < height; y++) {
    const [outer, first, next] = [row(y - whole - 1), row(y - whole), row(y + whole + 1)];
    const base = y * width;
    for (let x = 0; x < width; x++) {
      const entering = source[next + x];
      into[base + x] = (sums[x] + part * (source[outer + x] + entering)) * scale;
      sums[x] += entering - source[first + x];
    }
  }
}

/**
 * Coverage 0..1 of rings that together are one shape: four lines a pixel down, exact across. Even-odd rule.
 * A line is covered from one crossing to the next; what a crossing covers to its right is noted where it lies, and
 * summed up along the row.
 */
export function coverOfRings(rings: Rings, { width, height }: Size): Float32Array {
  const out = new Float32Array(width * height);
  const lines = 4;
  const edges = new Crossings(rings);
  const steps = new Float64Array(width + 2);
  const step = (x: number, amount: number) => {
    const place = Math.min(width, Math.max(0, x));
    const pixel = Math.floor(place);
    steps[pixel] += amount * (pixel + 1 - place);
    steps[pixel + 1] += amount * (place - pixel);
  };
  for (let row = 0; row < height; row++) {
    steps.fill(0);
    for (let line = 0; line < lines; line++) {
      const crossings = edges.at(row + (line + 0.5) / lines);
      for (let i = 0; i + 1 < crossings.length; i += 2) {
        step(crossings[i], 1 / lines);
        step(crossings[i + 1], -1 / lines);
      }
    }
    let sum = 0;
    for (let x = 0; x < width; x++) out[row * width + x] = Math.max(0, (sum += steps[x]));
  }
  return out;
}

/** Where the edges of a shape cross lines that follow one another downwards, from left to right on each. */
class Crossings {
  /** edges that are still to come, the highest last, and those that lines cross now */
  private readonly below: Edge[] = [];
  private active: Edge[] = [];

  constructor(rings: Rings) {
    for (const points of rings) {
      let [x0, y0] = points[points.length - 1] ?? [0, 0];
      for (const [x1, y1] of points) {
        const slope = (x1 - x0) / (y1 - y0);
        if (y0 < y1) this.below.push({ x: x0, y: y0, until: y1, slope });
        else if (y1 < y0) this.below.push({ x: x1, y: y1, until: y0, slope });
        x0 = x1;
        y0 = y1;
      }
    }
    this.below.sort((a, b) => b.y - a.y);
  }

  /** @param y not above that of the call before */
  at(y: number): number[] {
    const { below } = this;
    this.active = this.active.filter(({ until }) => until > y);
    for (let next = below.at(-1); next && next.y <= y; next = below.at(-1)) {
      below.pop();
      if (next.until > y) this.active.push(next);
    }
    return this.active.map((edge) => edge.x + (y - edge.y) * edge.slope).sort((a, b) => a - b);
  }
}

/** An edge of a shape from its upper end on; `slope` is how far across it goes for each pixel down. */
type Edge = { x: number; y: number; until: number; slope: number };

/** Coverage with a soft edge. @param feather its width in pixels, half of it on each side; up to 0.5 stays hard */
export function feathered(cover: Float32Array, size: Size, feather: number): Float32Array {
  if (feather <= 0.5) return cover;
  const reach = feather / 4;
  const [soft, spare] = [new Float32Array(cover.length), new Float32Array(cover.length)];
  boxRows(cover, size, reach, spare);
  boxRows(spare, size, reach, soft);
  boxColumns(soft, size, reach, spare);
  boxColumns(spare, size, reach, soft);
  return soft;
}

/** Coverage 0..255 of a shape in pixels of `size`. @param feather as in {@link feathered} */
export function rasterMask(
  rings: Rings,
  feather: number,
  size: Size,
  inverted = false,
): GrayImage & { data: Uint8Array } {
  const cover = feathered(coverOfRings(rings, size), size, feather);
  const data = new Uint8Array(cover.length);
  const [start, step] = inverted ? [255.5, -255] : [0.5, 255];
  for (let at = 0; at < data.length; at++) data[at] = Math.min(255, start + step * cover[at]);
  return { width: size.width, height: size.height, data };
}

/** Coverage at half size, for the chroma of 4:2:0 pictures. */
export function halveMask(mask: GrayImage): Uint8Array {
  const { width, height, data } = mask;
  const [cw, ch] = [(width + 1) >> 1, (height + 1) >> 1];
  const out = new Uint8Array(cw * ch);
  for (let y = 0; y < ch; y++) {
    const top = 2 * y * width;
    const bottom = Math.min(height - 1, 2 * y + 1) * width;
    for (let x = 0; x < cw; x++) {
      const right = Math.min(width - 1, 2 * x + 1);
      out[y * cw + x] =
        (data[top + 2 * x] + data[top + right] + data[bottom + 2 * x] + data[bottom + right] + 2) >> 2;
    }
  }
  return out;
}
