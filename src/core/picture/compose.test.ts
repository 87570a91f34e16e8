import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import { placementMatrix } from '../geometry/placement';
import { invertAffine } from '../geometry/affine';
import { still } from '../motion/keyframes';
import { seeded } from '../random';
import { PlanarPainter } from './compose';
import { describeFrame, fitFrame, type DrawItem, type Layer } from './layers';
import { halveMask, rasterMask } from './mask';
import { paintFrame, psnr } from './paint';
import { blankYuv, resizePlane, rgbaToYuv, yuvToRgba } from './planes';

const size = { width: 96, height: 54 };
const soft = (shift: number) =>
  rgbaToYuv(
    painted(size, (x, y) => [
      120 + 60 * Math.sin((x + shift) / 9),
      110 + 50 * Math.cos(y / 11 + shift),
      100 + 40 * Math.sin((x + y) / 17),
    ]),
  );
const item = (more: Partial<DrawItem> = {}): DrawItem => ({
  layer: 'a',
  media: 'm',
  time: 0,
  size,
  matrix: fitFrame(size, size),
  grade: null,
  mask: null,
  opacity: 1,
  blend: 'normal',
  ...more,
});
const rightHalf: [number, number][] = [
  [48, 0],
  [96, 0],
  [96, 54],
  [48, 54],
];

describe('the planar painter', () => {
  const cases: [string, DrawItem[]][] = [
    ['copies', [item()]],
    ['joins along a feathered seam', [item(), item({ mask: { points: rightHalf, feather: 12 } })]],
    [
      'steadies and shows what lies behind at the edge',
      [
        item(),
        item({
          matrix: invertAffine(
            placementMatrix({ dx: 5.4, dy: -3.2, rotation: 0.8, scale: 1, agreement: 1 }, size),
          ),
        }),
      ],
    ],
    [
      'corrects colour inside a mask',
      [
        item(),
        item({
          mask: { points: rightHalf, feather: 0 },
          grade: { slope: [1.15, 1.05, 0.95], offset: [0.01, 0, 0], power: [1, 0.95, 1], saturation: 1.1 },
        }),
      ],
    ],
    ['dissolves', [item(), item({ opacity: 0.4 })]],
  ];
  it.each(cases)('%s like the reference painter', (_, items) => {
    const pictures = items.map((_one, index) => soft(index * 13));
    const planar = yuvToRgba(new PlanarPainter(size).paint(items, pictures));
    const exact = paintFrame(
      items,
      pictures.map((one) => yuvToRgba(one)),
      size,
    );
    // At 96 pixels the half-size chroma along an uncovered edge weighs much; it is one pixel wide at any size.
    expect(psnr(planar, exact)).toBeGreaterThan(34);
  });

  it('leaves copied planes untouched and paints a preview from proxies', () => {
    const picture = soft(3);
    const out = new PlanarPainter(size).paint([item()], [picture]);
    expect([...out.y]).toEqual([...picture.y]);
    const small = { width: 48, height: 27 };
    const preview = new PlanarPainter(size, small).paint([item()], [{ ...soft(3) }]);
    expect(preview.width).toBe(48);
    expect(Math.abs(preview.y[13 * 48 + 24] - picture.y[27 * 96 + 49])).toBeLessThan(14);
  });

  it('refuses blend modes that planes cannot do, also under a layer that hides them', () => {
    for (const items of [
      [item({ blend: 'screen' })],
      [item({ blend: 'screen' }), item()],
      [item(), item({ blend: 'overlay' })],
    ])
      expect(() =>
        new PlanarPainter(size).paint(
          items,
          items.map(() => soft(0)),
        ),
      ).toThrow(expect.objectContaining({ code: 'blend' }));
  });

  /** Greatest and mean signed difference of luma codes from what is exact, over 65 536 pairs of codes. */
  const dissolved = (opacity: number, mask: DrawItem['mask']) => {
    const wide = { width: 256, height: 256 };
    const [back, front] = [blankYuv(wide), blankYuv(wide)];
    const next = seeded(3);
    back.y.forEach((_, at) => ([back.y[at], front.y[at]] = [256 * next(), 256 * next()]));
    const items = [item({ size: wide }), item({ size: wide, opacity, mask })];
    for (const one of items) one.matrix = fitFrame(wide, wide);
    const out = new PlanarPainter(wide).paint(items, [back, front]);
    const cover = mask ? rasterMask(mask.points, mask.feather, wide).data : null;
    let [worst, sum] = [0, 0];
    out.y.forEach((code, at) => {
      const share = opacity * (cover ? cover[at] / 255 : 1);
      const off = code - (back.y[at] + (front.y[at] - back.y[at]) * share);
      worst = Math.max(worst, Math.abs(off));
      sum += off;
    });
    return { worst, mean: sum / out.y.length };
  };

  it('dissolves and feathers pairs of codes to within half a code, with no bias', () => {
    const points: [number, number][] = [
      [0, 0],
      [128, 0],
      [128, 256],
      [0, 256],
    ];
    for (const opacity of [0.1, 0.37, 0.5, 0.9, 1])
      for (const mask of [null, { points, feather: 200 }]) {
        const { worst, mean } = dissolved(opacity, mask);
        expect(worst).toBeLessThanOrEqual(0.5 + 1e-5);
        expect(Math.abs(mean)).toBeLessThan(0.005);
      }
  });

  it('fades a single layer in from black, whatever was painted before', () => {
    const painter = new PlanarPainter(size);
    const picture = soft(0);
    painter.paint([item()], [picture]);
    const faded = painter.paint([item({ opacity: 0.25 })], [picture]);
    faded.y.forEach((code, at) =>
      expect(Math.abs(code - (16 + (picture.y[at] - 16) * 0.25))).toBeLessThanOrEqual(0.5),
    );
  });

  it('shrinks by a whole factor with plain means and nothing more', () => {
    const large = { width: 2 * size.width, height: 2 * size.height };
    const picture = rgbaToYuv(
      painted(large, (x, y) => [(x * 37 + y * 11) % 256, (x * y) % 256, (y * 29) % 256]),
    );
    const out = new PlanarPainter(size).paint(
      [item({ size: large, matrix: fitFrame(large, size) })],
      [picture],
    );
    expect([...out.y]).toEqual([...resizePlane(picture.y, large, size)]);
  });

  it.each([
    { matrix: 'bt601', fullRange: false },
    { matrix: 'bt709', fullRange: true },
    { matrix: 'bt601', fullRange: true },
  ] as const)('paints %o as the same light in BT.709 limited range', (kind) => {
    const scene = painted(size, (x, y) => [60 + x, 200 - y, 90 + ((x + y) >> 1)]);
    const given = rgbaToYuv(scene, kind);
    const out = yuvToRgba(new PlanarPainter(size).paint([item()], [given]));
    expect(psnr(out, yuvToRgba(given))).toBeGreaterThan(46);
  });
});

