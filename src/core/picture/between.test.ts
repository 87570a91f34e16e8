import { describe, expect, it } from 'vitest';
import { painted, shot, texture } from '../__tests__/scene';
import { inPlace } from '../geometry/placement';
import type { RgbaImage } from './image';
import { flowBetween, pictureBetween } from './between';
import { rgbaToYuv, yuvToRgba, type YuvImage } from './planes';
import { psnr } from './psnr';

const size = { width: 320, height: 180 };
const scene = texture(7, size);

/** A wall, moved, and before it a square with a pattern of its own; exact at every instant. */
function instant(time: number, wall: number, square: [number, number]): RgbaImage {
  const back = shot(scene, size, { ...inPlace, dx: wall * time }, { noise: 0 });
  const [left, top] = [60 + square[0] * time, 60 + square[1] * time];
  return painted(size, (x, y) => {
    const [sx, sy] = [x - left, y - top];
    if (sx >= 0 && sy >= 0 && sx < 60 && sy < 60)
      return [120 + 90 * Math.sin(sx / 4) * Math.cos(sy / 5), 90 + 40 * Math.cos(sx / 6), 60 + sy];
    const value = back.data[y * size.width + x];
    return [value, value * 0.9, value * 0.8];
  });
}
const yuv = (time: number, wall: number, square: [number, number]) => rgbaToYuv(instant(time, wall, square));
/** What blending the two gives. */
const blend = (one: YuvImage, two: YuvImage, share: number): YuvImage => ({
  ...one,
  y: one.y.map((value, at) => value + (two.y[at] - value) * share),
  u: one.u.map((value, at) => value + (two.u[at] - value) * share),
  v: one.v.map((value, at) => value + (two.v[at] - value) * share),
});
const near = (one: YuvImage, two: YuvImage) => psnr(yuvToRgba(one), yuvToRgba(two));

describe('the picture between two', () => {
  it('follows what moves and leaves what stands, far nearer to the truth than two laid over one another', () => {
    for (const [wall, square] of [
      [0, [12, 0]],
      [0, [-10, 8]],
      [9, [9, 0]],
      [4, [-12, 5]],
    ] as [number, [number, number]][])
      for (const share of [0.25, 0.5, 0.8]) {
        const [one, two] = [yuv(0, wall, square), yuv(1, wall, square)];
        const exact = yuv(share, wall, square);
        const [moved, laid] = [
          near(pictureBetween(one, two, share), exact),
          near(blend(one, two, share), exact),
        ];
        expect(moved, `${wall} ${square} ${share}`).toBeGreaterThan(laid + 3);
        expect(moved).toBeGreaterThan(27);
      }
  });

  it('is the picture itself where nothing moves, and says that nothing tears', () => {
    const still = yuv(0, 0, [0, 0]);
    expect(near(pictureBetween(still, still, 0.5), still)).toBeGreaterThan(50);
    expect(flowBetween(still, still, 0.5).torn).toBe(0);
    const moving = [yuv(0, 0, [10, 0]), yuv(1, 0, [10, 0])] as const;
    expect(flowBetween(...moving, 0.5).torn).toBeLessThan(0.06);
  });

  it('tears where the next picture shows something else', () => {
    const other = rgbaToYuv(painted(size, (x, y) => [(x * 31 + y * 17) % 256, (x * 7) % 256, 40]));
    expect(flowBetween(yuv(0, 0, [0, 0]), other, 0.5).torn).toBeGreaterThan(0.5);
    // Further than anything is looked for.
    expect(flowBetween(yuv(0, 0, [0, 0]), yuv(1, 0, [150, 0]), 0.5).torn).toBeGreaterThan(0.03);
  });
});
