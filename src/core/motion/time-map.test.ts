import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { valueAt } from './keyframes';
import { solveRamp, type RampPoint } from './ramp';
import { sourceAt, speedAt, timeTrack, type TimeMap } from './time-map';

const rate = { num: 24000, den: 1001 };
const steps = fc.array(
  fc.record({
    song: fc.double({ min: 0.2, max: 4, noNaN: true }),
    speed: fc.double({ min: 0.1, max: 6, noNaN: true }),
  }),
  { minLength: 1, maxLength: 8 },
);
const pointsOf = (all: { song: number; speed: number }[]): RampPoint[] =>
  all.reduce<RampPoint[]>(
    (points, { song, speed }) => {
      const last = points[points.length - 1];
      return [...points, { song: last.song + song, source: last.source + song * speed }];
    },
    [{ song: 12.5, source: 3 }],
  );
const options = fc.record({
  ease: fc.double({ min: 0, max: 1, noNaN: true }),
  dwell: fc.double({ min: 0, max: 1, noNaN: true }),
});

describe('a time map', () => {
  const map: TimeMap = {
    knots: [
      { song: 10, source: 2, ease: 0 },
      { song: 12, source: 3, ease: 1 },
      { song: 14, source: 6, ease: 0 },
      { song: 15, source: 8.5, ease: 0 },
    ],
  };

  it('runs evenly, changes its speed evenly, and stands outside', () => {
    expect([9, 10, 11, 12, 14, 15, 99].map((song) => sourceAt(map, song))).toEqual([
      2, 2, 2.5, 3, 6, 8.5, 8.5,
    ]);
    expect([9, 11, 14.5, 16].map((song) => speedAt(map, song))).toEqual([0, 0.5, 2.5, 0]);
    // From 0.5 to 2.5 over two seconds, evenly: the exact integral of a straight line.
    for (const past of [0.25, 0.5, 1, 1.7]) {
      expect(speedAt(map, 12 + past)).toBeCloseTo(0.5 + past, 9);
      expect(sourceAt(map, 12 + past)).toBeCloseTo(3 + 0.5 * past + past ** 2 / 2, 9);
    }
  });

  it('freezes and runs backwards', () => {
    const turned: TimeMap = {
      knots: [
        { song: 0, source: 5, ease: 0 },
        { song: 1, source: 5, ease: 1 },
        { song: 2, source: 4, ease: 0 },
      ],
    };
    expect([0.5, 1, 2].map((song) => sourceAt(turned, song))).toEqual([5, 5, 4]);
    expect(speedAt(turned, 0.5)).toBe(0);
    expect(speedAt(turned, 1.5)).toBeLessThan(0);
  });

  it('never turns round where its instants rise, whatever its neighbours ask', () => {
    fc.assert(
      fc.property(steps, (all) => {
        const knots = pointsOf(all).map(({ song, source }) => ({ song, source, ease: 1 }));
        const [from, until] = [knots[0].song, knots[knots.length - 1].song];
        let before = -Infinity;
        for (let step = 0; step <= 200; step++) {
          const now = sourceAt({ knots }, from + ((until - from) * step) / 200);
          expect(now).toBeGreaterThanOrEqual(before - 1e-9);
          before = now;
        }
      }),
    );
  });

  it('is the same as keyframes over frames, at every frame', () => {
    fc.assert(
      fc.property(steps, options, (all, given) => {
        const points = pointsOf(all);
        const { map: solved } = solveRamp(points, given);
        const track = timeTrack(solved, rate);
        const last = points[points.length - 1].song;
        for (let frame = 290; (frame * 1001) / 24000 < last; frame += 3)
          expect(valueAt(track, frame)).toBeCloseTo(sourceAt(solved, (frame * 1001) / 24000), 4);
      }),
      { numRuns: 60 },
    );
  });

  it('refuses what is no map', () => {
    const two = (song: number) => ({ knots: [map.knots[0], { song, source: 1, ease: 0 }] });
    for (const wrong of [{ knots: [] }, two(10), two(NaN)])
      expect(() => sourceAt(wrong, 1)).toThrow(expect.objectContaining({ code: 'time-map' }));
  });
});

