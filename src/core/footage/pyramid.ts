import { checkPicture, type GrayImage } from '../picture/image';

/** A picture with its smaller versions, each half as large, lightly smoothed. */
export type Level = { width: number; height: number; data: Float32Array };

/** Binomial smoothing (1 2 1) in both directions, edges repeated. */
function smooth(image: Level): Level {
  const { width, height, data } = image;
  const rows = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const base = y * width;
    for (let x = 0; x < width; x++) {
      const left = data[base + Math.max(0, x - 1)];
      const right = data[base + Math.min(width - 1, x + 1)];
      rows[base + x] = (left + 2 * data[base + x] + right) / 4;
    }
  }
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const up = Math.max(0, y - 1) * width;
    const down = Math.min(height - 1, y + 1) * width;
    for (let x = 0; x < width; x++)
      out[y * width + x] = (rows[up + x] + 2 * rows[y * width + x] + rows[down + x]) / 4;
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
