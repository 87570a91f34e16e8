import { describe, expect, it } from 'vitest';
import { mediaIn, secondsAt } from '../picture/node';
import { chosenTake, projectOf } from './__tests__/chosen';
import { halvesOf } from './halves';

const rate = { num: 25, den: 1 };
const size = { width: 1280, height: 720 };
const project = projectOf(size, rate);
const both = [chosenTake('one', size, rate, 100), chosenTake('other', size, rate, 100)] as const;

describe('half of a take beside half of another', () => {
  it('shows the first at the left and the second at the right, the one as much further as is asked', () => {
    for (const further of [0, 0.6, -0.4]) {
      const [one, other] = mediaIn(halvesOf(project, both, 100, further));
      expect([one.content.media, other.content.media]).toEqual(['media-one', 'media-other']);
      expect(secondsAt(one, 30) - secondsAt(other, 30)).toBeCloseTo(further, 9);
      expect(Math.min(secondsAt(one, 0), secondsAt(other, 0))).toBe(0);
      expect(one.mattes).toEqual([]);
      const [{ shape }] = other.mattes;
      const rings = shape.is === 'outline' ? shape.keys.flatMap((key) => key.rings) : [];
      const xs = rings.flat().map(([x]) => x);
      expect([Math.min(...xs), Math.max(...xs)]).toEqual([640, 1280]);
    }
  });

  it('shows what there is of it', () => {
    expect(mediaIn(halvesOf(project, [null, both[1]], 100, 0))).toHaveLength(1);
    expect(mediaIn(halvesOf(project, [null, null], 100, 0))).toEqual([]);
  });
});