describe('a speed ramp', () => {
  it('shows every instant of the take exactly on its beat', () => {
    fc.assert(
      fc.property(steps, options, (all, given) => {
        const points = pointsOf(all);
        const { map, findings } = solveRamp(points, given);
        expect(findings).toEqual([]);
        for (const { song, source } of points) expect(sourceAt(map, song)).toBeCloseTo(source, 6);
      }),
    );
  });

  it('moves as its speed says: the integral of one is the other', () => {
    fc.assert(
      fc.property(steps, options, (all, given) => {
        const points = pointsOf(all);
        const { map } = solveRamp(points, given);
        // Gauss's rule with two points is exact for the quadratic that a speed is between two knots.
        map.knots.slice(1).forEach((knot, index) => {
          const { song, source } = map.knots[index];
          const [half, middle] = [(knot.song - song) / 2, (knot.song + song) / 2];
          const sum = [-1, 1].reduce(
            (all, side) => all + half * speedAt(map, middle + (side * half) / Math.sqrt(3)),
            0,
          );
          expect(sum).toBeCloseTo(knot.source - source, 6);
        });
      }),
      { numRuns: 40 },
    );
  });

  it('runs at 40 % on a pose and as fast between as it has to', () => {
    // Common practice, no published source (CRAFT.md): 40 % on poses, faster on moves.
    const points = [0, 2, 4].map((song) => ({ song, source: song * 1.2, speed: 0.4 }));
    const { map, findings } = solveRamp(points, { ease: 0.4, dwell: 0.4 });
    expect(findings).toEqual([]);
    for (const { song } of points.slice(0, 2)) expect(speedAt(map, song)).toBeCloseTo(0.4, 9);
    // 1.2 = 0.4 · (0.4 + 0.2) + fast · 0.4
    expect(speedAt(map, 1)).toBeCloseTo((1.2 - 0.24) / 0.4, 9);
  });

  it('lets the poses run faster where the way between would be too fast, and says so', () => {
    const points = [0, 1].map((song) => ({ song, source: song * 2, speed: 0.4 }));
    const { map, findings } = solveRamp(points, { ease: 0.4, dwell: 0.4, maxSpeed: 3 });
    expect(sourceAt(map, 1)).toBe(2);
    expect(speedAt(map, 0.5)).toBeCloseTo(3, 9);
    expect(findings.map(({ code }) => code)).toEqual(['ramp.point-speed', 'ramp.point-speed']);
    expect(findings[0].measured?.value).toBeCloseTo((2 - 3 * 0.4) / 0.6, 9);
  });

  it('gives the nearest possible answer where an instant cannot be reached, and how far off it is', () => {
    const points = [0, 1, 2].map((song) => ({ song, source: [0, 5, 6][song] }));
    const { map, findings } = solveRamp(points, { maxSpeed: 3 });
    expect(findings.map(({ code }) => code)).toEqual(['ramp.out-of-reach', 'ramp.out-of-reach']);
    for (let step = 0; step < 200; step++) {
      expect(speedAt(map, step / 100)).toBeLessThanOrEqual(3 + 1e-9);
      expect(speedAt(map, step / 100)).toBeGreaterThanOrEqual(0);
    }
    // Five seconds are wanted where three are possible: each side gives one.
    expect(findings.map(({ measured }) => measured?.value)).toEqual([1, 1]);
    expect(solveRamp(points, { maxSpeed: 5 }).findings).toEqual([]);
  });

  it('turns round on a point, and refuses one point alone', () => {
    const { map } = solveRamp([0, 1, 2].map((song) => ({ song, source: [0, 2, 1][song] })));
    expect([0, 1, 2].map((song) => sourceAt(map, song))).toEqual([0, 2, 1]);
    expect(speedAt(map, 1)).toBeCloseTo(0, 9);
    expect(speedAt(map, 1.5)).toBeLessThan(0);
    expect(() => solveRamp([{ song: 0, source: 1 }])).toThrow(
      expect.objectContaining({ code: 'ramp.points' }),
    );
  });
});
