import { describe, expect } from 'vitest';
import { plateMatte } from '@/core';
import { quantile } from '@/core/statistics';
import { test } from './support/test';
import { filmWalker, outside, size } from './support/walker-film';

const times = [0, 3, 6, 9, 12, 15];

/** Intersection over union with the figure, how far off the matte's edge is in pixels, and its mean error. */
function judged({ data }: { data: Uint8Array }, time: number) {
  const { width, height } = size;
  let [both, either, error] = [0, 0, 0];
  const edge: number[] = [];
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const off = outside(x + 0.5, y + 0.5, time);
      const [is, found] = [off < 0, data[p] > 127];
      if (is && found) both++;
      if (is || found) either++;
      error += Math.abs(Math.min(1, Math.max(0, 0.5 - off)) - data[p] / 255);
      if (x + 1 < width && found !== data[p + 1] > 127) edge.push(Math.abs(outside(x + 1, y + 0.5, time)));
      if (y + 1 < height && found !== data[p + width] > 127)
        edge.push(Math.abs(outside(x + 0.5, y + 1, time)));
    }
  return { overlap: both / either, edge, error: error / (width * height) };
}

describe('a matte from the plate, of a figure with a photograph’s colours after H.264', () => {
  // Limits: what issue and design ask for. The figure's shape is known exactly.
  test('overlaps the figure by 95 % and more, and its edge is within a pixel and a half', ({ file }) => {
    const { plate, pictures } = filmWalker(file, 'waves', times);
    pictures.forEach((picture, index) => {
      const { overlap, edge, error } = judged(plateMatte(plate, picture), times[index]);
      expect(overlap).toBeGreaterThan(0.97);
      expect(quantile(edge, 0.9)).toBeLessThan(1.5);
      expect(error).toBeLessThan(0.004);
    });
  });

  // Before the photograph itself the figure has the ground's very colours in places.
  test('overlaps it so before a photograph as well', ({ file }) => {
    const { plate, pictures } = filmWalker(file, 'photograph', times);
    pictures.forEach((picture, index) => {
      const { overlap, edge, error } = judged(plateMatte(plate, picture), times[index]);
      expect(overlap).toBeGreaterThan(0.95);
      expect(quantile(edge, 0.5)).toBeLessThan(1.5);
      expect(error).toBeLessThan(0.006);
    });
  });
});
