import { differenceCiede2000 } from 'culori';
import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import { seeded } from '../random';
import { blendModes, type BlendMode } from './blend';
import { ciede2000, labOf } from './colour';
import { gradeColour } from './grade';
import { blankYuv, bt709, resizePlane, rgbaToYuv, turnYuv, yuvToRgba } from './planes';

describe('colour difference', () => {
  // CIE 142; Sharma, Wu & Dalal 2005, table 1.
  it.each([
    [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
    [[50, 2.5, 0], [73, 25, -18], 27.1492],
    [[50, 2.49, -0.001], [50, -2.49, 0.0009], 7.1792],
    [[22.7233, 20.0904, -46.694], [23.0331, 14.973, -42.5619], 2.0373],
  ])('of %s and %s is %f', (one, two, wanted) => expect(ciede2000(one, two)).toBeCloseTo(wanted, 4));

  it('agrees with the package culori from sRGB to the difference', () => {
    const reference = differenceCiede2000();
    const next = seeded(12);
    for (let round = 0; round < 200; round++) {
      const [a, b] = [0, 1].map(() => [0, 1, 2].map(() => Math.floor(next() * 256)));
      const rgb = ([r, g, bl]: number[]) => ({ mode: 'rgb' as const, r: r / 255, g: g / 255, b: bl / 255 });
      expect(ciede2000(labOf(a[0], a[1], a[2]), labOf(b[0], b[1], b[2]))).toBeCloseTo(
        reference(rgb(a), rgb(b)),
        1,
      );
    }
  });
});

describe('blending', () => {
  // W3C Compositing and Blending Level 1, section 10.1: formulas of the separable modes, worked out by hand.
  it.each<[BlendMode, number, number, number]>([
    ['multiply', 0.5, 0.4, 0.2],
    ['screen', 0.5, 0.4, 0.7],
    ['lighten', 0.5, 0.4, 0.5],
    ['darken', 0.5, 0.4, 0.4],
    ['difference', 0.5, 0.4, 0.1],
    ['overlay', 0.25, 0.4, 0.2],
    ['overlay', 0.75, 0.4, 0.7],
    ['colour-dodge', 0.25, 0.5, 0.5],
    ['colour-dodge', 0, 1, 0],
    ['colour-dodge', 0.5, 1, 1],
    ['colour-burn', 0.75, 0.5, 0.5],
    ['colour-burn', 1, 0, 1],
    ['colour-burn', 0.5, 0, 0],
  ])('%s of %f and %f is %f', (mode, back, source, wanted) => {
    expect(blendModes[mode](back, source)).toBeCloseTo(wanted, 9);
  });
});

describe('colour decisions', () => {
  it('follows the order of the published formula', () => {
    // ASC CDL 1.2: clamp(in × slope + offset) ^ power, then saturation about BT.709 luma.
    const [r, g, b] = gradeColour(
      { slope: [1.2, 1, 1], offset: [0, 0.1, 0], power: [1, 1, 2], saturation: 0.5 },
      [127.5, 127.5, 127.5],
    ).map((value) => value / 255);
    const luma = 0.2126 * 0.6 + 0.7152 * 0.6 + 0.0722 * 0.25;
    expect(r).toBeCloseTo((luma + 0.6) / 2, 6);
    expect(g).toBeCloseTo((luma + 0.6) / 2, 6);
    expect(b).toBeCloseTo((luma + 0.25) / 2, 6);
  });
});

describe('video pictures', () => {
  it('maps the ends of limited range to black and white', () => {
    // ITU-R BT.709, section 3: black at 16, white at 235.
    const image = blankYuv({ width: 2, height: 2 });
    expect([...yuvToRgba(image).data.slice(0, 3)]).toEqual([0, 0, 0]);
    image.y.fill(235);
    expect([...yuvToRgba(image).data.slice(0, 3)]).toEqual([255, 255, 255]);
  });

  it.each([bt709, { matrix: 'bt601' as const, fullRange: true }])(
    'keeps flat colours within 2 codes (%o)',
    (kind) => {
      for (const colour of [
        [200, 60, 40],
        [20, 90, 180],
        [128, 128, 128],
      ] as [number, number, number][]) {
        const back = yuvToRgba(
          rgbaToYuv(
            painted({ width: 4, height: 4 }, () => colour),
            kind,
          ),
        );
        colour.forEach((value, channel) =>
          expect(Math.abs(back.data[20 + channel] - value)).toBeLessThanOrEqual(2),
        );
      }
    },
  );

  it('grows by a whole factor with each pixel as it is, and shrinks no more of it than is needed', () => {
    expect([...resizePlane(Uint8Array.of(7, 250), { width: 2, height: 1 }, { width: 6, height: 3 })]).toEqual(
      Array.from({ length: 3 }, () => [7, 7, 7, 250, 250, 250]).flat(),
    );
    const next = seeded(6);
    const from = { width: 48, height: 24 };
    const codes = Uint8Array.from({ length: from.width * from.height }, () => 256 * next());
    for (const factor of [2, 3, 4]) {
      const to = { width: from.width / factor, height: from.height / factor };
      const part = { left: 3, top: 2, right: 7, bottom: 5 };
      const all = resizePlane(codes, from, to);
      const some = resizePlane(codes, from, to, new Uint8Array(all.length), part);
      for (let y = part.top; y < part.bottom; y++)
        for (let x = part.left; x < part.right; x++)
          expect(some[y * to.width + x]).toBe(all[y * to.width + x]);
    }
  });

  it('shrinks by means and turns clockwise', () => {
    expect([
      ...resizePlane(Uint8Array.of(0, 100, 200, 100), { width: 4, height: 1 }, { width: 2, height: 1 }),
    ]).toEqual([50, 150]);
    expect([
      ...resizePlane(Uint8Array.of(0, 90, 180), { width: 3, height: 1 }, { width: 2, height: 1 }),
    ]).toEqual([30, 150]);
    const next = seeded(5);
    for (const [width, height, factor] of [
      [16, 6, 2],
      [24, 10, 2],
      [12, 8, 2],
      [18, 9, 3],
      [24, 9, 3],
      [48, 6, 3],
      [16, 8, 4],
      [20, 12, 4],
    ]) {
      const codes = Uint8Array.from({ length: width * height }, () => 256 * next());
      const to = { width: width / factor, height: height / factor };
      const shrunk = resizePlane(codes, { width, height }, to);
      shrunk.forEach((code, at) => {
        const [x, y] = [(at % to.width) * factor, Math.floor(at / to.width) * factor];
        let sum = 0;
        for (let step = 0; step < factor * factor; step++)
          sum += codes[(y + Math.floor(step / factor)) * width + x + (step % factor)];
        expect(code).toBe(Math.floor(sum / factor ** 2 + 0.5));
      });
      const part = { left: 1, top: 1, right: to.width - 1, bottom: to.height - 1 };
      const some = resizePlane(codes, { width, height }, to, new Uint8Array(shrunk.length), part);
      for (let y = part.top; y < part.bottom; y++)
        for (let x = part.left; x < part.right; x++)
          expect(some[y * to.width + x]).toBe(shrunk[y * to.width + x]);
    }
    const image = { ...blankYuv({ width: 4, height: 2 }), y: Uint8Array.of(1, 2, 3, 4, 5, 6, 7, 8) };
    expect([...turnYuv(image, 90).y]).toEqual([5, 1, 6, 2, 7, 3, 8, 4]);
    expect([...turnYuv(turnYuv(image, 90), 270).y]).toEqual([...image.y]);
    expect([...turnYuv(image, 180).y]).toEqual([8, 7, 6, 5, 4, 3, 2, 1]);
  });
});
