import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import type { Point } from '../geometry/size';
import { linear } from '../motion/easing';
import { still } from '../motion/keyframes';
import { seeded } from '../random';
import { canPaint, describeFrame, type DrawItem, type DrawMask } from './draw-list';
import { halveMask, rasterMask } from './mask';
import {
  fillFrame,
  fittedMatte,
  groupOf,
  nodeOf,
  outlineMatte,
  running,
  type Node,
  type Transform,
} from './node';
import { PlanarPainter } from './planar-painter';
import { blankYuv, resizePlane, rgbaToYuv, yuvToRgba, type YuvImage } from './planes';
import { psnr } from './psnr';
import { paintFrame } from './reference/paint';

const size = { width: 96, height: 54 };
const soft = (shift: number) =>
  rgbaToYuv(
    painted(size, (x, y) => [
      120 + 60 * Math.sin((x + shift) / 9),
      110 + 50 * Math.cos(y / 11 + shift),
      100 + 40 * Math.sin((x + y) / 17),
    ]),
  );
const rightHalf: Point[] = [
  [48, 0],
  [96, 0],
  [96, 54],
  [48, 54],
];
const item = (more: Partial<DrawItem> = {}): DrawItem => ({
  node: 'a',
  media: 'm',
  time: 0,
  size,
  matrix: [1, 0, 0, 1, 0, 0],
  edges: 'empty',
  grade: null,
  mask: null,
  opacity: 1,
  ...more,
});
const paint = (items: DrawItem[], pictures: YuvImage[], at = new PlanarPainter(size)) =>
  at.paint([items], [pictures]);

const move = (x: number, y = 0, rotation = 0, undone = false): Transform => ({
  is: 'move',
  size,
  x: still(x),
  y: still(y),
  rotation: still(rotation),
  scale: still(1),
  undone,
});
const film = (media: string, more: Partial<Node> = {}): Node =>
  nodeOf({
    id: media,
    name: media,
    from: 0,
    until: 48,
    content: { is: 'media', media, size, time: running(0, 0, 48, { num: 24, den: 1 }) },
    ...more,
  });
const stack = (nodes: Node[], more: Partial<Node> = {}) =>
  groupOf('shot', size, { from: 0, until: 48 }, nodes, more);
const sources: Record<string, YuvImage> = { back: soft(0), front: soft(13) };

/** How far the planar painter is from the reference: over every code, and where the picture's edges do not matter. */
function apart(tree: Node, frame: number) {
  const lists = describeFrame(tree, frame);
  if (!lists) throw new Error('This cannot be painted on planes.');
  const given = new PlanarPainter(size).paint(
    lists,
    lists.map((list) => list.map(({ media }) => sources[media])),
  );
  const [planar, exact] = [
    yuvToRgba(given),
    paintFrame(tree, frame, size, (media) => yuvToRgba(sources[media])),
  ];
  let [most, sum] = [0, 0];
  planar.data.forEach((value, at) => {
    most = Math.max(most, Math.abs(value - exact.data[at]));
    sum += value - exact.data[at];
  });
  return { psnr: psnr(planar, exact), most, mean: sum / planar.data.length };
}

