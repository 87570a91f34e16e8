import { describe, expect, it } from 'vitest';
import { headNear, headOf, headsOf, headUnder, type Head } from './head';
import { headsInWhole, partRound } from './look-at';
import type { Pose } from './pose';

const unseen = { x: 0, y: 0, seen: 0 };

/** Somebody from the front, whose head's middle is at a point of a picture twice as wide as tall; lengths in shares of its height. */
function somebody(x: number, y: number, wide: number, hides: readonly number[] = []): Pose {
  const at = (right: number, down: number) => ({ x: x + (right * wide) / 2, y: y + down * wide, seen: 0.9 });
  const face = [
    [0, 0.1],
    [0.15, -0.1],
    [0.2, -0.1],
    [0.25, -0.1],
    [-0.15, -0.1],
    [-0.2, -0.1],
    [-0.25, -0.1],
    [0.5, 0],
    [-0.5, 0],
    [0.15, 0.3],
    [-0.15, 0.3],
  ].map(([right, down], joint) => (hides.includes(joint) ? unseen : at(right, down)));
  return [...face, ...Array.from({ length: 22 }, () => unseen)];
}

describe('a head in a picture', () => {
  it('lies between the ears and reaches beyond the face', () => {
    const head = headOf(somebody(0.3, 0.4, 0.1), 2);
    expect(head?.at[0]).toBeCloseTo(0.3, 6);
    expect(head?.at[1]).toBeCloseTo(0.4, 6);
    // Half of the distance of the ears is 0.05 of the height, 0.025 of the width.
    expect(head?.reach).toBeGreaterThan(0.025 * 1.4);
    expect(head?.reach).toBeLessThan(0.025 * 2);
  });

  it('is found by what shows of a face, and not where next to nothing does', () => {
    expect(headOf(somebody(0.3, 0.4, 0.1, [7, 3, 2, 1]), 2)).not.toBeNull();
    const most = [0, 1, 2, 3, 4, 5, 6, 7, 8];
    expect(headOf(somebody(0.3, 0.4, 0.1, most), 2)).toBeNull();
    expect(headsOf([somebody(0.3, 0.4, 0.1, most), somebody(0.6, 0.4, 0.1)], 2)).toHaveLength(1);
  });

  it('is as large as the stature says where that says more', () => {
    const pose = [...somebody(0.3, 0.2, 0.02)];
    // A torso of 0.288 of the stature (Drillis & Contini 1966, from memory) over half of the picture's height.
    for (const [shoulder, hip] of [
      [11, 23],
      [12, 24],
    ]) {
      pose[shoulder] = { x: 0.3, y: 0.3, seen: 1 };
      pose[hip] = { x: 0.3, y: 0.8, seen: 1 };
    }
    const reach = headOf(pose, 2)?.reach ?? 0;
    expect(reach).toBeCloseTo((1.5 * 0.065 * (0.5 / 0.288)) / 2, 3);
  });
});

describe('which head is meant', () => {
  const head = (x: number, y = 0.5): Head => ({ at: [x, y], reach: 0.05 });

  it('is the nearest that lies under a point', () => {
    expect(headUnder([head(0.3), head(0.36)], [0.34, 0.5], 2)).toEqual(head(0.36));
    expect(headUnder([head(0.3)], [0.36, 0.5], 2)).toBeNull();
    // Down counts as across: a picture twice as wide as tall has half as much of its height in a head.
    expect(headUnder([head(0.3)], [0.3, 0.59], 2)).not.toBeNull();
    expect(headUnder([head(0.3)], [0.3, 0.61], 2)).toBeNull();
  });

  it('is nobody where two are about as near, or none is near enough', () => {
    expect(headNear([head(0.3), head(0.5)], [0.31, 0.5], 0.1, 2)).toEqual(head(0.3));
    expect(headNear([head(0.3), head(0.35)], [0.325, 0.5], 0.1, 2)).toBeNull();
    expect(headNear([head(0.3)], [0.45, 0.5], 0.1, 2)).toBeNull();
    expect(headNear([], [0.45, 0.5], 0.1, 2)).toBeNull();
  });
});

describe('the part of a picture in which a head is looked for', () => {
  const whole = { width: 1920, height: 1080 };

  it('lies inside the picture and holds the head, wherever that is', () => {
    for (const [x, y, reach] of [
      [0.5, 0.5, 0.02],
      [0, 0, 0.05],
      [1, 1, 0.001],
      [0.9, 0.1, 0.5],
    ]) {
      const { left, top, right, bottom } = partRound(whole, [x, y], reach);
      expect(left).toBeGreaterThanOrEqual(0);
      expect(top).toBeGreaterThanOrEqual(0);
      expect(right).toBeLessThanOrEqual(whole.width);
      expect(bottom).toBeLessThanOrEqual(whole.height);
      expect(x * whole.width).toBeGreaterThanOrEqual(left);
      expect(x * whole.width).toBeLessThanOrEqual(right);
      expect(y * whole.height).toBeGreaterThanOrEqual(top);
      expect(y * whole.height).toBeLessThanOrEqual(bottom);
      expect(right - left).toBe(bottom - top);
    }
  });

  it('gives back where a head is in the whole', () => {
    const part = { left: 960, top: 540, right: 1440, bottom: 1020 };
    const found = headsInWhole([{ at: [0.5, 0.25], reach: 0.1 }], part, whole);
    expect(found).toEqual([{ at: [0.625, 660 / 1080], reach: 0.025 }]);
  });
});
