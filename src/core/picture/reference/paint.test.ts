import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import type { Point } from '../../geometry/size';
import { linear } from '../../motion/easing';
import { still, type Track } from '../../motion/keyframes';
import { foldIndex } from '../edges';
import type { RgbaImage } from '../image';
import { groupOf, nodeOf, outlineMatte, type Matte, type Node, type Transform } from '../node';
import { picturesIn } from '../wanted';
import { paintFrame } from './paint';

const size = { width: 32, height: 20 };
const whole = { from: 0, until: 10 };
const scene = painted(size, (x, y) => [(x * 8) % 256, (y * 12) % 256, ((x + y) * 5) % 256]);
const level = (value: number): RgbaImage => painted(size, () => [value, value, value]);
const ramp: Track = [
  { frame: 0, value: 0, ease: linear },
  { frame: 10, value: 40, ease: 'hold' },
];

const colour = (id: string, value: number, more: Partial<Node> = {}): Node =>
  nodeOf({ id, name: id, ...whole, content: { is: 'colour', rgb: [value, value, value] }, ...more });
const media = (id: string, more: Partial<Node> = {}): Node =>
  nodeOf({ id, name: id, ...whole, content: { is: 'media', media: id, size, time: still(0) }, ...more });
const group = (nodes: Node[], more: Partial<Node> = {}): Node => groupOf('all', size, whole, nodes, more);
const shifted = (x: Track): Transform => ({
  is: 'move',
  size,
  x,
  y: still(0),
  rotation: still(0),
  scale: still(1),
  undone: false,
});
const box = (left: number, top: number, right: number, bottom: number): Point[] => [
  [left, top],
  [right, top],
  [right, bottom],
  [left, bottom],
];
const cut = (...rings: Point[][]): Matte => outlineMatte('parent', [{ frame: 0, rings }], 0);
const paint = (tree: Node, frame = 0, pictures: Record<string, RgbaImage> = { scene }) =>
  paintFrame(tree, frame, size, (id) => pictures[id] ?? null);
const at = ({ data, width }: RgbaImage, x: number, y: number) => data[(y * width + x) * 4];
const row = (picture: RgbaImage, y = 10) => Array.from({ length: size.width }, (_, x) => at(picture, x, y));

