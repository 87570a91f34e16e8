import { chromaSide, factorsOf, type YuvImage } from '../picture/planes';
import type { Grain } from '../picture/regrain';
import { median, quantile } from '../statistics';

/** Pictures of a take, one after the other, whose grain is measured. */
export type GrainTask = { is: 'grain'; media: string; from: number; until: number };

/** side of a block in pixels, and of its four parts */
const block = 16;
/** bands of luma from black to white, and blocks that a band is believed for */
const [bands, fewest] = [8, 12];
/** blocks of a picture that are looked at */
const most = 6000;
/** of the blocks in which nothing moves, the share of those with the least change that count: sparks and rims do not */
const counted = 0.9;
/** codes by which the mean of a block's part may change from picture to picture and nothing moves there; so many times what grain makes of it */
const [stands, chance] = [1, 4];
/** of the blocks, the share with the least change from which grain is guessed first */
const guessed = 0.25;
/** share of the blocks in which nothing has to move */
const still = 0.03;

type Changes = {
  /** light of each block, and how much it changes: variance, product of neighbours, largest change of a part's mean */
  light: Float32Array;
  variance: Float32Array;
  beside: Float32Array;
  moved: Float32Array;
};

/** How a picture's blocks differ from those of the one before. */
function changesOf(one: YuvImage, two: YuvImage, corners: readonly number[]): Changes {
  const { width } = one;
  const f = factorsOf(one);
  const half = block / 2;
  const found = {
    light: new Float32Array(corners.length),
    variance: new Float32Array(corners.length),
    beside: new Float32Array(corners.length),
    moved: new Float32Array(corners.length),
  };
  const means = new Float32Array(corners.length);
  for (let index = 0; index < corners.length; index++) {
    const corner = corners[index];
    const parts = [0, 0, 0, 0];
    let [sum, squares, products, light] = [0, 0, 0, 0];
    for (let row = 0; row < block; row++) {
      let last = 0;
      for (let column = 0; column < block; column++) {
        const at = corner + row * width + column;
        const change = (two.y[at] - one.y[at]) * f.luma;
        light += one.y[at];
        sum += change;
        squares += change * change;
        if (column > 0) products += change * last;
        last = change;
        parts[(row < half ? 0 : 2) + (column < half ? 0 : 1)] += change;
      }
    }
    const pixels = block * block;
    const mean = sum / pixels;
    found.light[index] = (light / pixels - f.black) * f.luma;
    // Two pictures carry grain each.
    found.variance[index] = (squares / pixels - mean * mean) / 2;
    found.beside[index] = (products / (pixels - block) - mean * mean) / 2;
    means[index] = mean;
    found.moved[index] = Math.max(...parts.map((part) => Math.abs(part / (half * half) - mean)));
  }
  // Lamps that flicker change everything by a share of its light.
  const gain = median(means.map((mean, index) => mean / (found.light[index] + 1)));
  for (let index = 0; index < corners.length; index++)
    found.moved[index] += Math.abs(means[index] - gain * (found.light[index] + 1));
  return found;
}

/** Variance of both chroma planes within a block, as of the picture before. */
function chromaChange(one: YuvImage, two: YuvImage, corner: number): number {
  const wide = chromaSide(one.width);
  const [row, column] = [Math.floor(corner / one.width) >> 1, (corner % one.width) >> 1];
  const factor = factorsOf(one).chroma;
  let variance = 0;
  for (const plane of ['u', 'v'] as const) {
    let [sum, squares] = [0, 0];
    for (let y = 0; y < block / 2; y++)
      for (let x = 0; x < block / 2; x++) {
        const at = (row + y) * wide + column + x;
        const change = (two[plane][at] - one[plane][at]) * factor;
        sum += change;
        squares += change * change;
      }
    const pixels = (block * block) / 4;
    variance += (squares - (sum * sum) / pixels) / (pixels - 1) / 4;
  }
  return variance;
}

/** Corners of blocks over a picture, as many as are looked at. */
function cornersOf({ width, height }: YuvImage): number[] {
  const [across, down] = [Math.floor(width / block), Math.floor(height / block)];
  const step = Math.max(1, Math.ceil((across * down) / most));
  return Array.from({ length: Math.floor((across * down) / step) }, (_, index) => {
    const at = index * step;
    return Math.floor(at / across) * block * width + (at % across) * block;
  });
}

