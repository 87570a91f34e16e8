import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { texture } from '../__tests__/scene';
import type { RgbaImage } from '../picture/image';
import { seeded } from '../random';
import { doubtIn, emptySetFrom } from './empty-set';
import { setRegions, shownAt } from './set-regions';

const size = { width: 96, height: 54 };
const wall = texture(21, size);
const set = Float32Array.from({ length: size.width * size.height * 3 }, (_, at) => {
  const pixel = Math.floor(at / 3);
  return wall(pixel % size.width, Math.floor(pixel / size.width)) * [0.9, 0.8, 0.7][at % 3] + 10;
});

/** Somebody sixteen pixels wide whose left edge is at a column. @param column null is nobody */
function film(column: number | null, seed: number): RgbaImage {
  const next = seeded(seed);
  const data = new Uint8ClampedArray(4 * size.width * size.height);
  for (let pixel = 0; pixel < size.width * size.height; pixel++) {
    const [x, y] = [pixel % size.width, Math.floor(pixel / size.width)];
    const stands = column !== null && x >= column && x < column + 16 && y >= 14;
    for (let channel = 0; channel < 3; channel++)
      data[4 * pixel + channel] =
        (stands ? [44, 84, 128][channel] : set[3 * pixel + channel]) + (next() + next() + next() - 1.5) * 6;
    data[4 * pixel + 3] = 255;
  }
  return { ...size, data };
}

/** Codes by which a picture is off the empty set, at its worst pixel's worst colour, and in the mean. */
function off({ data }: RgbaImage): { worst: number; mean: number } {
  const errors = Array.from(set, (value, at) => Math.abs(value - data[4 * Math.floor(at / 3) + (at % 3)]));
  return { worst: Math.max(...errors), mean: errors.reduce((sum, one) => sum + one, 0) / errors.length };
}

describe('an empty set out of pictures with somebody', () => {
  it('is the set, wherever nobody stands for as much as half of them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 9, max: 25 }), fc.integer({ min: 1, max: 500 }), (count, seed) => {
        const pictures = Array.from({ length: count }, (_, index) =>
          film((index * 80) / count, seed + index),
        );
        const built = emptySetFrom(pictures);
        expect(off(built.picture).mean).toBeLessThan(1.5);
        expect(off(built.picture).worst).toBeLessThan(12);
        expect(doubtIn(built)).toBeLessThan(0.02);
      }),
      { numRuns: 8 },
    );
  });

  it('is put together from two takes in which two stand in two places', () => {
    const pictures = [8, 70, 8, 70, 8, 70, null, null].map(film);
    expect(off(emptySetFrom(pictures).picture).mean).toBeLessThan(1.5);
  });

  it('says where it is in doubt, since somebody stood there for half of the time', () => {
    const built = emptySetFrom([30, 30, 30, 30, 30, 62, 62, 62, 62, 62].map(film));
    const trust = (x: number) => built.trust.data[40 * size.width + x] / 255;
    expect(trust(38)).toBeLessThan(0.6);
    expect(trust(70)).toBeLessThan(0.6);
    expect(trust(5)).toBeGreaterThan(0.9);
    expect(doubtIn(built)).toBeGreaterThan(0.1);
  });

  it('is what the set goes on into, where somebody stands for half of the pictures, or most of them', () => {
    for (const there of [5, 7]) {
      const pictures = Array.from({ length: 10 }, (_, index) => film(index < there ? 10 : 64, index + 31));
      const regions = setRegions(pictures);
      const built = emptySetFrom(pictures, (pixel) => shownAt(regions, pixel));
      expect(off(built.picture).mean, `${there} of 10`).toBeLessThan(2);
      expect(off(built.picture).worst, `${there} of 10`).toBeLessThan(25);
      expect(doubtIn(built)).toBeLessThan(0.02);
    }
  });

  it('takes any picture where something waves everywhere alike, and says that nobody can tell', () => {
    const next = seeded(5);
    const waving = Array.from({ length: 12 }, (_, index) => {
      const picture = film(null, index + 3);
      for (let y = 20; y < 34; y++)
        for (let x = 30; x < 60; x++)
          for (let channel = 0; channel < 3; channel++)
            picture.data[4 * (y * size.width + x) + channel] += 60 * (next() - 0.5);
      return picture;
    });
    const regions = setRegions(waving);
    expect(regions.shown.length).toBeGreaterThan(0);
    expect(shownAt(regions, 27 * size.width + 45)).toBeNull();
    expect(shownAt(regions, 5)).toBeNull();
  });

  it('is refused from too few pictures, and from pictures of two sizes', () => {
    expect(() => emptySetFrom([film(null, 1), film(null, 2)])).toThrow(
      expect.objectContaining({ code: 'few-pictures' }),
    );
    const other = { width: 4, height: 4, data: new Uint8ClampedArray(64) };
    expect(() => emptySetFrom([film(null, 1), film(null, 2), other])).toThrow(
      expect.objectContaining({ code: 'sizes-differ' }),
    );
  });
});