describe('the planar painter', () => {
  // Colour planes are half as large, so a sharp edge differs along one pixel of colour; the rest is rounding.
  const cases: [string, Node, number, number][] = [
    ['copies', stack([film('back')]), 60, 1],
    ['joins along a feathered seam', stack([film('back'), masked(12)]), 45, 6],
    ['joins along the other side of a seam', stack([film('back'), masked(12, true)]), 45, 8],
    [
      'steadies and shows what lies behind',
      stack([film('back'), film('front', { transforms: [move(5.4, -3.2, 0.8, true)] })]),
      34,
      96,
    ],
    [
      'corrects colour',
      stack([
        film('back', {
          grade: { slope: [1.15, 1.05, 0.95], offset: [0.01, 0, 0], power: [1, 0.95, 1], saturation: 1.1 },
        }),
      ]),
      40,
      12,
    ],
    ['dissolves', stack([film('back'), film('front', { opacity: still(0.4) })]), 45, 4],
    [
      'mirrors beyond the edge',
      stack([film('back', { edges: 'mirrored', transforms: [move(70.5, 8)] })]),
      40,
      16,
    ],
    [
      'repeats beyond the edge',
      stack([film('back', { edges: 'repeated', transforms: [move(-60, 0)] })]),
      34,
      90,
    ],
    [
      'cuts a piece out of a picture that is moved with it',
      stack([
        film('back'),
        film('front', {
          transforms: [move(12.4, -6, 20)],
          mattes: [outlineMatte('content', [{ frame: 0, rings: [rightHalf] }], 8)],
        }),
      ]),
      40,
      40,
    ],
    [
      'fits an outline to the picture that it cuts, which is moved',
      stack([
        film('back'),
        film('front', {
          transforms: [move(12.4, -6, 20)],
          mattes: [fittedMatte([{ frame: 0, rings: [rightHalf] }], 8, { reach: 9 })],
        }),
      ]),
      40,
      48,
    ],
    [
      'shows one part of an outline that is fitted as a whole, and all but it',
      stack([film('back'), fittedPart(false), fittedPart(true)]),
      40,
      48,
    ],
    [
      'copies what shows of a picture that is moved by whole pixels and does not fill the frame',
      stack([film('back'), { ...masked(0), transforms: [move(20, 0)] }]),
      45,
      8,
    ],
    [
      'moves a group as a whole',
      stack([film('back'), masked(12)], {
        transforms: [{ ...move(3.3, -1.6, 1.2), scale: still(1.12) } as Transform],
      }),
      36,
      24,
    ],
    [
      'leaves the shutter open',
      stack([film('back', { edges: 'mirrored', transforms: [racing()] })], {
        shutter: { angle: 180, apart: 2 },
      }),
      40,
      12,
    ],
    [
      'leaves the shutter of one layer open, the others standing',
      stack([
        film('back'),
        masked(0),
        { ...masked(12), id: 'fast', transforms: [racing()], shutter: { angle: 360, apart: 2 } },
      ]),
      36,
      16,
    ],
  ];
  function masked(feather: number, inverted = false): Node {
    return film('front', {
      mattes: [outlineMatte('parent', [{ frame: 0, rings: [rightHalf] }], feather, inverted)],
    });
  }
  function fittedPart(inverted: boolean): Node {
    const part = { of: [rightHalf], within: rightHalf.map(([x, y]): Point => [x - 8, y / 2]) };
    const matte = fittedMatte([{ frame: 0, rings: [rightHalf] }], 8, { reach: 9, part });
    return film(inverted ? 'back' : 'front', { mattes: [{ ...matte, inverted }] });
  }
  function racing(): Transform {
    const across = [
      { frame: 0, value: 0, ease: linear },
      { frame: 10, value: 480, ease: 'hold' as const },
    ];
    return { ...move(0), x: across } as Transform;
  }
  it.each(cases)('%s like the reference painter', (_, tree, wanted, most) => {
    const off = apart(tree, 4);
    expect(off.psnr).toBeGreaterThan(wanted);
    expect(off.most).toBeLessThanOrEqual(most);
    expect(Math.abs(off.mean)).toBeLessThan(0.25);
  });

  it('says what it cannot paint', () => {
    const can = (more: Partial<Node>) => canPaint(stack([film('back'), film('front', more)]), 4);
    expect(can({})).toBe(true);
    expect(can({ blend: 'screen' })).toBe(false);
    expect(can({ effects: [{ is: 'blur', radius: still(2) }] })).toBe(false);
    expect(can({ crop: { left: 0, top: 0, right: 9, bottom: 9 } })).toBe(false);
    expect(can({ mattes: [outlineMatte('content', [{ frame: 0, rings: [rightHalf] }], 0)] })).toBe(true);
    // A group that is moved shows nothing of what lies beyond its own edge: that has to be cut off.
    const moved = (scale: number) =>
      stack([film('back')], { transforms: [{ ...move(3, 1), scale: still(scale) } as Transform] });
    expect(canPaint(moved(1), 4)).toBe(false);
    expect(canPaint(moved(1.1), 4)).toBe(true);
    // One layer may have a shutter of its own, not two.
    const open = { shutter: { angle: 180, apart: 1 } };
    expect(can(open)).toBe(true);
    expect(canPaint(stack([film('back', open), film('front', open)]), 4)).toBe(false);
    expect(canPaint(stack([film('back', open), film('front', { ...open, from: 10 })]), 4)).toBe(true);
    expect(can({ content: { is: 'colour', rgb: [1, 2, 3] } })).toBe(false);
    expect(can({ blend: 'screen', from: 10 })).toBe(true);
  });

  it('leaves copied planes untouched and paints a preview from proxies', () => {
    const picture = soft(3);
    const out = paint([item()], [picture]);
    expect([...out.y]).toEqual([...picture.y]);
    const small = { width: 48, height: 27 };
    const preview = paint([item()], [soft(3)], new PlanarPainter(size, small));
    expect(preview.width).toBe(48);
    expect(Math.abs(preview.y[13 * 48 + 24] - picture.y[27 * 96 + 49])).toBeLessThan(14);
  });

  /** Greatest and mean signed difference of luma codes from what is exact, over 65 536 pairs of codes. */
  const dissolved = (opacity: number, mask: DrawMask | null) => {
    const wide = { width: 256, height: 256 };
    const [back, front] = [blankYuv(wide), blankYuv(wide)];
    const next = seeded(3);
    back.y.forEach((_, at) => ([back.y[at], front.y[at]] = [256 * next(), 256 * next()]));
    const items = [item({ size: wide }), item({ size: wide, opacity, mask })];
    const out = paint(items, [back, front], new PlanarPainter(wide));
    const cover = mask ? rasterMask(mask.rings, mask.feather, wide).data : null;
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
    const ring: Point[] = [
      [0, 0],
      [128, 0],
      [128, 256],
      [0, 256],
    ];
    for (const opacity of [0.1, 0.37, 0.5, 0.9, 1])
      for (const mask of [null, { rings: [ring], feather: 200, inverted: false }]) {
        const { worst, mean } = dissolved(opacity, mask);
        expect(worst).toBeLessThanOrEqual(0.5 + 1e-5);
        expect(Math.abs(mean)).toBeLessThan(0.005);
      }
  });

  // A layer that is all but opaque hides nothing by the painter's rules, and no code can tell it from one that is.
  it('leaves out what is hidden and nothing else', () => {
    const next = seeded(8);
    const ringOf = (): Point[] =>
      Array.from({ length: 5 }, () => [next() * 130 - 17, next() * 88 - 17] as Point);
    const large = { width: 2 * size.width, height: 2 * size.height };
    const grown = rgbaToYuv(painted(large, (x, y) => [(x * 7) % 256, (y * 5) % 256, (x + y) % 256]));
    const layers: [Partial<DrawItem>, YuvImage][] = [
      [{}, soft(2)],
      [{ matrix: [1, 0, 0, 1, 3.5, -2] }, soft(30)],
      [{ matrix: [1, 0, 0, 1, 3.5, -2], edges: 'mirrored' }, soft(40)],
      [{ size: large, matrix: [0.5, 0, 0, 0.5, 0, 0] }, grown],
    ];
    const [painter, other] = [new PlanarPainter(size), new PlanarPainter(size)];
    for (let round = 0; round < 60; round++) {
      const chosen = Array.from({ length: 4 }, () => layers[Math.floor(next() * layers.length)]);
      const items = chosen.map(([more], index) =>
        item({
          ...more,
          mask:
            index > 0 && next() < 0.8
              ? { rings: [ringOf()], feather: 6 * next(), inverted: next() < 0.5 }
              : null,
        }),
      );
      const pictures = chosen.map(([, picture]) => picture);
      const given = paint(items, pictures, painter);
      const whole = paint(
        items.map((one) => ({ ...one, opacity: 1 - 1e-9 })),
        pictures,
        other,
      );
      for (const plane of ['y', 'u', 'v'] as const) expect(given[plane]).toEqual(whole[plane]);
    }
  });

  it('fades a single layer in from black, whatever was painted before', () => {
    const painter = new PlanarPainter(size);
    const picture = soft(0);
    paint([item()], [picture], painter);
    const faded = paint([item({ opacity: 0.25 })], [picture], painter);
    faded.y.forEach((code, at) =>
      expect(Math.abs(code - (16 + (picture.y[at] - 16) * 0.25))).toBeLessThanOrEqual(0.5),
    );
  });

  it('shrinks by a whole factor with plain means and nothing more', () => {
    const large = { width: 2 * size.width, height: 2 * size.height };
    const picture = rgbaToYuv(
      painted(large, (x, y) => [(x * 37 + y * 11) % 256, (x * y) % 256, (y * 29) % 256]),
    );
    const out = paint([item({ size: large, matrix: [0.5, 0, 0, 0.5, 0, 0] })], [picture]);
    expect([...out.y]).toEqual([...resizePlane(picture.y, large, size)]);
  });

  it.each([
    { matrix: 'bt601', fullRange: false },
    { matrix: 'bt709', fullRange: true },
    { matrix: 'bt601', fullRange: true },
  ] as const)('paints %o as the same light in BT.709 limited range', (kind) => {
    const scene = painted(size, (x, y) => [60 + x, 200 - y, 90 + ((x + y) >> 1)]);
    const given = rgbaToYuv(scene, kind);
    const out = yuvToRgba(paint([item()], [given]));
    expect(psnr(out, yuvToRgba(given))).toBeGreaterThan(46);
  });
});

