import { describe, expect, test } from 'vitest';
import { shot, texture } from '../__tests__/scene';
import { inPlace } from '../geometry/placement';
import { gaussianBlur } from '../picture/gaussian';
import type { GrayImage } from '../picture/image';
import { softnessBetween } from './softness';

const size = { width: 480, height: 270 };
const at = texture(9, size);
/** A set as a sharp lens sees it: of 4 × 4 points each pixel, so that an edge is about a pixel wide. */
const sharp = gaussianBlur(shot(at, size, inPlace), 0.5);
const noisy = (image: GrayImage, deviation: number, seed: number): GrayImage => {
  const noise = shot(() => 128, size, inPlace, { noise: deviation, seed }).data;
  return { ...image, data: Float32Array.from(image.data, (value, index) => value + noise[index] - 128) };
};
const lit = (image: GrayImage, gain: number): GrayImage => ({
  ...image,
  data: Float32Array.from(image.data, (value) => value * gain),
});

describe('how much sharper a picture is than another of the same set', () => {
  test.each([0, 0.5, 0.8, 1.2, 2.2])('is told to a seventh of a pixel: softened by %s', (deviation) => {
    const soft = deviation > 0 ? gaussianBlur(sharp, deviation) : sharp;
    expect(Math.abs(softnessBetween(sharp, soft)!.sharper - deviation)).toBeLessThan(0.15);
    expect(Math.abs(softnessBetween(soft, sharp)!.sharper + deviation)).toBeLessThan(0.15);
    // In other light, and with grain in both: what is told of two that are as sharp is below what counts.
    const grained = softnessBetween(noisy(sharp, 2, 3), noisy(lit(soft, 0.85), 1, 4), [4, 1])!;
    expect(Math.abs(grained.sharper - deviation)).toBeLessThan(deviation > 0 ? 0.25 : 0.45);
  });

  test.each([3.5, 5, 8])(
    'is told to be far off where focus was lost altogether: softened by %s',
    (deviation) => {
      const lost = gaussianBlur(sharp, deviation);
      expect(softnessBetween(sharp, lost)!.sharper).toBeGreaterThan(3);
      expect(softnessBetween(lost, sharp)!.sharper).toBeLessThan(-3);
      expect(softnessBetween(noisy(sharp, 2, 3), noisy(lost, 2, 4), [4, 4])!.sharper).toBeGreaterThan(2);
      // Where nobody knows of the grain, less is told, but still that it is soft.
      expect(softnessBetween(noisy(sharp, 1, 3), noisy(lost, 1, 4))!.sharper).toBeGreaterThan(1);
    },
  );

  test('is told beside somebody who stands in one of them alone, and not where nothing is the same', () => {
    const soft = gaussianBlur(sharp, 1);
    const there = shot(at, size, inPlace, { performer: { x: 150, y: 0, w: 190, h: 270 } });
    const before = { ...soft, data: Float32Array.from(soft.data) };
    for (let y = 0; y < size.height; y++)
      for (let x = 150; x < 340; x++) before.data[y * size.width + x] = there.data[y * size.width + x];
    expect(Math.abs(softnessBetween(sharp, before)!.sharper - 1)).toBeLessThan(0.15);
    const elsewhere = shot(texture(10, size), size, inPlace);
    const plain = shot(() => 90, size, inPlace);
    expect(softnessBetween(sharp, plain)).toBeNull();
    expect(softnessBetween(plain, plain)).toBeNull();
    expect(softnessBetween(sharp, elsewhere)).toBeNull();
  });
});