/** The width of grains of which neighbours have so much in common. @param shared their correlation */
const softOf = (shared: number): number =>
  shared > 0.02 ? Math.min(4, 1 / (2 * Math.sqrt(-Math.log(Math.min(0.98, shared))))) : 0;

/** Each band's value, one without from the nearest that has one. */
function filled(values: readonly (number | null)[]): number[] {
  return values.map((value, band) => {
    for (let away = 0; away < values.length; away++) {
      const near = values[band - away] ?? values[band + away];
      if (near !== null && near !== undefined) return near;
    }
    return value ?? 0;
  });
}

/** Measures the grain of pictures that follow one another. */
export class GrainPass {
  private last: YuvImage | null = null;
  private corners: number[] = [];
  private readonly pairs: Changes[] = [];
  private readonly chroma: Float32Array[] = [];
  private across = 0;

  /** @param picture stays the caller's; what is kept of it is a copy */
  push(picture: YuvImage): void {
    const { last } = this;
    if (last && last.width === picture.width && last.height === picture.height) {
      if (this.corners.length === 0) this.corners = cornersOf(picture);
      this.pairs.push(changesOf(last, picture, this.corners));
      this.chroma.push(Float32Array.from(this.corners, (corner) => chromaChange(last, picture, corner)));
    }
    this.across = picture.width;
    this.last = { ...picture, y: picture.y.slice(), u: picture.u.slice(), v: picture.v.slice() };
  }

  /**
   * The grain, as the mean over pictures that differ at all: a picture that stands twice, as where a rate was raised,
   * says nothing.
   * @returns null where there are fewer than two pictures, or everything moves
   */
  finish(): Grain | null {
    const told = this.pairs.map(({ variance }, pair) => ({ pair, any: variance.some((one) => one > 0) }));
    const pairs = told.filter(({ any }) => any).map(({ pair }) => pair);
    if (this.pairs.length === 0) return null;
    if (pairs.length === 0) return { across: this.across, luma: Array(bands).fill(0), chroma: 0, soft: 0 };
    const first = quantile(
      pairs.flatMap((pair) => [...this.pairs[pair].variance]),
      guessed,
    );
    // The mean of a part's pixels changes by grain too: more of it the wider grains are, which is allowed for.
    const limit = stands + chance * Math.sqrt(2 * first) * (4 / block);
    const stood = this.corners
      .map((_, index) => index)
      .filter((index) => pairs.every((pair) => this.pairs[pair].moved[index] <= limit));
    if (stood.length < Math.max(fewest, still * this.corners.length)) return null;
    return this.grainOf(pairs, stood);
  }

  private grainOf(pairs: readonly number[], stood: readonly number[]): Grain {
    const mean = (index: number, of: 'variance' | 'beside' | 'light') =>
      pairs.reduce((sum, pair) => sum + this.pairs[pair][of][index], 0) / pairs.length;
    const blocks = stood.map((index) => ({
      band: Math.min(bands - 1, Math.max(0, Math.floor((mean(index, 'light') * bands) / 256))),
      variance: mean(index, 'variance'),
      beside: mean(index, 'beside'),
      chroma: pairs.reduce((sum, pair) => sum + this.chroma[pair][index], 0) / pairs.length,
    }));
    const calm = (some: typeof blocks) =>
      [...some]
        .sort((one, other) => one.variance - other.variance)
        .slice(0, Math.ceil(counted * some.length));
    const meanOf = (some: typeof blocks, of: 'variance' | 'beside' | 'chroma') =>
      some.reduce((sum, one) => sum + one[of], 0) / some.length;
    const luma = Array.from({ length: bands }, (_, band) => {
      const here = blocks.filter((one) => one.band === band);
      return here.length < fewest ? null : Math.sqrt(Math.max(0, meanOf(calm(here), 'variance')));
    });
    const all = calm(blocks);
    const variance = meanOf(all, 'variance');
    const shared = variance > 0 ? meanOf(all, 'beside') / variance : 0;
    const whole = Math.sqrt(Math.max(0, variance));
    return {
      across: this.across,
      luma: luma.every((one) => one === null) ? Array<number>(bands).fill(whole) : filled(luma),
      chroma: Math.sqrt(Math.max(0, meanOf(all, 'chroma'))),
      soft: softOf(shared),
    };
  }
}