describe('the reference painter', () => {
  it('copies a picture that fits, and is black where nothing shows', () => {
    expect([...paint(group([media('scene')])).data]).toEqual([...scene.data]);
    expect(new Set(paint(group([media('gone')])).data)).toEqual(new Set([0, 255]));
    expect(at(paint(group([colour('a', 200, { from: 5 })]), 4), 3, 3)).toBe(0);
    expect(at(paint(group([colour('a', 200, { from: 5 })]), 5), 3, 3)).toBe(200);
  });

  // W3C Compositing and Blending Level 1, section 5.1: co = cs·αs + cb·αb·(1 − αs), each group by itself.
  it('lays groups over each other by their coverage', () => {
    const glass = group([colour('a', 255, { opacity: still(0.5) })], { id: 'glass', opacity: still(0.5) });
    expect(at(paint(group([colour('b', 100), glass])), 4, 4)).toBe(Math.round(255 * 0.25 + 100 * 0.75));
    const both = group([
      colour('a', 200, { opacity: still(0.5) }),
      colour('b', 100, { opacity: still(0.5) }),
    ]);
    expect(at(paint(both), 4, 4)).toBe(Math.round(100 * 0.5 + 200 * 0.25));
  });

  // The same, section 10.1: multiply and screen of 0.8 and 0.5, over what is there and over nothing.
  it('blends with what is there, and not with what is not', () => {
    const blended = (blend: Node['blend'], back: Node[]) =>
      at(paint(group([...back, colour('top', 127.5, { blend })])), 4, 4) / 255;
    expect(blended('multiply', [colour('b', 204)])).toBeCloseTo(0.4, 2);
    expect(blended('screen', [colour('b', 204)])).toBeCloseTo(0.9, 2);
    const alone = group([colour('top', 127.5, { blend: 'multiply' })], { id: 'inner' });
    expect(at(paint(group([alone])), 4, 4)).toBe(128);
  });

  // A hard edge that moves 8 px while the shutter is open is a slope of 8 px: the exact mean over its open time.
  it('is the mean over the time that the shutter is open', () => {
    const edge = painted(size, (x) => (x < 0 ? [0, 0, 0] : [255, 255, 255]));
    const x: Track = [
      { frame: 0, value: -16, ease: linear },
      { frame: 10, value: 144, ease: 'hold' },
    ];
    const tree = group([media('edge', { transforms: [shifted(x)] })], {
      shutter: { angle: 180, apart: 0.25 },
    });
    // On frame 2 the picture's left edge lies at 16 px, and moves from 12 to 20 px while the shutter is open.
    const given = row(paint(tree, 2, { edge }));
    given.forEach((value, column) => {
      const share = Math.min(1, Math.max(0, (column + 0.5 - 12) / 8));
      expect(Math.abs(value - 255 * share)).toBeLessThan(6);
    });
  });

  it('cuts on whole frames, also with the shutter open', () => {
    const nodes = [
      colour('one', 50, { until: 5 }),
      colour('two', 200, { from: 5 }),
      media('scene', { opacity: still(0), transforms: [shifted(ramp)] }),
    ];
    const tree = group(nodes, { shutter: { angle: 360, apart: 1 } });
    expect([4, 5].map((frame) => at(paint(tree, frame), 3, 3))).toEqual([50, 200]);
  });

  it('goes on beyond the edge: nothing, mirrored or repeated', () => {
    const slope = painted(size, (x) => [8 * x, 0, 0]);
    const of = (edges: Node['edges']) =>
      row(paint(group([media('slope', { edges, transforms: [shifted(still(12))] })]), 0, { slope }));
    const [empty, mirrored, repeated] = (['empty', 'mirrored', 'repeated'] as const).map(of);
    expect(empty.slice(0, 12)).toEqual(Array(12).fill(0));
    for (let column = 1; column < 12; column++) {
      expect(mirrored[12 - column]).toBe(mirrored[11 + column]);
      expect(repeated[12 - column]).toBe(at(slope, 32 - column, 10));
    }
  });

  it('shows a part of the content, as far as it is cropped', () => {
    const given = row(paint(group([media('scene', { crop: { left: 8, top: 0, right: 16, bottom: 20 } })])));
    expect(given[7]).toBe(0);
    expect(given[8]).toBe(at(scene, 8, 10));
    expect(given[16]).toBe(0);
  });

  it('cuts out rings with holes and islands', () => {
    const rings = [box(2, 2, 30, 18), box(6, 4, 26, 16), box(12, 8, 20, 12)];
    const given = row(paint(group([colour('a', 255, { mattes: [cut(...rings)] })])));
    const inside = (x: number) => (x >= 2 && x < 6) || (x >= 12 && x < 20) || (x >= 26 && x < 30);
    expect(given).toEqual(given.map((_, x) => (inside(x) ? 255 : 0)));
  });

  it('inverts, grows, shrinks and feathers a matte', () => {
    const of = (more: Partial<Matte>) =>
      row(paint(group([colour('a', 255, { mattes: [{ ...cut(box(10, 0, 20, 20)), ...more }] })])));
    const wide = (values: number[]) => values.reduce((sum, value) => sum + value / 255, 0);
    expect(wide(of({}))).toBe(10);
    expect(wide(of({ inverted: true }))).toBe(22);
    expect(wide(of({ grow: still(3) }))).toBe(16);
    expect(wide(of({ grow: still(-3) }))).toBe(4);
    const soft = of({ feather: still(8) });
    expect(wide(soft)).toBeCloseTo(10, 1);
    expect(soft[9] + soft[10]).toBeCloseTo(255, -1);
    expect(soft[15]).toBe(255);
  });

  it('moves an outline between its keyframes, and holds it where it is to be held', () => {
    const keys = [
      { frame: 0, rings: [box(0, 0, 10, 20)] },
      { frame: 10, rings: [box(20, 0, 30, 20)] },
    ];
    const of = (between: 'holds' | 'moves') => {
      const matte: Matte = { ...cut(), shape: { is: 'outline', keys, between } };
      return row(paint(group([colour('a', 255, { mattes: [matte] })]), 5)).indexOf(255);
    };
    expect([of('holds'), of('moves')]).toEqual([0, 10]);
  });

  it('counts a matte in the pixels of the content, so that it moves along', () => {
    const matte: Matte = outlineMatte('content', [{ frame: 0, rings: [box(0, 0, 4, 20)] }], 0);
    const tree = group([media('scene', { mattes: [matte], transforms: [shifted(still(9))] })]);
    const given = paint(tree, 0, { scene: level(255) });
    expect(row(given)).toEqual(row(given).map((_, x) => (x >= 9 && x < 13 ? 255 : 0)));
  });

  it('takes a matte from a raster and from what another node covers', () => {
    const raster = painted(size, (x) => (x < 16 ? [255, 255, 255] : [0, 0, 0]));
    const shape: Matte['shape'] = { is: 'raster', media: 'raster', size, time: still(0) };
    const byRaster = paint(group([colour('a', 255, { mattes: [{ ...cut(), shape }] })]), 0, { raster });
    const byNode = paint(
      group([
        colour('hidden', 9, { id: 'hidden', opacity: still(1), mattes: [cut(box(0, 0, 16, 20))] }),
        colour('a', 255, { mattes: [{ ...cut(), shape: { is: 'node', node: 'hidden' } }] }),
      ]),
    );
    for (const given of [byRaster, byNode]) expect([at(given, 10, 5), at(given, 22, 5)]).toEqual([255, 0]);
  });

  it('refuses masks that ask for each other', () => {
    const asks = (id: string, node: string) =>
      colour(id, 255, { mattes: [{ ...cut(), shape: { is: 'node', node } }] });
    expect(() => paint(group([asks('a', 'b'), asks('b', 'a')]))).toThrow(
      expect.objectContaining({ code: 'matte.loop' }),
    );
  });

  it('shows copies in time, each where it was then', () => {
    const dot = colour('dot', 255, {
      until: 20,
      mattes: [
        {
          ...cut(),
          shape: {
            is: 'outline',
            between: 'moves',
            keys: [
              { frame: 0, rings: [box(0, 0, 2, 20)] },
              { frame: 10, rings: [box(20, 0, 22, 20)] },
            ],
          },
        },
      ],
    });
    const copies = [
      { later: -4, opacity: 0.25 },
      { later: -2, opacity: 0.5 },
      { later: 0, opacity: 1 },
    ];
    const tree = nodeOf({
      id: 'trail',
      name: 'Trail',
      ...whole,
      content: { is: 'copies', size, node: dot, copies },
    });
    const given = row(paint(group([tree]), 5));
    expect([2, 6, 10].map((x) => given[x])).toEqual([64, 128, 255]);
  });

  it('paints text as coverage and grains about the middle grey', () => {
    const letters = painted(size, (x) => (x < 8 ? [255, 255, 255] : [0, 0, 0]));
    const text = nodeOf({
      id: 'text',
      name: 'Text',
      ...whole,
      content: { is: 'coverage', media: 'letters', size, rgb: [200, 10, 10] },
    });
    const given = paint(group([colour('b', 50), text]), 0, { letters });
    expect([at(given, 3, 3), at(given, 20, 3)]).toEqual([200, 50]);
    const grain = nodeOf({ id: 'n', name: 'Grain', ...whole, content: { is: 'noise', seed: 4, grain: 1 } });
    const [one, again, next] = [0, 0, 1].map((frame) => paint(group([grain]), frame));
    expect([...one.data]).toEqual([...again.data]);
    expect([...one.data]).not.toEqual([...next.data]);
    const grey = [...one.data].filter((_, index) => index % 4 === 0);
    expect(Math.abs(grey.reduce((sum, value) => sum + value, 0) / grey.length - 127.5)).toBeLessThan(12);
  });

  it('blurs, splits colours and turns negative', () => {
    const edge = painted(size, (x) => (x < 16 ? [0, 0, 0] : [255, 255, 255]));
    const of = (effect: Node['effects'][number]) =>
      paint(group([media('edge', { effects: [effect] })]), 0, { edge });
    // A blurred edge is the integral of the Gaussian (error function); one deviation away lie 84.1 %.
    const soft = row(of({ is: 'blur', radius: still(3) }));
    expect((soft[18] + soft[19]) / 2 / 255).toBeCloseTo(0.841, 1);
    expect(soft[15] + soft[16]).toBeCloseTo(255, -1);
    const apart = of({ is: 'split', x: still(2), y: still(0) });
    const channels = (x: number) => [...apart.data.slice((10 * 32 + x) * 4, (10 * 32 + x) * 4 + 3)];
    expect(channels(15)).toEqual([0, 0, 255]);
    expect(channels(17)).toEqual([0, 255, 255]);
    expect(at(of({ is: 'negative', amount: still(1) }), 3, 3)).toBe(255);
  });

  it('asks for every picture that it needs before it paints', () => {
    const inner = media('inner', {
      content: { is: 'media', media: 'inner', size, time: ramp },
      transforms: [shifted(ramp)],
    });
    const shape: Matte['shape'] = { is: 'raster', media: 'mask', size, time: ramp };
    const trail = nodeOf({
      id: 'trail',
      name: 'Trail',
      ...whole,
      content: {
        is: 'copies',
        size,
        node: inner,
        copies: [
          { later: -2, opacity: 1 },
          { later: 0, opacity: 1 },
        ],
      },
      mattes: [{ ...cut(), shape }],
    });
    const tree = group([media('scene'), trail], { shutter: { angle: 180, apart: 1 } });
    const given = new Set(picturesIn(tree, 5).map((one) => `${one.media} ${one.seconds}`));
    const asked: string[] = [];
    paintFrame(tree, 5, size, (id, seconds) => {
      asked.push(`${id} ${seconds}`);
      return scene;
    });
    expect(asked.filter((one) => !given.has(one))).toEqual([]);
    expect(new Set(asked).size).toBe(given.size);
  });
});

describe('edges', () => {
  it('mirror and repeat whole pictures, and hold an empty edge', () => {
    fc.assert(
      fc.property(fc.integer({ min: -90, max: 90 }), fc.integer({ min: 1, max: 9 }), (index, length) => {
        const [mirrored, repeated, held] = (['mirrored', 'repeated', 'empty'] as const).map((edges) =>
          foldIndex(index, 3, 3 + length, edges),
        );
        for (const place of [mirrored, repeated, held]) {
          expect(place).toBeGreaterThanOrEqual(3);
          expect(place).toBeLessThan(3 + length);
        }
        expect((((repeated - index) % length) + length) % length).toBe(0);
        expect(foldIndex(5 - index, 3, 3 + length, 'mirrored')).toBe(mirrored);
        expect(held).toBe(Math.min(2 + length, Math.max(3, index)));
      }),
    );
  });
});
