import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import { seeded } from '../random';
import { cutOutBackdrop } from './cutout';
import { withoutSpill } from '../picture/spill';
import { backdropOf, keyMatte } from './key';

const size = { width: 160, height: 90 };
type Rgb = [number, number, number];
const green: Rgb = [40, 170, 60];
const blue: Rgb = [30, 60, 180];
const red: Rgb = [180, 40, 40];
/** How much of a pixel a disc covers, its edge some pixels soft. */
const covers = (x: number, y: number, soft: number) =>
  Math.min(1, Math.max(0, 0.5 + (28 - Math.hypot(x + 0.5 - 80, y + 0.5 - 50)) / soft));
/** A disc before a backdrop that is lit unevenly, with noise. */
function filmed(key: Rgb, worn: Rgb, { soft = 2, noise = 2, uneven = 0.2, spill = 0 } = {}) {
  const next = seeded(3);
  return painted(size, (x, y) => {
    const light = 1 - uneven * (x / size.width);
    const cover = covers(x, y, soft);
    return key.map(
      (value, channel) =>
        cover * (worn[channel] + spill * (value - worn[channel])) +
        (1 - cover) * value * light +
        noise * (next() + next() + next() - 1.5) * 1.4,
    ) as Rgb;
  });
}
const share = (test: (pixel: number) => boolean) =>
  Array.from({ length: size.width * size.height }, (_, pixel) => Number(test(pixel))).reduce(
    (a, b) => a + b,
    0,
  );

describe('a matte by the colour of the backdrop', () => {
  // The picture is mixed of both, so how much of a pixel is covered is known.
  it.each([
    ['grey before green', green, [120, 118, 122]],
    ['skin before green', green, [205, 150, 120]],
    ['black before green', green, [12, 12, 14]],
    ['white before blue', blue, [235, 232, 228]],
    ['red before blue', blue, red],
  ] as [string, Rgb, Rgb][])('covers %s', (_, key, worn) => {
    for (const soft of [2, 12]) {
      const { data } = keyMatte(filmed(key, worn, { soft, uneven: 0 }), key, {
        tolerance: 0.05,
        spill: 0.02,
      });
      const errors = Array.from(data, (value, pixel) =>
        Math.abs(value / 255 - covers(pixel % size.width, Math.floor(pixel / size.width), soft)),
      );
      const mean = errors.reduce((sum, one) => sum + one, 0) / errors.length;
      // Clothes of another colour than the key's opposite mix to less of it than grey ones do.
      expect(mean).toBeLessThan(worn === red ? 0.05 : 0.03);
    }
  });

  it('covers nothing of an empty backdrop, however unevenly it is lit, and all of what has none of its colour', () => {
    const empty = filmed(green, green, { uneven: 0.3, noise: 3 });
    const { data } = keyMatte(empty, green);
    expect(share((pixel) => data[pixel] > 25)).toBeLessThan(20);
    const grey = painted(size, () => [130, 128, 131]);
    expect(new Set(keyMatte(grey, green).data)).toEqual(new Set([255]));
    // A grey tells nothing apart.
    expect(new Set(keyMatte(empty, [128, 128, 128]).data)).toEqual(new Set([255]));
  });

  it('covers more, the more of the key is taken for spill, and never less with more tolerance of it', () => {
    fc.assert(
      fc.property(
        fc.record({
          spill: fc.double({ min: 0, max: 0.3, noNaN: true }),
          more: fc.double({ min: 0, max: 0.2, noNaN: true }),
        }),
        ({ spill, more }) => {
          const frame = filmed(green, [150, 140, 130], { soft: 14 });
          const [one, other] = [spill, spill + more].map(
            (value) => keyMatte(frame, green, { spill: value }).data,
          );
          expect(other.every((value, pixel) => value >= one[pixel] - 1)).toBe(true);
        },
      ),
      { numRuns: 10 },
    );
  });

  it('takes the light of the backdrop out of what stands before it, and leaves its luma and other colours', () => {
    const spilled = filmed(green, [150, 140, 130], { spill: 0.25, noise: 0 });
    const clean = withoutSpill(spilled, green);
    const at = (data: ArrayLike<number>) =>
      [0, 1, 2].map((channel) => data[4 * (50 * size.width + 80) + channel]);
    // How far red and green are apart, where the backdrop threw as much green on them as it did.
    const greener = ([reds, greens]: number[]) => greens - reds;
    expect(greener(at(spilled.data))).toBeGreaterThan(20);
    expect(greener(at(clean.data))).toBeLessThan(8);
    const luma = ([r, g, b]: number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
    expect(Math.abs(luma(at(clean.data)) - luma(at(spilled.data)))).toBeLessThan(1);
    const skin = painted(size, () => [205, 150, 120]);
    expect([...withoutSpill(skin, green).data]).toEqual([...skin.data]);
  });

  it('finds the backdrop’s colour by the rim, and none where the rim is a room', () => {
    const found = backdropOf(filmed(green, [180, 40, 40]));
    found?.forEach((value, channel) => expect(Math.abs(value - green[channel] * 0.9)).toBeLessThan(12));
    expect(found).not.toBeNull();
    const next = seeded(9);
    expect(backdropOf(painted(size, () => [next() * 255, next() * 255, next() * 255]))).toBeNull();
    expect(backdropOf(painted(size, () => [120, 118, 119]))).toBeNull();
  });

  it('cuts out who stands before it', () => {
    const { rings, share: covered } = cutOutBackdrop(filmed(green, [180, 40, 40], { noise: 3 }));
    expect(rings).toHaveLength(1);
    const exact = share((pixel) => covers(pixel % size.width, Math.floor(pixel / size.width), 0.01) > 0.5);
    expect(Math.abs(covered * size.width * size.height - exact) / exact).toBeLessThan(0.04);
    expect(cutOutBackdrop(painted(size, () => [120, 118, 119]))).toEqual({ rings: [], share: 0, faint: 0 });
  });
});
