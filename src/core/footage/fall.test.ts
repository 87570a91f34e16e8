import { describe, expect, it } from 'vitest';
import type { GrayImage } from '../picture/image';
import { seeded } from '../random';
import { fallOf, frontIn } from './fall';

const size = { width: 160, height: 90 };
const rate = 24;
const times = Array.from({ length: 48 }, (_, index) => 3 + index / rate);

/** A wall before which somebody sways, and a ragged sheet that falls from rest. */
function picture(index: number, begins: number, lasts: number, seed = 1): GrayImage {
  const next = seeded(seed * 100 + index);
  const share = Math.max(0, times[index] - begins) / lasts;
  const front = size.height * share ** 2;
  const back = size.height * Math.max(0, share - 0.35) ** 2;
  const sway = 4 * Math.sin(index / 6);
  const data = new Float32Array(size.width * size.height);
  for (let y = 0, p = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++, p++) {
      const ragged = 1.5 * Math.sin(x / 4);
      const isSheet = y < front + ragged && y >= back;
      const isBody = Math.abs(x - 80 - sway) < 18 && y > 30;
      data[p] = (isSheet ? 200 : isBody ? 60 : 110 + 20 * Math.sin(x / 5)) + 6 * (next() - 0.5);
    }
  return { ...size, data };
}
const measured = (begins: number, lasts: number, seed = 1) => {
  const pictures = times.map((_, index) => picture(index, begins, lasts, seed));
  return fallOf(
    pictures.map((one) => frontIn(pictures[0], one)),
    times,
  );
};

describe('what falls', () => {
  // It is drawn, so when it falls is known exactly; within one frame is what is asked for.
  it.each([
    [3.3, 0.8],
    [3.52, 0.5],
    [3.2, 1.2],
  ])('begins at %f s and takes %f s, within a frame', (begins, lasts) => {
    for (const seed of [1, 2, 3]) {
      const fall = measured(begins, lasts, seed);
      expect(Math.abs((fall?.begins ?? NaN) - begins)).toBeLessThan(0.75 / rate);
      expect(Math.abs((fall?.lasts ?? NaN) - lasts)).toBeLessThan(1 / rate);
      expect(fall?.off).toBeLessThan(0.05);
    }
  });

  it('is nothing where somebody only moves, where it stops half-way, and where light comes on all at once', () => {
    expect(measured(99, 1)).toBeNull();
    expect(
      fallOf(
        times.map((_, index) => Math.min(0.5, index / 30)),
        times,
      ),
    ).toBeNull();
    expect(
      fallOf(
        times.map((_, index) => (index < 20 ? 0 : 1)),
        times,
      ),
    ).toBeNull();
    expect(fallOf([], [])).toBeNull();
  });

  it('tells what does not fall freely', () => {
    const even = times.map((_, index) => Math.min(1, index / 30));
    expect(fallOf(even, times)?.off).toBeGreaterThan(0.06);
  });
});
