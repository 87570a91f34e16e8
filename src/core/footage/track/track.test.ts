import { describe, expect, it } from 'vitest';
import type { Point } from '../../geometry/size';
import type { GrayImage } from '../../picture/image';
import { seeded } from '../../random';
import { trackThrough } from './track';

const size = { width: 320, height: 180 };
const count = 30;
const times = Array.from({ length: count }, (_, index) => 2 + index / 25);

/** A spotted ball that goes across a wall; hidden behind a board where asked for. */
function film(
  centre: (index: number) => Point,
  isHidden: (index: number) => boolean = () => false,
): GrayImage[] {
  const next = seeded(4);
  return times.map((_, index) => {
    const [cx, cy] = centre(index);
    const data = new Float32Array(size.width * size.height);
    for (let y = 0, p = 0; y < size.height; y++)
      for (let x = 0; x < size.width; x++, p++) {
        const [dx, dy] = [x + 0.5 - cx, y + 0.5 - cy];
        const wall = 90 + 20 * Math.sin(x / 6) * Math.cos(y / 8);
        const ball = 150 + 50 * Math.sin(dx / 2.6) * Math.cos(dy / 3.4);
        data[p] = (Math.hypot(dx, dy) < 17 && !isHidden(index) ? ball : wall) + 3 * (next() - 0.5);
      }
    return { ...size, data };
  });
}
const centre = (index: number): Point => [80 + 4 * index, 90 + 12 * Math.sin(index / 5)];
const shareAt = (index: number): Point => [centre(index)[0] / size.width, centre(index)[1] / size.height];
const offAt = (points: ReturnType<typeof trackThrough>['points'], index: number) => {
  const found = points.find(({ time }) => time === times[index]);
  return found
    ? Math.hypot(found.at[0] * size.width - centre(index)[0], found.at[1] * size.height - centre(index)[1])
    : NaN;
};

describe('following a point through a take', () => {
  it('goes from one tap to both ends', () => {
    const { points, lost } = trackThrough(film(centre), times, [{ time: times[12], at: shareAt(12) }]);
    expect(points).toHaveLength(count);
    expect(lost).toEqual([]);
    for (let index = 0; index < count; index++) expect(offAt(points, index)).toBeLessThan(0.5);
  });

  it('arrives at the next tap as that was made', () => {
    const beside: Point = [shareAt(25)[0] + 4 / size.width, shareAt(25)[1]];
    const { points } = trackThrough(film(centre), times, [
      { time: times[5], at: shareAt(5) },
      { time: times[25], at: beside },
    ]);
    expect(offAt(points, 5)).toBeLessThan(0.01);
    expect(offAt(points, 15)).toBeGreaterThan(1.5);
    expect(offAt(points, 15)).toBeLessThan(2.5);
    expect(offAt(points, 25)).toBeCloseTo(4, 6);
  });

  it('tells how it grew and turned since the tap that led there', () => {
    const grown = (index: number) => 1 + index / 100;
    const turned = (index: number) => index;
    const next = seeded(9);
    const pictures = times.map((_, index) => {
      const angle = (turned(index) * Math.PI) / 180;
      const data = Float32Array.from({ length: size.width * size.height }, (_, p) => {
        const [dx, dy] = [(p % size.width) - 160, Math.floor(p / size.width) - 90];
        const u = (Math.cos(angle) * dx + Math.sin(angle) * dy) / grown(index);
        const v = (Math.cos(angle) * dy - Math.sin(angle) * dx) / grown(index);
        return 120 + 50 * Math.sin(u / 3.1) * Math.cos(v / 4.3) + 3 * (next() - 0.5);
      });
      return { ...size, data };
    });
    const at: Point = [160.5 / size.width, 90.5 / size.height];
    const taps = [
      { time: times[0], at },
      { time: times[20], at },
    ];
    const { points } = trackThrough(pictures, times, taps, 0.1);
    expect(points.map(({ tap }) => tap)).toEqual(times.map((_, index) => (index < 20 ? 0 : 1)));
    for (const [index, { tap, scale, rotation }] of points.entries()) {
      const since = tap === 0 ? 0 : 20;
      expect(Math.abs(scale / (grown(index) / grown(since)) - 1)).toBeLessThan(0.01);
      expect(Math.abs(rotation - (turned(index) - turned(since)))).toBeLessThan(0.5);
    }
  });

  it('says when it was lost, and goes on from the next tap', () => {
    const isHidden = (index: number) => index >= 10 && index < 16;
    const { points, lost } = trackThrough(film(centre, isHidden), times, [
      { time: times[2], at: shareAt(2) },
      { time: times[18], at: shareAt(18) },
    ]);
    expect(lost).toEqual([times[10]]);
    expect(points.some(({ time }) => time > times[10] && time < times[18])).toBe(false);
    for (const index of [0, 9, 18, 29]) expect(offAt(points, index)).toBeLessThan(0.5);
  });

  it('says nothing where nothing was tapped or there is no picture', () => {
    expect(trackThrough([], [], [{ time: 1, at: [0.5, 0.5] }])).toEqual({ points: [], lost: [] });
    expect(trackThrough(film(centre), times, [])).toEqual({ points: [], lost: [] });
  });
});
