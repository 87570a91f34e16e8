import type { Point } from '../geometry/size';
import { linear } from '../motion/easing';
import { still, type Track } from '../motion/keyframes';
import { blendModes, type BlendMode } from '../picture/blend';
import { groupOf, nodeOf, type Content, type Effect, type Matte, type Node } from '../picture/node';
import { seeded } from '../random';

const size = { width: 96, height: 54 };
const span = { from: 0, until: 20 };

/** Pictures with everything that nodes can say, mixed at random; the same for the same seed. Files are `a`, `b` and `mask`. */
export function randomTree(seed: number): Node {
  const next = seeded(seed);
  const number = (from: number, until: number) => from + (until - from) * next();
  const chance = (share: number) => next() < share;
  const oneOf = <Some>(all: readonly Some[]): Some => all[Math.floor(next() * all.length)];
  const track = (from: number, until: number): Track =>
    chance(0.5)
      ? still(number(from, until))
      : [
          { frame: 0, value: number(from, until), ease: linear },
          { frame: 19, value: number(from, until), ease: 'hold' },
        ];
  const ring = (): Point[] => {
    const [x, y, reach] = [number(20, 76), number(10, 44), number(8, 40)];
    return Array.from({ length: 5 }, (_, corner): Point => {
      const turn = (2 * Math.PI * corner) / 5 + seed;
      return [x + reach * Math.cos(turn), y + reach * Math.sin(turn)];
    });
  };
  const matte = (): Matte => ({
    space: oneOf(['content', 'parent'] as const),
    shape: chance(0.6)
      ? {
          is: 'outline',
          keys: [
            { frame: 0, rings: [ring()] },
            { frame: 15, rings: [ring()] },
          ],
          between: 'moves',
          ...(chance(0.3)
            ? { fit: { reach: 6, ...(chance(0.5) ? { part: { of: [ring()], within: ring() } } : {}) } }
            : {}),
        }
      : chance(0.5)
        ? { is: 'raster', media: 'mask', size, time: still(0) }
        : { is: 'node', node: 'first' },
    inverted: chance(0.3),
    grow: chance(0.3) ? still(number(-3, 3)) : still(0),
    feather: still(oneOf([0, 3, 9])),
  });
  const effect = (): Effect =>
    oneOf<() => Effect>([
      () => ({ is: 'blur', radius: track(0, 3) }),
      () => ({ is: 'split', x: track(-3, 3), y: track(-3, 3) }),
      () => ({ is: 'negative', amount: track(0, 1) }),
      () => ({ is: 'box', reach: track(0, 3) }),
      () => ({ is: 'directional', length: track(0, 9), angle: track(-90, 90) }),
      () => ({ is: 'zoom', share: track(0, 0.2) }),
      () => ({ is: 'glow', radius: track(0, 3), from: number(0, 0.7), amount: track(0, 1) }),
      () => ({ is: 'colours', brightness: track(0.5, 1.5), saturation: track(0, 1.5), hue: track(-60, 60) }),
      () => ({ is: 'tint', rgb: [number(0, 255), 90, 40], amount: track(0, 1) }),
      () => ({ is: 'vignette', amount: track(0, 1) }),
      () => ({ is: 'wave', by: track(-4, 4), length: number(6, 60), turned: track(0, 360) }),
      () => ({ is: 'bend', amount: track(-0.3, 0.3) }),
    ])();
  const content = (depth: number): Content =>
    oneOf<() => Content>([
      () => ({ is: 'media', media: oneOf(['a', 'b']), size, time: track(0, 2) }),
      () => ({ is: 'media', media: oneOf(['a', 'b']), size, time: track(0, 2), without: [40, 170, 60] }),
      () => ({ is: 'colour', rgb: [number(0, 255), number(0, 255), number(0, 255)] }),
      () => ({ is: 'noise', seed: 3, grain: 3 }),
      () => ({ is: 'coverage', media: 'mask', size, rgb: [number(0, 255), 90, 40] }),
      () => ({ is: 'group', size, nodes: depth > 1 ? [] : [node(depth + 1), node(depth + 1)] }),
      () => ({
        is: 'copies',
        size,
        node: node(2),
        copies: [
          { later: -3, opacity: 0.4 },
          { later: 0, opacity: 1 },
        ],
      }),
    ])();
  const node = (depth: number): Node =>
    nodeOf({
      id: `n${next()}`,
      name: 'node',
      ...span,
      content: content(depth),
      crop: chance(0.2) ? { left: 6, top: 4, right: 80, bottom: 50 } : null,
      edges: oneOf(['empty', 'mirrored', 'repeated'] as const),
      grade: chance(0.3)
        ? { slope: [1.1, 0.9, 1], offset: [0.02, 0, -0.02], power: [1.1, 1, 0.9], saturation: 0.8 }
        : null,
      transforms: chance(0.6)
        ? [
            {
              is: 'move',
              size,
              x: track(-20, 20),
              y: track(-10, 10),
              rotation: track(-30, 30),
              scale: track(0.4, 1.6),
              undone: chance(0.2),
            },
          ]
        : [],
      effects: chance(0.4) ? [effect()] : [],
      mattes: chance(0.5) ? [matte()] : [],
      opacity: chance(0.3) ? track(0, 1) : still(1),
      blend: chance(0.4) ? oneOf(Object.keys(blendModes) as BlendMode[]) : 'normal',
      shutter: chance(0.2) ? { angle: 180, apart: 2 } : null,
    });
  const first = nodeOf({
    id: 'first',
    name: 'first',
    ...span,
    content: { is: 'media', media: 'a', size, time: still(0) },
  });
  const cut = {
    ...first,
    mattes: [
      {
        ...matte(),
        shape: { is: 'outline' as const, keys: [{ frame: 0, rings: [ring()] }], between: 'holds' as const },
      },
    ],
  };
  return groupOf('all', size, span, [cut, node(0), node(0), node(0)]);
}
