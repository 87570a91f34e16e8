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
/** deviation of the Gaussian behind which both are the same but for their light */
const coarse = 5;
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

function meansOf({ width, height, data }: GrayImage): Float32Array {
  const [across, down] = [Math.floor(width / block), Math.floor(height / block)];
  return Float32Array.from({ length: across * down }, (_, index) => {
    const [left, top] = [(index % across) * block, Math.floor(index / across) * block];
    let sum = 0;
    for (let row = top; row < top + block; row++)
      for (let column = left; column < left + block; column++) sum += data[row * width + column];
    return sum / block ** 2;
  });
}

/** The blocks in which two pictures show the same, with something to see in it. */
function sharedBlocks(one: GrayImage, other: GrayImage): number[] {
  const [ones, others] = [meansOf(one), meansOf(other)];
  const light = median(ones.map((mean, index) => (others[index] + 1) / (mean + 1)));
  const [rough, roughly] = [one, other].map((image) => slopesOf(gaussianBlur(image, coarse), 0));
  return [...ones.keys()].filter(
    (index) =>
      Math.abs(ones[index] * light - others[index]) < alike &&
      rough[index] * light * light > detail / 100 &&
      roughly[index] > detail / 100 &&
      Math.abs(Math.log((rough[index] * light * light) / roughly[index])) < Math.log(1.5),
  );
}

/** The Gaussian that makes one picture as soft as another; null where it is the softer one already. */
function softening(
  one: GrayImage,
  other: GrayImage,
  blocks: readonly number[],
  grains: readonly [number, number],
): number | null {
  const wanted = slopesOf(other, grains[1]);
  const [ones, others] = [meansOf(one), meansOf(other)];
  const told = blocks.filter((index) => wanted[index] > detail + 4 * (grains[0] + grains[1]));
  if (told.length < fewest) return null;
  let last: { deviation: number; ratio: number } | null = null;
  for (const deviation of tried) {
    const softened = deviation > 0 ? gaussianBlur(one, deviation) : one;
    // Grain is softened too, and soon gone.
    const left = grains[0] / (1 + 4 * Math.PI * deviation * deviation);
    const slopes = slopesOf(softened, left);
    const ratio = median(
      told.map((index) => (slopes[index] / wanted[index]) * ((others[index] + 1) / (ones[index] + 1)) ** 2),
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
  const softer = softening(other, one, blocks, [grains[1], grains[0]]);
  return softer === null ? null : { sharper: -softer, across };
}
