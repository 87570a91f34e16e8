import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ease, gentle, linear, type Bezier } from './easing';
import { curveOf, influencesOf } from './influence';

const share = fc.double({ min: 0.01, max: 0.99, noNaN: true });
const height = fc.double({ min: -1, max: 2, noNaN: true });

describe('the influence of a keyframe', () => {
  it('says the same as the curve, there and back', () => {
    fc.assert(
      fc.property(share, height, share, height, (x1, y1, x2, y2) => {
        const curve: Bezier = [x1, y1, x2, y2];
        curveOf(influencesOf(curve)).forEach((value, index) => expect(value).toBeCloseTo(curve[index], 9));
      }),
    );
  });

  it('is 75 % at rest on both ends where a freeze piece flies', () => {
    // CRAFT.md: "ease with 75 % influence on both ends"; common practice, no published source.
    const flight = { share: 0.75, speed: 0 };
    expect(influencesOf(gentle)).toEqual({ leaves: flight, arrives: flight });
    expect(curveOf({ leaves: flight, arrives: flight })).toEqual(gentle);
  });

  it('gives the speed with which the curve really leaves and arrives', () => {
    fc.assert(
      fc.property(share, height, share, height, (x1, y1, x2, y2) => {
        const curve: Bezier = [x1, y1, x2, y2];
        const step = 1e-4;
        const { leaves, arrives } = influencesOf(curve);
        // A slope by finite difference, which the curve's own bend puts off by a little.
        const bend = 60 * step * (1 + 1 / Math.min(x1, 1 - x2) ** 2);
        expect(Math.abs(ease(curve, step) / step - leaves.speed)).toBeLessThan(bend);
        expect(Math.abs((1 - ease(curve, 1 - step)) / step - arrives.speed)).toBeLessThan(bend);
      }),
      { numRuns: 50 },
    );
    expect(influencesOf(linear)).toMatchObject({ leaves: { share: 0 }, arrives: { share: 0 } });
  });
});
