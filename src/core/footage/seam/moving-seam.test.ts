import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import type { Point } from '../../geometry/size';
import type { RgbaImage } from '../../picture/image';
import { seeded } from '../../random';
import { disagreementOf, joinCost, seamCost } from './join-cost';
import { solveSeam } from './seam';

const size = { width: 360, height: 204 };
const half = 30;

/** A wall with noise of 3/255, and somebody 60 pixels wide before it. */
function standing(next: () => number, x: number, colour: [number, number, number]): RgbaImage {
  const noise = () => 3 * Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  return painted(size, (px, py) => {
    const wall = 110 + 25 * Math.sin(px / 5) * Math.cos(py / 7);
    const [red, green, blue] = isIn(px, py, x) ? colour : [wall, wall - 10, wall - 20];
    return [red + noise(), green + noise(), blue + noise()];
  });
}
const isIn = (px: number, py: number, x: number) => Math.abs(px + 0.5 - x) < half && py > 30;

/** Two takes of a number of frames, with a stroke on each performer at every fourth. */
function walk(frames: number, left: (time: number) => number, right: (time: number) => number) {
  const next = seeded(7);
  const places = Array.from({ length: frames }, (_, frame) => [left(frame / frames), right(frame / frames)]);
  const takes = ([0, 1] as const).map((take) =>
    places.map((at) => standing(next, at[take], take === 0 ? [170, 40, 40] : [40, 50, 170])),
  );
  const strokes = places.flatMap((at, frame) =>
    frame % 4 === 0
      ? at.map((x, take) => ({ take, frame, points: [[x, 40] as Point, [x, 195] as Point], radius: 3 }))
      : [],
  );
  return { takes, strokes, places };
}

/** Pixels of performers that show the other take. */
function lostOf({ labels }: ReturnType<typeof solveSeam>, places: number[][]): number {
  let lost = 0;
  for (const [frame, at] of places.entries())
    for (let pixel = 0; pixel < size.width * size.height; pixel++)
      for (const [take, x] of at.entries())
        if (isIn(pixel % size.width, Math.floor(pixel / size.width), x) && labels[frame].data[pixel] !== take)
          lost++;
  return lost;
}

describe('a seam that may move', () => {
  it('stays where one division hides the join over the whole length', () => {
    const { takes, strokes, places } = walk(
      12,
      (time) => 45 + 30 * time,
      () => 270,
    );
    const seam = solveSeam(takes, strokes);
    expect(seam.outline).toHaveLength(1);
    expect(seam.labels).toHaveLength(12);
    expect(lostOf(seam, places)).toBe(0);
  });

  // Both come to the middle, one after the other: nothing that stays can keep both.
  const crossing = walk(
    32,
    (time) => 68 + 157 * Math.sin(Math.PI * time) ** 2,
    (time) => 165 + 135 * Math.sin(Math.PI * time) ** 2,
  );

  it('moves where performers walk over each other’s ground, loses nobody and is not seen', () => {
    const seam = solveSeam(crossing.takes, crossing.strokes);
    expect(lostOf(seam, crossing.places)).toBe(0);
    // Source: common practice, no published source: CIEDE2000 of 2.3 is just noticed.
    expect(Math.max(...seam.visible)).toBeLessThanOrEqual(2.3);
    // They walk 15 pixels a frame close behind each other, and still a quarter of the frames needs no key.
    expect(seam.outline.length).toBeLessThanOrEqual(24);
  });

  it('keeps those who walk where only the first frame says who is meant', () => {
    const first = crossing.strokes.filter(({ frame }) => frame === 0);
    expect(lostOf(solveSeam(crossing.takes, first), crossing.places)).toBe(0);
  });

  it('keeps all of whoever stands still, by one stroke', () => {
    const { takes, places } = walk(
      6,
      () => 80,
      () => 250,
    );
    const strokes = [80, 250].map((x, take) => ({ take, frame: 2, points: [[x, 100] as Point], radius: 3 }));
    expect(lostOf(solveSeam(takes, strokes), places)).toBe(0);
  });

  it('cuts somebody where it must stay', () => {
    const seam = solveSeam(crossing.takes, crossing.strokes, { still: true });
    expect(seam.labels).toHaveLength(1);
    expect(Math.max(...seam.visible)).toBeGreaterThan(2.3);
  });

  it('obeys strokes of single frames that contradict each other in time', () => {
    const { takes } = walk(
      8,
      () => 45,
      () => 290,
    );
    const spot: Point = [180, 10];
    const strokes = [0, 1].map((take) => ({ take, frame: take === 0 ? 1 : 6, points: [spot], radius: 4 }));
    const seam = solveSeam(takes, strokes);
    const at = 10 * size.width + 180;
    expect([seam.labels[1].data[at], seam.labels[6].data[at]]).toEqual([0, 1]);
  });
});

describe('a still seam', () => {
  // Brute force over every straight line that obeys the strokes, on fields of soft blobs.
  it('costs no more than any line down the frame', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const next = seeded(seed);
      const blobs = Array.from({ length: 8 }, () => [
        360 * next(),
        204 * next(),
        8 + 30 * next(),
        80 * next(),
      ]);
      const take = (isOn: boolean) =>
        painted(size, (x, y) => {
          let grey = 120 + 20 * Math.sin(x / 5) * Math.cos(y / 7) + 10 * (next() - 0.5);
          if (isOn)
            for (const [px, py, reach, height] of blobs)
              grey += height * Math.exp(-((x - px) ** 2 + (y - py) ** 2) / (2 * reach * reach));
          return [grey, grey, grey];
        });
      const takes = [[take(false)], [take(true)]];
      const [left, right] = [5 + 90 * next(), 255 + 90 * next()];
      const strokes = [left, right].map((x, index) => ({
        take: index,
        points: [[x, 5 + 190 * next()] as Point],
        radius: 4,
      }));
      const [{ data }] = solveSeam(takes, strokes, { still: true }).labels;
      const cost = joinCost(disagreementOf(takes[0], takes[1]));
      const own = seamCost(size, cost, data);
      const column = (x: number) =>
        Array.from({ length: size.height }, (_, y) => cost[y * size.width + x]).reduce(
          (sum, one) => sum + one,
        );
      for (let x = Math.ceil(left + 5); x < right - 4; x++)
        expect(own, `seed ${seed}, line before ${x}`).toBeLessThanOrEqual(column(x - 1) + column(x) + 1e-6);
    }
  });
});
