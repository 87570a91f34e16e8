import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import { placementMatrix, invertAffine } from '../footage/placement';
import { still } from '../motion/keyframes';
import { PlanarPainter } from './compose';
import { describeFrame, fitFrame, type DrawItem, type Layer } from './layers';
import { halveMask, rasterMask } from './mask';
import { paintFrame, psnr } from './paint';
import { rgbaToYuv, yuvToRgba } from './planes';

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

  it('refuses blend modes that planes cannot do', () => {
    expect(() => new PlanarPainter(size).paint([item({ blend: 'screen' })], [soft(0)])).toThrow(
      expect.objectContaining({ code: 'blend' }),
    );
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
