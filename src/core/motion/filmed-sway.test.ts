import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inPlace } from '../geometry/placement';
import { filmedSway, swayAt } from './filmed-sway';
import { swayOf } from './sway';

const size = { width: 480, height: 270 };
const starts = (seconds: number, rate = 30) =>
  Float64Array.from({ length: seconds * rate }, (_, index) => index / rate);
/** A camera that walks sideways and sways as a hand with a strength in pixels. */
const walked = (times: Float64Array, strength: number, seed = 3) => {
  const sway = swayOf(strength, 0.7, seed);
  return [...times].map((time) => {
    const { x, y, rotation } = sway(time);
    return { ...inPlace, dx: 14 * time + x, dy: y, rotation };
  });
};

describe('a sway that was filmed', () => {
  it('is found as strong as it was, without the walk, and for any size of the film', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 8, noNaN: true }),
        fc.integer({ min: 1, max: 99 }),
        (pixels, seed) => {
          const times = starts(10);
          const found = filmedSway(walked(times, pixels, seed), times, size);
          const percent = (100 * pixels) / size.width;
          // Taking the path off counts the swings a little twice: a tenth at most.
          expect(found?.strength).toBeGreaterThan(percent * 0.9);
          expect(found?.strength).toBeLessThan(percent * 1.25);
        },
      ),
    );
  });

  it('follows the hand, and begins again without a jump', () => {
    const times = starts(10);
    const found = filmedSway(walked(times, 5), times, size);
    if (!found) throw new Error('There is a sway.');
    const at = (seconds: number) => swayAt(found.sway, seconds);
    const length = (found.sway.x.length - 1) * found.sway.every;
    expect([at(0).x, at(length).x, at(length - 1e-9).y]).toEqual(
      [0, 0, 0].map((zero) => expect.closeTo(zero, 6)),
    );
    for (const seconds of [0.3, 2.11, 7.7]) expect(at(seconds + 3 * length).x).toBeCloseTo(at(seconds).x, 6);
    // Quick swings are those of the hand: they go the same way at the same time.
    const quick = swayOf(5, 0.7, 3);
    let same = 0;
    for (let seconds = 1; seconds < 8; seconds += 0.25) {
      const [made, real] = [at(seconds + 0.25).x - at(seconds).x, quick(seconds + 0.25).x - quick(seconds).x];
      same += Number(Math.sign(made) === Math.sign(real));
    }
    expect(same).toBeGreaterThan(20);
  });

  it('is none where the camera stood, or the take is too short', () => {
    const times = starts(6);
    expect(filmedSway(walked(times, 0.005), times, size)).toBeNull();
    const short = starts(1);
    expect(filmedSway(walked(short, 5), short, size)).toBeNull();
    expect(filmedSway([], [], size)).toBeNull();
  });
});
