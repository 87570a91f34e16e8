import { describe, expect, it } from 'vitest';
import { texture } from '../../__tests__/scene';
import type { Point } from '../../geometry/size';
import { seeded } from '../../random';
import { guided } from '../guided';
import { coverOfRings } from '../mask';
import { rgbaToYuv, type YuvImage } from '../planes';
import { fitEdge } from './fit-edge';

const size = { width: 640, height: 360 };
const pixels = size.width * size.height;
const middle: Point = [320, 180];
/** squares round the middle lie so near to the outline, as a share of its radius */
const radius = 110;
/** as a cut-out has it: a sixtieth of a file's width, at 960 across */
const reach = 16;

/** A head that is no circle, drawn off its true outline by some pixels to and fro. */
const head = (off: number): Point[] =>
  Array.from({ length: 120 }, (_, index): Point => {
    const turn = (index / 120) * 2 * Math.PI;
    const far = radius * (1 + 0.05 * Math.sin(3 * turn)) + off * Math.sin(5.3 * index);
    return [middle[0] + far * Math.cos(turn), middle[1] + far * Math.sin(turn)];
  });

/** Adds strands of hair that leave the head and bend, one to two pixels thick. */
function withHair(cover: Float32Array, strands: number): Float32Array {
  const out = cover.slice();
  const next = seeded(5);
  for (let strand = 0; strand < strands; strand++) {
    let way = next() * 2 * Math.PI;
    let [x, y] = [middle[0] + radius * Math.cos(way), middle[1] + radius * Math.sin(way)];
    const [bend, thick] = [(next() - 0.5) * 0.02, 0.6 + next() * 1.2];
    for (let gone = 0; gone < 8 + 14 * next(); gone += 0.5) {
      [x, y, way] = [x + 0.5 * Math.cos(way), y + 0.5 * Math.sin(way), way + bend];
      for (let dy = -2; dy <= 2; dy++)
        for (let dx = -2; dx <= 2; dx++) {
          const [column, row] = [Math.floor(x) + dx, Math.floor(y) + dy];
          const share = Math.min(1, thick / 2 + 0.5 - Math.hypot(column + 0.5 - x, row + 0.5 - y));
          const at = row * size.width + column;
          out[at] = Math.max(out[at], share);
        }
    }
  }
  return out;
}

/** Coverage of something that moved so many pixels sideways while the shutter was open. */
const moved = (cover: Float32Array, by: number): Float32Array =>
  cover.map((_, at) => {
    let sum = 0;
    for (let step = -(by >> 1); step <= by >> 1; step++) sum += cover[at + step] ?? 0;
    return sum / (2 * (by >> 1) + 1);
  });

/** A texture at every pixel, drawn once. */
const drawnTextures = new Map<number, Float32Array>();
function textureOf(seed: number): Float32Array {
  const at = texture(seed, size);
  const known =
    drawnTextures.get(seed) ??
    Float32Array.from({ length: pixels }, (_, p) => at(p % size.width, Math.floor(p / size.width)));
  drawnTextures.set(seed, known);
  return known;
}

/** Hair over a wall, both with a texture of their own, as much of each as is covered, with noise of 3/255. */
function filmed(cover: Float32Array, [dark, light]: [number, number], seed: number): YuvImage {
  const [hair, wall] = [textureOf(seed), textureOf(seed + 20)];
  const next = seeded(seed);
  const data = new Uint8ClampedArray(4 * pixels);
  for (let at = 0; at < pixels; at++) {
    const inside = [1.3, 0.9, 0.7].map((share) => share * (dark + 0.15 * hair[at]));
    const outside = [0.9, 1, 1.1].map((share) => share * (light + 0.4 * wall[at]));
    for (let channel = 0; channel < 3; channel++)
      data[4 * at + channel] =
        cover[at] * inside[channel] +
        (1 - cover[at]) * outside[channel] +
        6 * (next() + next() + next() - 1.5);
    data[4 * at + 3] = 255;
  }
  return rgbaToYuv({ ...size, data });
}

/** Coverage 0..1 of the whole picture. */
function fitted(picture: YuvImage, rings: Point[][]): Float32Array {
  const edge = fitEdge(picture, rings, reach);
  const out = new Float32Array(pixels);
  edge.data.forEach((value, at) => {
    const [x, y] = [edge.left + (at % edge.width), edge.top + Math.floor(at / edge.width)];
    out[y * size.width + x] = value / 255;
  });
  return out;
}

