import { describe, expect, it } from 'vitest';
import { texture } from '../__tests__/scene';
import type { RgbaImage } from '../picture/image';
import { seeded } from '../random';
import type { Mend } from '../model/mend';
import { carried, mended } from './mend';
import type { Track } from './track/track';

const size = { width: 320, height: 180 };
type Box = readonly [left: number, top: number, right: number, bottom: number];
const inBox = ([left, top, right, bottom]: Box, x: number, y: number) =>
  x >= left && x < right && y >= top && y < bottom;

/** A performer: head, trunk, an arm held out, two legs; and a bag that somebody moved, right beside them. */
const body: readonly Box[] = [
  [144, 54, 177, 112],
  [96, 60, 144, 72],
  [144, 112, 157, 170],
  [164, 112, 177, 170],
];
const bag: Box = [177, 84, 214, 118];
const stands = (x: number, y: number) =>
  Math.hypot(x - 160, y - 42) < 13 || body.some((box) => inBox(box, x, y));

const perPixel = <Value>(of: (x: number, y: number) => Value): Value[] =>
  Array.from({ length: size.width * size.height }, (_, p) => of(p % size.width, Math.floor(p / size.width)));
const truth = Uint8Array.from(perPixel((x, y) => Number(stands(x, y))));

/** @param worn what they wear; null is the wall's own colour, a little lighter */
function film(worn: readonly number[] | null, seed: number): RgbaImage {
  const wall = texture(7, size);
  const next = seeded(seed);
  const data = new Uint8ClampedArray(4 * size.width * size.height);
  perPixel((x, y) => {
    const light = wall(x, y) * 0.7 + 20;
    const set = [light, light * 0.9, light * 0.75];
    const lighter = set.map((value) => value + 30);
    const rgb = stands(x, y) ? (worn ?? lighter) : inBox(bag, x, y) ? [52, 74, 60] : set;
    for (let channel = 0; channel < 4; channel++)
      data[4 * (y * size.width + x) + channel] =
        channel === 3 ? 255 : rgb[channel] + (next() + next() + next() - 1.5) * 6;
  });
  return { ...size, data };
}

/** Who was cut out wrongly: half of the arm and a part of the chest are missing, and the bag is taken for a part of them. */
const wrong = Uint8Array.from(
  perPixel((x, y) =>
    Number(
      inBox(bag, x, y) ||
        (stands(x, y) && !inBox([96, 56, 122, 76], x, y) && !inBox([150, 66, 172, 100], x, y)),
    ),
  ),
);

/** Intersection over union with where they really stand. */
function overlap(mask: Uint8Array): number {
  let [both, either] = [0, 0];
  mask.forEach((one, p) => {
    both += one & truth[p];
    either += one | truth[p];
  });
  return both / either;
}

const stroke = (keep: boolean, ...pixels: [number, number][]): Mend => ({
  seconds: 0,
  keep,
  points: pixels.map(([x, y]) => [x / size.width, y / size.height]),
  wide: 0.02,
});
const arm = stroke(true, [100, 66], [124, 66]);
const chest = stroke(true, [160, 70], [161, 96]);
const off = stroke(false, [184, 92], [206, 108]);

describe('a cut-out that strokes put right', () => {
  it.each([
    { name: 'red', worn: [152, 50, 40] },
    { name: 'blue', worn: [44, 84, 128] },
    { name: 'the colour of the wall', worn: null },
  ])('is whole with three of them on somebody in $name', ({ worn }) => {
    const picture = film(worn, 5);
    const mask = mended(picture, wrong, [arm, chest, off]);
    expect(overlap(wrong)).toBeLessThan(0.8);
    expect(overlap(mask)).toBeGreaterThan(worn ? 0.98 : 0.95);
  });

  it('changes nothing far from a stroke, nor anything without one', () => {
    const picture = film([152, 50, 40], 6);
    expect(mended(picture, wrong, [])).toEqual(wrong);
    const mask = mended(picture, wrong, [arm]);
    const far = [...mask.keys()].filter((p) => p % size.width > 170 || p / size.width > 130);
    for (const p of far) expect(mask[p]).toBe(wrong[p]);
  });

  it('obeys what is under a stroke even against the picture, the later one where two cross', () => {
    const picture = film([152, 50, 40], 7);
    const across: [number, number][] = [
      [230, 40],
      [250, 40],
    ];
    const at = (mask: Uint8Array) => mask[40 * size.width + 240];
    expect(at(mended(picture, wrong, [stroke(true, ...across)]))).toBe(1);
    expect(at(mended(picture, wrong, [stroke(true, ...across), stroke(false, ...across)]))).toBe(0);
  });

  it('stays within the picture with a stroke along its rim, a single point, and a mask that is empty or full', () => {
    const picture = film(null, 8);
    for (const mask of [new Uint8Array(truth.length), new Uint8Array(truth.length).fill(1)])
      for (const points of [
        [[0, 0]],
        [
          [0, 0],
          [320, 0],
          [320, 180],
        ],
      ] as [number, number][][])
        for (const keep of [true, false])
          expect(mended(picture, mask, [stroke(keep, ...points)]).every((one) => one <= 1)).toBe(true);
  });
});

describe('strokes on their way to other pictures', () => {
  const found = (from: number, until: number): Track => ({
    points: Array.from({ length: until - from + 1 }, (_, index) => ({
      time: (from + index) / 25,
      at: [0.5 + 0.01 * (from + index - 50), 0.4],
      tap: 0,
      scale: 1,
      rotation: 0,
    })),
    lost: [],
  });
  const drawn = (seconds: number, keep: boolean): Mend => ({
    seconds,
    keep,
    points: [
      [0.4, 0.4],
      [0.5, 0.4],
      [0.6, 0.5],
    ],
    wide: 0.05,
  });

  it('move with what they were drawn on, for half a second and as long as that is seen', () => {
    const lies = (picture: number) => carried([drawn(2, true)], [found(45, 70)], picture / 25);
    expect(lies(50)[0].points).toEqual(drawn(2, true).points);
    const [moved] = lies(55);
    moved.points.forEach(([x, y], index) => {
      expect(x).toBeCloseTo(drawn(2, true).points[index][0] + 0.05, 9);
      expect(y).toBeCloseTo(drawn(2, true).points[index][1], 9);
    });
    expect(lies(63)).toEqual([]);
    expect(lies(44)).toEqual([]);
  });

  it('give way to those of a nearer picture', () => {
    const mends = [drawn(2, true), drawn(2.4, false)];
    const tracks = [found(40, 70), found(40, 70)];
    expect(carried(mends, tracks, 2.08).map(({ keep }) => keep)).toEqual([false, true]);
    expect(carried(mends, tracks, 2.32).map(({ keep }) => keep)).toEqual([true, false]);
  });
});