describe('masks', () => {
  it('covers exactly what lies inside, keeps the frame edge hard and feathers the join', () => {
    const ring: Point[] = [
      [10.5, 0],
      [96, 0],
      [96, 54],
      [10.5, 54],
    ];
    const hard = rasterMask([ring], 0, size);
    expect([hard.data[9], hard.data[10], hard.data[11], hard.data[95]]).toEqual([0, 128, 255, 255]);
    const soft = rasterMask([rightHalf], 20, size);
    expect(Math.abs(soft.data[27 * 96 + 47] + soft.data[27 * 96 + 48] - 255)).toBeLessThan(3);
    expect([soft.data[27 * 96 + 36], soft.data[27 * 96 + 60], soft.data[95]]).toEqual([0, 255, 255]);
    expect(halveMask(hard)[5]).toBe(192);
  });
});

describe('draw lists', () => {
  const rate = { num: 24, den: 1 };
  const small = { width: 48, height: 27 };
  const copy = nodeOf({
    id: 'copy',
    name: 'Copy',
    from: 48,
    until: 96,
    content: { is: 'media', media: 'm', size: small, time: running(2, 48, 96, rate) },
    transforms: [fillFrame(small, size)],
  });
  const listed = (node: Node, frame: number) => describeFrame(node, frame)?.[0] ?? [];

  it('show a take from its first frame to the frame before its end, at the right time of its file', () => {
    expect(listed(copy, 47)).toEqual([]);
    expect(listed(copy, 96)).toEqual([]);
    const [first] = listed(copy, 48);
    expect(first.time).toBe(2);
    expect(first.matrix).toEqual([2, 0, 0, 2, 0, 0]);
    expect(listed(copy, 60)[0].time).toBeCloseTo(2.5, 12);
  });

  it('undo the movement that was measured', () => {
    const [moved] = listed({ ...copy, transforms: [move(4, -2, 0, true)] }, 50);
    expect(moved.matrix.map((value) => value + 0)).toEqual([1, 0, 0, 1, -4, 2]);
  });

  it('take as many sub-frames as the picture moves, and one where it stands', () => {
    const across = [
      { frame: 0, value: 0, ease: linear },
      { frame: 12, value: 240, ease: linear },
      { frame: 48, value: 240, ease: 'hold' as const },
    ];
    const tree = stack(
      [film('back', { edges: 'mirrored', transforms: [{ ...move(0), x: across } as Transform] })],
      {
        shutter: { angle: 180, apart: 2 },
      },
    );
    // 20 px a frame, half of it while the shutter is open, at most 2 px apart.
    expect(describeFrame(tree, 6)).toHaveLength(5);
    expect(describeFrame(tree, 6, 0.5)).toHaveLength(3);
    expect(describeFrame(tree, 30)).toHaveLength(1);
    const middles = describeFrame(tree, 6)?.map(([one]) => one.matrix[4]) ?? [];
    expect(middles[2]).toBeCloseTo(120, 9);
    expect(middles[4] - middles[0]).toBeCloseTo(8, 9);
  });
});
