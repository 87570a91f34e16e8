import { invertAffine } from '../geometry/affine';
import { placementMatrix, type Placement } from '../geometry/placement';
import type { GrayImage, RgbaImage } from '../picture/image';
import type { Size } from '../geometry/size';
import { seeded } from '../random';

type Blob = { x: number; y: number; size: number; level: number };

/** A continuous picture: shelves of blobs and edges, whose value is known at every point. */
export function texture(seed: number, size: Size): (x: number, y: number) => number {
  const next = seeded(seed);
  const blobs: Blob[] = Array.from({ length: 160 }, () => ({
    x: next() * size.width * 1.2 - size.width * 0.1,
    y: next() * size.height * 1.2 - size.height * 0.1,
    size: 4 + next() * 26,
    level: next() * 150 - 75,
  }));
  return (x, y) => {
    let value = 120 + 25 * Math.sin(x / 23 + y / 41);
    for (const blob of blobs) {
      const distance = Math.abs(x - blob.x) + Math.abs(y - blob.y) * 0.8 - blob.size;
      if (distance < 3) value += blob.level / (1 + Math.exp(3 * distance));
    }
    return Math.min(250, Math.max(5, value));
  };
}

/** Draws a texture as a camera that moved would see it, with gain, noise and something standing in front. */
export function shot(
  at: (x: number, y: number) => number,
  size: Size,
  moved: Placement,
  options: {
    gain?: number;
    noise?: number;
    seed?: number;
    /** in checks, or of one level where it has one */
    performer?: { x: number; y: number; w: number; h: number; level?: number };
  } = {},
): GrayImage {
  const back = invertAffine(placementMatrix(moved, size));
  const next = seeded(options.seed ?? 1);
  const data = new Float32Array(size.width * size.height);
  const { performer } = options;
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) {
      const px = back[0] * (x + 0.5) + back[2] * (y + 0.5) + back[4];
      const py = back[1] * (x + 0.5) + back[3] * (y + 0.5) + back[5];
      let value = at(px, py) * (options.gain ?? 1);
      if (
        performer &&
        x >= performer.x &&
        x < performer.x + performer.w &&
        y >= performer.y &&
        y < performer.y + performer.h
      ) {
        value = performer.level ?? 60 + 50 * Math.sin((x - performer.x) / 5) * Math.cos(y / 7);
      }
      const grain = (next() + next() + next() - 1.5) * 2 * (options.noise ?? 0);
      data[y * size.width + x] = Math.min(255, Math.max(0, value + grain));
    }
  }
  return { ...size, data };
}

/** A coloured picture of a formula. */
export function painted(size: Size, colour: (x: number, y: number) => [number, number, number]): RgbaImage {
  const data = new Uint8ClampedArray(size.width * size.height * 4);
  for (let y = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++) data.set([...colour(x, y), 255], (y * size.width + x) * 4);
  }
  return { ...size, data };
}

export const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];