describe('masks', () => {
  it('covers exactly what lies inside, keeps the frame edge hard and feathers the join', () => {
    const hard = rasterMask(
      [
        [10.5, 0],
        [96, 0],
        [96, 54],
        [10.5, 54],
      ],
      0,
      size,
    );
    expect([hard.data[9], hard.data[10], hard.data[11], hard.data[95]]).toEqual([0, 128, 255, 255]);
    const soft = rasterMask(rightHalf, 20, size);
    expect(Math.abs(soft.data[27 * 96 + 47] + soft.data[27 * 96 + 48] - 255)).toBeLessThan(3);
    expect([soft.data[27 * 96 + 36], soft.data[27 * 96 + 60], soft.data[95]]).toEqual([0, 255, 255]);
    expect(halveMask(hard)[5]).toBe(192);
  });
});

describe('draw lists', () => {
  const layer: Layer = {
    id: 'copy',
    name: 'Copy',
    from: 48,
    until: 96,
    source: { media: 'm', size, at: 2, rate: { num: 24, den: 1 }, hold: false },
    fit: fitFrame({ width: 48, height: 27 }, size),
    steady: null,
    grade: null,
    mask: { outline: [{ frame: 48, points: rightHalf }], feather: 4 },
    opacity: still(1),
    blend: 'normal',
  };

  it('shows a layer from its first frame to the frame before its end, at the right time of its source', () => {
    expect(describeFrame([layer], 47)).toEqual([]);
    expect(describeFrame([layer], 96)).toEqual([]);
    const [first] = describeFrame([layer], 48);
    expect(first.time).toBe(2);
    expect(first.matrix).toEqual([2, 0, 0, 2, 0, 0]);
    expect(describeFrame([layer], 60)[0].time).toBeCloseTo(2.5, 12);
  });

  it('undoes the movement that was measured', () => {
    const track = (value: number) => still(value);
    const steady = { dx: track(4), dy: track(-2), rotation: track(0), scale: track(1) };
    const [moved] = describeFrame([{ ...layer, steady, fit: [1, 0, 0, 1, 0, 0] }], 50);
    expect(moved.matrix.map((value) => value + 0)).toEqual([1, 0, 0, 1, -4, 2]);
  });
});
