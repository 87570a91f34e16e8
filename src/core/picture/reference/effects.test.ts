import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import { still } from '../../motion/keyframes';
import type { RgbaImage } from '../image';
import { groupOf, nodeOf, type Effect } from '../node';
import { paintFrame } from './paint';

const size = { width: 40, height: 30 };
const span = { from: 0, until: 1 };
const of = (effect: Effect, picture: RgbaImage): RgbaImage => {
  const content = { is: 'media' as const, media: 'a', size, time: still(0) };
  const node = nodeOf({ id: 'a', name: 'a', ...span, content, effects: [effect] });
  return paintFrame(groupOf('all', size, span, [node]), 0, size, () => picture);
};
const at = ({ data }: RgbaImage, x: number, y: number) => [
  ...data.slice((y * 40 + x) * 4, (y * 40 + x) * 4 + 3),
];
const grey = (light: (x: number, y: number) => number) =>
  painted(size, (x, y) => [light(x, y), light(x, y), light(x, y)]);
const dot = grey((x, y) => (x === 20 && y === 15 ? 255 : 0));
const total = ({ data }: RgbaImage) =>
  Array.from(data).reduce((sum, value, index) => sum + (index % 4 === 0 ? value : 0), 0);

describe('effects on a picture', () => {
  // The definitions of the means: what one light pixel is spread over, and how much of it each place gets.
  it('spread one light pixel over a square', () => {
    const soft = of({ is: 'box', reach: still(1.5) }, dot);
    expect(at(soft, 20, 15)[0]).toBe(Math.round(255 / 16));
    expect(at(soft, 21, 16)[0]).toBe(Math.round(255 / 16));
    expect(at(soft, 22, 15)[0]).toBe(Math.round(255 / 32));
    expect(at(soft, 23, 15)[0]).toBe(0);
  });

  it('spread one light pixel along a line, and nowhere else', () => {
    const swept = of({ is: 'directional', length: still(10), angle: still(0) }, dot);
    const lit = Array.from({ length: 40 }, (_, x) => at(swept, x, 15)[0]);
    expect(lit.filter((value) => value > 0)).toHaveLength(11);
    expect(new Set(lit.filter((value) => value > 0))).toEqual(new Set([Math.round(255 / 11)]));
    expect(at(swept, 20, 14)[0]).toBe(0);
    const down = of({ is: 'directional', length: still(10), angle: still(90) }, dot);
    expect(at(down, 20, 18)[0]).toBe(Math.round(255 / 11));
    expect(Math.abs(total(down) - 255)).toBeLessThan(12);
  });

  it('leave what lies on the way to the middle as it is when they draw there', () => {
    // Light that is the same along each ray from the middle.
    const rays = grey((x, y) => (y + 0.5 > 15 ? 200 : 60) + (x + 0.5 > 20 ? 20 : 0));
    const drawn = of({ is: 'zoom', share: still(0.3) }, rays);
    for (const [x, y] of [
      [3, 3],
      [36, 4],
      [5, 26],
      [36, 27],
    ])
      expect(at(drawn, x, y)).toEqual(at(rays, x, y));
    const edge = of(
      { is: 'zoom', share: still(0.3) },
      grey((x) => (x < 8 ? 255 : 0)),
    );
    expect(at(edge, 2, 15)[0]).toBeLessThan(255);
    expect(at(edge, 2, 15)[0]).toBeGreaterThan(0);
  });

  it('move rows by a sine', () => {
    const line = grey((x) => (x === 20 ? 255 : 0));
    const waved = of({ is: 'wave', by: still(6), length: 24, turned: still(0) }, line);
    // A quarter of the wave down, at 6 rows, what is 6 px to the right is shown here.
    const place = (y: number) => {
      const row = Array.from({ length: 40 }, (_, x) => at(waved, x, y)[0]);
      return row.reduce((sum, value, x) => sum + value * x, 0) / row.reduce((sum, value) => sum + value, 0);
    };
    for (const y of [0, 5, 6, 11, 17, 23])
      expect(place(y)).toBeCloseTo(20 - 6 * Math.sin((2 * Math.PI * (y + 0.5)) / 24), 0);
  });

  it('bend what is off the middle by the square of its distance, and nothing in it', () => {
    const ramp = grey((x) => x * 6);
    const bent = of({ is: 'bend', amount: still(0.2) }, ramp);
    const furthest = 20 ** 2 + 15 ** 2;
    for (const [x, y] of [
      [10, 15],
      [26, 8],
      [30, 22],
    ]) {
      const [dx, dy] = [x + 0.5 - 20, y + 0.5 - 15];
      const from = 20 + dx * (1 + (0.2 * (dx * dx + dy * dy)) / furthest) - 0.5;
      expect(Math.abs(at(bent, x, y)[0] - from * 6)).toBeLessThan(1);
    }
  });

  it('darken corners by their share, and the middle not at all', () => {
    const dark = of(
      { is: 'vignette', amount: still(0.5) },
      grey(() => 200),
    );
    expect(at(dark, 20, 15)[0]).toBe(200);
    expect(at(dark, 0, 0)[0]).toBe(Math.round(200 * (1 - 0.5 * ((19.5 ** 2 + 14.5 ** 2) / 625))));
  });

  it('glow round what is bright, and leave the rest', () => {
    const lamp = grey((x, y) => (Math.hypot(x - 10, y - 15) < 3 ? 255 : 60));
    const glowing = of({ is: 'glow', radius: still(3), from: 0.5, amount: still(1) }, lamp);
    expect(at(glowing, 14, 15)[0]).toBeGreaterThan(80);
    expect(at(glowing, 35, 15)[0]).toBe(60);
    expect(of({ is: 'glow', radius: still(3), from: 0.5, amount: still(0) }, lamp)).toEqual(lamp);
  });

  it('tone a picture by its luma', () => {
    // ITU-R BT.709: green weighs 0.7152.
    const green = painted(size, () => [0, 200, 0]);
    const toned = of({ is: 'tint', rgb: [255, 128, 0], amount: still(1) }, green);
    expect(at(toned, 5, 5)).toEqual([143, 72, 0]);
  });
});
