import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/size';
import { cropImage, type RgbaImage } from '../picture/image';
import { seeded } from '../random';
import { movingUnder } from './under';

const size = { width: 40, height: 30 };
const ring: Point[] = [
  [10, 8],
  [30, 8],
  [30, 22],
  [10, 22],
];
const times = Array.from({ length: 61 }, (_, index) => 2 + index / 25);

/** A noisy wall, and something of another colour over some columns in each picture. */
function film(columns: (index: number) => [number, number] | null, noise = 3): RgbaImage[] {
  const random = seeded(9);
  return Array.from({ length: 60 }, (_, index) => {
    const data = new Uint8ClampedArray(size.width * size.height * 4);
    const there = columns(index);
    for (let place = 0; place < size.width * size.height; place++) {
      const x = place % size.width;
      const covered = there && x >= there[0] && x < there[1];
      for (let channel = 0; channel < 3; channel++)
        data[place * 4 + channel] = (covered && channel > 0 ? 90 : 130) + noise * (random() + random() - 1);
    }
    return { ...size, data };
  });
}

describe('what moves under an outline', () => {
  it('is told with its first and last picture, twice where it comes twice', () => {
    const there = (index: number): [number, number] | null =>
      (index >= 12 && index < 20) || (index >= 40 && index < 45) ? [26, 40] : null;
    const found = movingUnder(film(there), ring, times);
    expect(found.map(({ from, to }) => [from, to])).toEqual([
      [times[12], times[20]],
      [times[40], times[45]],
    ]);
    // Planted: 4 of its 20 columns.
    expect(found[0].share).toBeCloseTo(0.2, 2);
  });

  it('is nothing beside the outline, in what stands there all the time, and in noise', () => {
    expect(
      movingUnder(
        film((index) => (index > 20 ? [31, 40] : null)),
        ring,
        times,
      ),
    ).toEqual([]);
    expect(
      movingUnder(
        film(() => [12, 20]),
        ring,
        times,
      ),
    ).toEqual([]);
    for (const noise of [0, 8, 16])
      expect(
        movingUnder(
          film(() => null, noise),
          ring,
          times,
        ),
      ).toEqual([]);
  });

  it('is also found where somebody stands there for most of the take and walks away', () => {
    const [span, more] = movingUnder(
      film((index) => (index < 50 ? [10, 30] : null)),
      ring,
      times,
    );
    expect([span.from, span.to, more]).toEqual([times[50], times[60], undefined]);
  });

  it('asks for pictures and an outline with pixels in it', () => {
    expect(movingUnder([], ring, [])).toEqual([]);
    expect(
      movingUnder(
        film(() => null),
        [
          [3, 3],
          [3, 4],
          [3, 5],
        ],
        times,
      ),
    ).toEqual([]);
  });
});

describe('a part of a picture', () => {
  it('has the pixels that its box touches, also along the edge', () => {
    const data = Uint8ClampedArray.from({ length: 4 * 4 * 3 }, (_, at) => at);
    const { image, corner } = cropImage(
      { width: 4, height: 3, data },
      { left: 0.3, top: 0.4, right: 1, bottom: 1 },
    );
    expect([corner, image.width, image.height]).toEqual([[1, 1], 3, 2]);
    expect(image.data[0]).toBe((1 * 4 + 1) * 4);
    expect(image.data.at(-1)).toBe(47);
  });
});
