import { gaussianBlur } from '../picture/gaussian';
import type { GrayImage } from '../picture/image';
import { median } from '../statistics';

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
/** side of the cells whose means are the same in both, however soft one is, and by how much their slopes may differ */
const [cell, near] = [4, 2];
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

/** What a picture has of each block: its mean, and the mean square of the slopes of its cells. */
function blocksOf(image: GrayImage): { means: Float32Array; rough: Float32Array } {
  const small = shrunken(image);
  const side = block / cell;
  const across = small.width / side;
  const count = across * (small.height / side);
  const [means, rough] = [new Float32Array(count), new Float32Array(count)];
  for (let index = 0; index < count; index++) {
    const corner = Math.floor(index / across) * side * small.width + (index % across) * side;
    for (let row = 0; row < side; row++)
      for (let column = 0; column < side; column++) {
        const at = corner + row * small.width + column;
        const value = small.data[at];
        means[index] += value / side ** 2;
        if (row < side - 1 && column < side - 1)
          rough[index] +=
            ((small.data[at + 1] - value) ** 2 + (small.data[at + small.width] - value) ** 2) /
            (side - 1) ** 2;
      }
  }
  return { means, rough };
}

/** The blocks in which two pictures show the same with something to see in it, and how much more light the second has there. */
function sharedBlocks(one: GrayImage, other: GrayImage): { index: number; light: number }[] {
  const [ones, others] = [blocksOf(one), blocksOf(other)];
  const lights = ones.means.map((mean, index) => (others.means[index] + 1) / (mean + 1));
  const light = median(lights);
  return [...lights].flatMap((here, index) => {
    const rough = ones.rough[index] * here * here;
    const isAlike =
      Math.abs(ones.means[index] * light - others.means[index]) < alike &&
      rough > detail &&
      others.rough[index] > detail &&
      Math.abs(Math.log(rough / others.rough[index])) < Math.log(near);
    return isAlike ? [{ index, light: here }] : [];
  });
}

/** The Gaussian that makes one picture as soft as another; null where it is the softer one already. */
function softening(
  one: GrayImage,
  other: GrayImage,
  blocks: readonly { index: number; light: number }[],
  grains: readonly [number, number],
): number | null {
  const wanted = slopesOf(other, grains[1]);
  const told = blocks.filter(({ index }) => wanted[index] > detail + 4 * (grains[0] + grains[1]));
  if (told.length < fewest) return null;
  let last: { deviation: number; ratio: number } | null = null;
  for (const deviation of tried) {
    const softened = deviation > 0 ? gaussianBlur(one, deviation) : one;
    // Grain is softened too, and soon gone.
    const left = grains[0] / (1 + 4 * Math.PI * deviation * deviation);
    const slopes = slopesOf(softened, left);
    const ratio = median(told.map(({ index, light }) => (slopes[index] / wanted[index]) * light ** 2));
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
 * @param grains variance that grain leaves in each, in codes squared
 * @returns null where too little of them is the same to tell
 */
export function softnessBetween(
  one: GrayImage,
  other: GrayImage,
  grains: readonly [number, number] = [0, 0],
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