/** Mean distance from the truth over all pixels within reach of the edge. */
function errorOf(cover: Float32Array, truth: Float32Array): number {
  let [sum, count] = [0, 0];
  for (let at = 0; at < pixels; at++) {
    const far = Math.hypot((at % size.width) - middle[0], Math.floor(at / size.width) - middle[1]);
    if (Math.abs(far - radius) > reach + 5) continue;
    count++;
    sum += Math.abs(cover[at] - truth[at]);
  }
  return sum / count;
}

const head0 = coverOfRings([head(0)], size);
const cases = [
  { what: 'a sharp edge that was drawn 4 px off', truth: head0, off: 4, share: 0.25 },
  { what: 'hair', truth: withHair(head0, 260), off: 0, share: 0.55 },
  { what: 'hair that was drawn 4 px off', truth: withHair(head0, 260), off: 4, share: 0.45 },
  { what: 'what moved 17 px', truth: moved(head0, 17), off: 0, share: 0.45 },
  { what: 'what moved 31 px, drawn 4 px off', truth: moved(head0, 31), off: 4, share: 0.45 },
];

describe('an edge that is fitted to its picture', () => {
  // The scene is made up; shares of the error that is left were measured, on seeds that nothing was tuned on.
  it.each(cases)(
    'leaves less than $share of the error of $what, and less than a guided filter',
    ({ truth, off, share, what }) => {
      const rings = [head(off)];
      const drawn = coverOfRings(rings, size);
      const looks: [number, number][] = [
        [35, 90],
        [60, 140],
        [150, 40],
      ];
      const errors = looks.map((look, seed) => {
        const picture = filmed(truth, look, 31 + seed);
        const light = Float32Array.from(picture.y, (value) => value / 255);
        const soft = guided(size, light, drawn, reach / 2, 1e-3);
        return [errorOf(fitted(picture, rings), truth), errorOf(soft, truth)];
      });
      const mean = (which: number) => errors.reduce((sum, one) => sum + one[which], 0) / errors.length;
      console.info(
        `${what}: ${errorOf(drawn, truth).toFixed(4)} drawn, ${mean(1).toFixed(4)} guided, ${mean(0).toFixed(4)} fitted.`,
      );
      expect(mean(0)).toBeLessThan(share * errorOf(drawn, truth));
      expect(mean(0)).toBeLessThan(mean(1));
    },
  );

  it('stays as it was drawn where nothing tells both sides apart', () => {
    const rings = [head(0)];
    const even = filmed(new Float32Array(pixels), [0, 110], 31);
    expect(errorOf(fitted(even, rings), coverOfRings(rings, size))).toBeLessThan(0.05);
  });

  it('covers nothing further away than it may reach, and all that lies deep inside', () => {
    const cover = fitted(filmed(withHair(head0, 260), [35, 90], 31), [head(0)]);
    for (let at = 0; at < pixels; at++) {
      const far = Math.hypot((at % size.width) - middle[0], Math.floor(at / size.width) - middle[1]);
      if (far > radius * 1.05 + 2 * reach) expect(cover[at]).toBe(0);
      if (far < radius * 0.95 - 2 * reach) expect(cover[at]).toBe(1);
    }
  });

  it('takes shapes that lie beyond the picture, round all of it, or nowhere, as they are', () => {
    const picture = filmed(head0, [35, 90], 31);
    const box = (left: number, top: number, right: number, bottom: number): Point[] => [
      [left, top],
      [right, top],
      [right, bottom],
      [left, bottom],
    ];
    for (const rings of [[], [box(700, 20, 720, 60)]])
      expect(fitted(picture, rings).every((share) => share === 0)).toBe(true);
    expect(fitted(picture, [box(-60, -60, 700, 420)]).every((share) => share === 1)).toBe(true);
    const corner = fitted(picture, [box(-9, -9, 40, 40)]);
    expect(corner[10 * size.width + 10]).toBe(1);
    expect(corner[80 * size.width + 80]).toBe(0);
    expect(corner.every(Number.isFinite)).toBe(true);
  });
});
