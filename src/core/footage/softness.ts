import { gaussianBlur } from '../picture/gaussian';
import type { GrayImage } from '../picture/image';
import { median, quantile } from '../statistics';

/** A picture that is held, and a film beside it that shows the same set. */
export type SoftnessTask = {
  is: 'softness';
  media: string;
  from: number;
  until: number;
  held: { media: string; seconds: number };
};

/**
 * How much sharper one picture is than another: the standard deviation, in pixels of the other, of the Gaussian that
 * makes it as soft. Below zero it is the softer one.
 */
export type Softness = { sharper: number; across: number };

/** side of a block in pixels */
const block = 16;
/** deviations of Gaussians that are tried, in pixels */
const tried = [0, 0.3, 0.45, 0.6, 0.8, 1, 1.3, 1.6, 2, 2.5, 3, 4];
/** side of the cells whose means rise and fall alike in both, however soft one is, and their correlation at the least */
const [cell, together] = [4, 0.7];
/** codes of luma by which a block's mean may lie off, once both have one light, and squares of slopes that it needs to tell anything */
const [alike, detail] = [8, 4];
/** blocks that it takes */
const fewest = 24;

/** Mean square of the slopes in each block, less what grain makes of it. */
function slopesOf({ width, height, data }: GrayImage, grain: number): Float32Array {
  const [across, down] = [Math.floor(width / block), Math.floor(height / block)];
  const out = new Float32Array(across * down);
  for (let index = 0; index < out.length; index++) {
    const [left, top] = [(index % across) * block, Math.floor(index / across) * block];
    let sum = 0;
    for (let row = top; row < top + block - 1; row++)
      for (let column = left; column < left + block - 1; column++) {
        const at = row * width + column;
        sum += (data[at + 1] - data[at]) ** 2 + (data[at + width] - data[at]) ** 2;
      }
    // Two differences of two pixels each.
    out[index] = Math.max(0, sum / (block - 1) ** 2 - 4 * grain);
  }
  return out;
}

/** of all blocks, the share in whose slopes there is nothing but grain */
const plain = 0.05;

/** The variance that grain leaves in a picture of which no other is known: what its plainest blocks have of slopes. */
const grainIn = (image: GrayImage): number => quantile(slopesOf(image, 0), plain) / 4;

/** A picture of the means of its cells. */
function shrunken({ width, height, data }: GrayImage): GrayImage & { data: Float32Array } {
  const [across, down] = [Math.floor(width / block), Math.floor(height / block)].map(
    (blocks) => (blocks * block) / cell,
  );
  const out = new Float32Array(across * down);
  for (let row = 0; row < down * cell; row++)
    for (let column = 0; column < across * cell; column++)
      out[Math.floor(row / cell) * across + Math.floor(column / cell)] += data[row * width + column];
  return { width: across, height: down, data: out.map((sum) => sum / cell ** 2) };
}

/** The means of the cells of each block, block after block. */
function cellsOf(image: GrayImage): Float32Array[] {
  const small = shrunken(image);
  const side = block / cell;
  const across = small.width / side;
  return Array.from({ length: (across * small.height) / side }, (_, index) => {
    const corner = Math.floor(index / across) * side * small.width + (index % across) * side;
    return Float32Array.from(
      { length: side * side },
      (_cell, at) => small.data[corner + Math.floor(at / side) * small.width + (at % side)],
    );
  });
}

/** Mean, variance, and covariance with another of some values. */
function spreadOf(values: Float32Array, others: Float32Array) {
  const mean = values.reduce((sum, one) => sum + one, 0) / values.length;
  const beside = others.reduce((sum, one) => sum + one, 0) / others.length;
  let [variance, shared] = [0, 0];
  values.forEach((one, at) => {
    variance += (one - mean) ** 2 / values.length;
    shared += ((one - mean) * (others[at] - beside)) / values.length;
  });
  return { mean, variance, shared };
}

/** The blocks in which two pictures show the same with something to see in it, and how much more light the second has there. */
function sharedBlocks(one: GrayImage, other: GrayImage): { index: number; light: number }[] {
  const [cells, beside] = [cellsOf(one), cellsOf(other)];
  const spreads = cells.map((values, index) => {
    const [here, there] = [spreadOf(values, beside[index]), spreadOf(beside[index], values)];
    const alikeness = here.shared / Math.sqrt(Math.max(1e-9, here.variance * there.variance));
    return { ...here, there, alikeness, light: (there.mean + 1) / (here.mean + 1) };
  });
  const light = median(spreads.map((block) => block.light));
  return spreads.flatMap((block, index) =>
    Math.abs(block.mean * light - block.there.mean) < alike &&
    Math.max(block.variance, block.there.variance) > detail &&
    block.alikeness > together
      ? [{ index, light: block.light }]
      : [],
  );
}

/** The Gaussian that makes one picture as soft as another; null where it is the softer one already. */
function softening(
  one: GrayImage,
  other: GrayImage,
  blocks: readonly { index: number; light: number }[],
  grains: readonly [number, number],
): number | null {
  const [sharp, wanted] = [slopesOf(one, grains[0]), slopesOf(other, grains[1])];
  const least = detail + 4 * (grains[0] + grains[1]);
  const told = blocks.filter(({ index }) => sharp[index] > least);
  if (told.length < fewest) return null;
  let last: { deviation: number; ratio: number } | null = null;
  for (const deviation of tried) {
    const softened = deviation > 0 ? gaussianBlur(one, deviation) : one;
    // Grain is softened too, and soon gone.
    const left = grains[0] / (1 + 4 * Math.PI * deviation * deviation);
    const slopes = slopesOf(softened, left);
    const ratio = median(
      told.map(({ index, light }) => (slopes[index] * light ** 2) / Math.max(detail / 100, wanted[index])),
    );
    if (ratio <= 1) {
      if (!last) return ratio === 1 ? 0 : null;
      const share = Math.log(last.ratio) / Math.log(last.ratio / ratio);
      return last.deviation + share * (deviation - last.deviation);
    }
    last = { deviation, ratio };
  }
  return tried[tried.length - 1];
}

/**
 * How much sharper a picture is than another one of the same size that shows the same set, by the slopes of what both
 * show. Who stands in one alone, and what has no detail, says nothing.
 * @param grains variance that grain leaves in each, in codes squared; left out, as much as in what is plainest in it
 * @returns null where too little of them is the same to tell
 */
export function softnessBetween(
  one: GrayImage,
  other: GrayImage,
  grains: readonly [number, number] = [grainIn(one), grainIn(other)],
): Softness | null {
  const blocks = sharedBlocks(one, other);
  if (blocks.length < fewest) return null;
  const across = other.width;
  const sharper = softening(one, other, blocks, grains);
  if (sharper !== null) return { sharper, across };
  const back = blocks.map(({ index, light }) => ({ index, light: 1 / light }));
  const softer = softening(other, one, back, [grains[1], grains[0]]);
  return softer === null ? null : { sharper: -softer, across };
}
