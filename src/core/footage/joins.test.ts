import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { texture } from '../__tests__/scene';
import type { GrayImage } from '../picture/image';
import { seeded } from '../random';
import { findJoins } from './joins';

const size = { width: 160, height: 90 };
const wall = texture(11, size);
const ground = Float32Array.from({ length: size.width * size.height }, (_, p) =>
  wall(p % size.width, Math.floor(p / size.width)),
);

/** Where somebody stands and how far their arm is raised. */
type Pose = { x: number; arm: number };

/** A picture of somebody in a room as a camera sees it, with noise of 3/255. */
function film({ x, arm }: Pose, seed: number): GrayImage {
  const next = seeded(seed);
  const data = ground.map((value) => value + (next() + next() + next() - 1.5) * 6);
  const fill = (left: number, top: number, right: number, bottom: number, value: number) => {
    for (let y = Math.max(0, Math.round(top)); y < Math.min(size.height, bottom); y++)
      for (let column = Math.max(0, Math.round(left)); column < Math.min(size.width, right); column++)
        data[y * size.width + column] = value + (next() - 0.5) * 6;
  };
  fill(x - 8, 36, x + 8, 90, 40);
  fill(x - 5, 22, x + 5, 36, 200);
  fill(x + 8, 60 - arm, x + 24, 66 - arm, 60);
  return { ...size, data };
}

/** Somebody who walks and waves: to the right, their arm on its own time. */
const walk = (count: number, start: number, pace: number, phase: number): Pose[] =>
  Array.from({ length: count }, (_, index) => ({
    x: start + pace * index,
    arm: 14 + 14 * Math.sin(index / 4 + phase),
  }));

