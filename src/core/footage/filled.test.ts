import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { texture } from '../__tests__/scene';
import type { GrayImage } from '../picture/image';
import { seeded } from '../random';
import { filledIn, leastFilled } from './filled';

const size = { width: 160, height: 90 };
const walls = Array.from({ length: 7 }, (_, index) => texture(11 + index, size));
const wall = (x: number, y: number) => walls[Math.floor(x / size.width) % 7](x % size.width, y);
const cloth = texture(30, size);

/** Something that stands before the lens from one column to another. */
type Passing = { from: number; until: number; light: number; isSharp: boolean };

/** A picture of a wall from `across` on, with what passes before it, and the noise that is left of 3/255 where it was shrunk to that size. */
function film(across: number, passing: Passing | null, seed: number): GrayImage {
  const next = seeded(seed);
  const data = new Uint8Array(size.width * size.height).map((_, at) => {
    const [x, y] = [at % size.width, Math.floor(at / size.width)];
    const isCovered = passing && x >= passing.from && x < passing.until;
    const covers = passing && passing.light + (passing.isSharp ? 0.3 * cloth(x, y) : 0);
    const value = isCovered ? (covers ?? 0) : 40 + 0.7 * wall(x + across, y);
    return Math.max(0, Math.min(255, value + (next() + next() + next() - 1.5) * 2));
  });
  return { ...size, data };
}

/** Somebody `wide` columns wide who goes past from left to right, `pace` columns a picture. */
const passed = (wide: number, pace: number, light: number, isSharp: boolean) => (picture: number) => {
  const until = pace * picture;
  return { from: until - wide, until, light, isSharp };
};
const shareOf = ({ from, until }: Passing) =>
  Math.max(0, Math.min(size.width, until) - Math.max(0, from)) / size.width;

// Source: the scene is made up; how much of it is covered is known of each picture.
describe('how much of a picture is covered by what passes', () => {
  it('is told of a camera that stands, of whatever passes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 60, max: 260 }),
        fc.constantFrom(12, 25, 225),
        fc.boolean(),
        fc.nat(1000),
        (wide, light, hasPattern, seed) => {
          const isSharp = hasPattern && light < 200;
          const past = passed(wide, 25, light, isSharp);
          const pictures = Array.from({ length: 40 }, (_, picture) => film(0, past(picture), seed + picture));
          filledIn(pictures).forEach((share, picture) =>
            // A cell is covered or not; what is as light as the wall in places is not told from it there.
            expect(Math.abs(share - shareOf(past(picture))), `${picture}`).toBeLessThan(isSharp ? 0.2 : 0.1),
          );
        },
      ),
      { numRuns: 8 },
    );
  });

  it('is told where a take ends in it, if that is out of focus', () => {
    const past = passed(400, 25, 30, false);
    const filled = filledIn(Array.from({ length: 16 }, (_, picture) => film(0, past(picture - 8), picture)));
    expect(filled[15]).toBeGreaterThan(0.9);
    expect(filled[7]).toBeLessThan(0.1);
  });

  it('is told of a camera that moves, where what passes is out of focus', () => {
    const past = passed(200, 20, 30, false);
    const pictures = Array.from({ length: 60 }, (_, picture) => film(9 * picture, past(picture), picture));
    const filled = filledIn(pictures);
    filled.forEach((share, picture) =>
      expect(Math.abs(share - shareOf(past(picture))), `${picture}`).toBeLessThan(0.18),
    );
    expect(filled.indexOf(Math.max(...filled))).toBeGreaterThanOrEqual(8);
    expect(filled.indexOf(Math.max(...filled))).toBeLessThanOrEqual(10);
  });

  it('is little where nothing fills it, whether the camera stands, goes along, or whips', () => {
    for (const pace of [0, 2, 9, 40]) {
      const pictures = Array.from({ length: 50 }, (_, picture) =>
        film(pace * picture, { from: 60 + picture, until: 90 + picture, light: 30, isSharp: true }, picture),
      );
      expect(Math.max(...filledIn(pictures)), `${pace}`).toBeLessThan(leastFilled);
    }
    // Stands for a while, whips away, as long as the shutter is open, and stays there.
    const way = (picture: number) => 45 * Math.max(0, Math.min(8, picture - 30));
    const whipped = Array.from({ length: 60 }, (_, picture) => {
      const [from, until] = [way(picture), way(picture + 1)];
      const seen = Array.from({ length: until > from ? 12 : 1 }, (_, at) =>
        film(Math.round(from + ((until - from) * at) / 12), null, 12 * picture + at),
      );
      const data = seen[0].data.map(
        (_, at) => seen.reduce((sum, one) => sum + one.data[at], 0) / seen.length,
      );
      return { ...size, data };
    });
    expect(Math.max(...filledIn(whipped)), 'whipped away').toBeLessThan(leastFilled);
    expect(filledIn([])).toEqual(new Float32Array(0));
    expect(filledIn([film(0, null, 1)])).toEqual(new Float32Array(1));
  });
});
