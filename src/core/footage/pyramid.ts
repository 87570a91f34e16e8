import { checkPicture, type GrayImage } from '../picture/image';

/** A picture with its smaller versions, each half as large, lightly smoothed. */
export type Level = { width: number; height: number; data: Float32Array };

/** Binomial smoothing (1 2 1) in both directions, edges repeated. */
function smooth(image: Level): Level {
  const { width, height, data } = image;
  const rows = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const base = y * width;
    const last = base + width - 1;
    rows[base] = (3 * data[base] + data[base + 1]) / 4;
    for (let at = base + 1; at < last; at++) rows[at] = (data[at - 1] + 2 * data[at] + data[at + 1]) / 4;
    rows[last] = (data[last - 1] + 3 * data[last]) / 4;
  }
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const base = y * width;
    const up = y > 0 ? -width : 0;
    const down = y + 1 < height ? width : 0;
    for (let at = base; at < base + width; at++)
      out[at] = (rows[at + up] + 2 * rows[at] + rows[at + down]) / 4;
  }
  return { width, height, data: out };
}

function halve(image: Level): Level {
  const width = image.width >> 1;
  const height = image.height >> 1;
  const data = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = 2 * y * image.width + 2 * x;
      data[y * width + x] =
        (image.data[at] +
          image.data[at + 1] +
          image.data[at + image.width] +
          image.data[at + image.width + 1]) /
        4;
    }
  }
  return { width, height, data };
}

/** Levels from full size down to about 48 pixels on the short side. */
export function pyramidOf(image: GrayImage): Level[] {
  checkPicture(image, 1);
  let level: Level = smooth({
    width: image.width,
    height: image.height,
    data: Float32Array.from(image.data),
  });
  const levels = [level];
  while (Math.min(level.width, level.height) >= 72) {
    level = halve(level);
    levels.push(level);
  }
  return levels;
}