describe('joins of two takes', () => {
  it('are found where both show the same, moving the same way, to the picture', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 8, max: 50 }),
        fc.integer({ min: 8, max: 50 }),
        fc.integer({ min: 1, max: 1000 }),
        (i, j, seed) => {
          const one = walk(60, 20, 1.8, 0);
          const other = walk(60, 30, 1.1, seed);
          // The second take comes into the first one's pose, moves as that for a moment, and goes its own way again.
          for (let step = -2; step <= 2; step++) other[j + step] = { ...one[i + step] };
          const takes = [one, other].map((poses, take) =>
            poses.map((pose, index) => film(pose, seed + 100 * take + index)),
          );
          const [best] = findJoins(takes[0], takes[1]);
          expect(best.a - best.b).toBe(i - j);
          expect(Math.abs(best.a - i)).toBeLessThanOrEqual(1);
          // What is left is noise.
          expect(best.cost).toBeLessThan(4);
        },
      ),
      { numRuns: 10 },
    );
  });

  it('count only in a part of the picture where one is drawn', () => {
    const one = walk(30, 60, 0, 0);
    const other = walk(30, 100, 0, 1.5);
    const takes = [one, other].map((poses, take) =>
      poses.map((pose, index) => film(pose, 100 * take + index)),
    );
    const [whole] = findJoins(takes[0], takes[1]);
    const [empty] = findJoins(takes[0], takes[1], { region: { x: 0, y: 0, width: 30, height: 90 } });
    expect(whole.cost).toBeGreaterThan(10);
    expect(empty.cost).toBeLessThan(6);
  });

  it('of a take with itself lead onward: to where a movement comes round again', () => {
    const turns = walk(80, 80, 0, 0);
    const take = turns.map((pose, index) => film(pose, index));
    const period = 8 * Math.PI;
    for (const { a, b, cost } of findJoins(take, take, { limit: 3 })) {
      expect(b).toBeGreaterThan(a);
      expect(Math.abs(b - a - period * Math.round((b - a) / period))).toBeLessThan(1.2);
      expect(cost).toBeLessThan(6);
    }
  });

  it('say how much the takes change there themselves: a good one changes no more', () => {
    const one = walk(40, 20, 2, 0);
    const other = walk(40, 30, 1.4, 2);
    for (let step = -2; step <= 2; step++) other[20 + step] = { ...one[15 + step] };
    const takes = [one, other].map((poses, take) =>
      poses.map((pose, index) => film(pose, index + 100 * take)),
    );
    const [best] = findJoins(takes[0], takes[1]);
    expect(best.cost / best.step).toBeLessThan(1.5);
    // Another pose and another place: what changes there is a jump.
    const far = walk(40, 120, 0.2, 3).map((pose, index) => film(pose, index + 300));
    const [jump] = findJoins(takes[0], far);
    expect(jump.cost / jump.step).toBeGreaterThan(3);
    expect(findJoins([takes[0][0]], [takes[1][0]])[0].step).toBe(0);
  });

  it('of a dissolve are where both go on alike for all of it, and leave room for it', () => {
    const one = walk(60, 20, 1.8, 0);
    const other = walk(60, 30, 1.1, 2);
    // Alike for three pictures at one place, and for fourteen at another.
    for (let step = 0; step < 3; step++) other[8 + step] = { ...one[40 + step] };
    for (let step = 0; step < 14; step++)
      other[30 + step] = { ...one[12 + step], arm: one[12 + step].arm + 1 };
    const takes = [one, other].map((poses, take) =>
      poses.map((pose, index) => film(pose, index + 100 * take)),
    );
    const [dissolve] = findJoins(takes[0], takes[1], { over: 12 });
    expect(dissolve.b - dissolve.a).toBe(18);
    expect(Math.abs(dissolve.a - 13)).toBeLessThanOrEqual(1);
    for (const { a, b } of findJoins(takes[0], takes[1], { over: 12 }))
      expect(Math.max(a, b) + 12).toBeLessThanOrEqual(60);
    expect(findJoins(takes[0].slice(0, 8), takes[1], { over: 12 })).toEqual([]);
  });

  it('go on alike for as long where one take has more pictures a second', () => {
    // The second one is filmed at 30 pictures a second, the first at 24: the same way, half a second later.
    const pace = 30 / 24;
    const way = (seconds: number): Pose => ({
      x: 24 + 40 * seconds,
      arm: 14 + 14 * Math.sin(9 * seconds ** 2),
    });
    const [one, other] = [
      Array.from({ length: 60 }, (_, index) => way(index / 24)),
      Array.from({ length: 60 }, (_, index) => way(index / 30 + 0.5)),
    ].map((poses, take) => poses.map((pose, index) => film(pose, index + 100 * take)));
    const [best] = findJoins(one, other, { over: 20, pace });
    expect(Math.abs(best.a / 24 - best.b / 30 - 0.5)).toBeLessThan(0.5 / 24);
    expect(best.cost).toBeLessThan(findJoins(one, other, { over: 20 })[0].cost - 3);
    for (const { a, b } of findJoins(one, other, { over: 20, pace })) {
      expect(a + 20).toBeLessThanOrEqual(60);
      expect(b + Math.round(19 * pace)).toBeLessThan(60);
    }
  });

  it('lie where both move, if that is asked: else standing still is the easiest', () => {
    // Stands, walks, stands; the other likewise, but later.
    const poses = (from: number) =>
      Array.from({ length: 40 }, (_, index) => ({
        x: 40 + 3 * Math.min(12, Math.max(0, index - from)),
        arm: 4,
      }));
    const takes = [poses(8), poses(20)].map((take, seed) =>
      take.map((pose, index) => film(pose, index + 100 * seed)),
    );
    const walks = (index: number, from: number) => index >= from - 1 && index <= from + 12;
    const joins = findJoins(takes[0], takes[1], { moving: true, limit: 3 });
    for (const { a, b } of joins) expect(walks(a, 8) && walks(b, 20), `${a} ${b}`).toBe(true);
    expect(joins[0].b - joins[0].a).toBe(12);
    const [easiest] = findJoins(takes[0], takes[1]);
    expect(walks(easiest.a, 8) && walks(easiest.b, 20)).toBe(false);
  });

  it('are as many as are wanted, each another one, the best first', () => {
    const take = walk(40, 20, 2, 0).map((pose, index) => film(pose, index));
    const joins = findJoins(take, take.slice(), { limit: 5 });
    expect(joins).toHaveLength(5);
    joins.slice(1).forEach((join, index) => expect(join.cost).toBeGreaterThanOrEqual(joins[index].cost));
    expect(findJoins(take, [])).toEqual([]);
    expect(findJoins([take[0]], [take[1]])).toHaveLength(1);
    expect(() => findJoins(take, [{ width: 2, height: 2, data: new Uint8Array(4) }])).toThrow(
      expect.objectContaining({ code: 'sizes-differ' }),
    );
    expect(() => findJoins(take, take, { region: { x: 400, y: 0, width: 20, height: 20 } })).toThrow(
      expect.objectContaining({ code: 'region' }),
    );
  });
});
