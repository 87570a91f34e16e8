import { describe, expect, it } from 'vitest';
import { painted } from '../../__tests__/scene';
import type { Point } from '../../geometry/size';
import { resizeYuv, rgbaToYuv } from '../planes';
import { FittedEdges, type Fitting } from './fitted-edges';

const content = { width: 240, height: 136 };
/** A dark disc before a light wall, and the outline of one that lies five pixels beside it. */
const picture = rgbaToYuv(
  painted(content, (x, y) => (Math.hypot(x - 120, y - 68) < 40 ? [60, 40, 30] : [190, 200, 210])),
);
const disc = (left: number): Point[] =>
  Array.from({ length: 60 }, (_, index): Point => {
    const turn = (index / 60) * 2 * Math.PI;
    return [left + 40 * Math.cos(turn), 68 + 40 * Math.sin(turn)];
  });
const fitting: Fitting = { rings: [disc(125)], fit: { reach: 12 }, content, media: 'm', seconds: 0 };

/** Share of the frame's width and of its height by which what is covered lies off the disc, and its share of the disc's area. */
function measured(cover: Uint8Array, { width, height }: { width: number; height: number }) {
  let [sum, across, down] = [0, 0, 0];
  cover.forEach((value, at) => {
    sum += value / 255;
    across += (value / 255) * ((at % width) + 0.5);
    down += (value / 255) * (Math.floor(at / width) + 0.5);
  });
  return {
    x: across / sum / width,
    y: down / sum / height,
    area: sum / width / height / ((Math.PI * 40 * 40) / content.width / content.height),
  };
}

describe('coverage of a fitted outline', () => {
  const whole = { ...content };
  const sizes: [string, { width: number; height: number }, number][] = [
    ['as large as the file', whole, 1],
    ['a half', { width: 120, height: 68 }, 1],
    ['twice as large', { width: 480, height: 272 }, 1],
    ['out of a proxy of a half', whole, 0.5],
  ];
  it.each(sizes)('lies where the picture has its edge, painted %s', (_, size, proxy) => {
    const shown =
      proxy === 1
        ? picture
        : resizeYuv(picture, { width: content.width * proxy, height: content.height * proxy });
    const scale = size.width / content.width;
    const cover = new FittedEdges().cover(fitting, shown, [scale, 0, 0, scale, 0, 0], size);
    const { x, y, area } = measured(cover, size);
    // Drawn, it lay five pixels of 240 to the right.
    expect(Math.abs(x - 0.5) * content.width).toBeLessThan(1);
    expect(Math.abs(y - 0.5) * content.height).toBeLessThan(1);
    expect(Math.abs(area - 1)).toBeLessThan(0.03);
  });

  it('shows what lies within a part of it alone', () => {
    const within: Point[] = [
      [0, 0],
      [120, 0],
      [120, 136],
      [0, 136],
    ];
    const fit = { reach: 12, part: { of: fitting.rings, within } };
    // What is drawn of a part says nothing of where the whole has its edge.
    const part = { ...fitting, rings: [disc(30)], fit };
    const cover = new FittedEdges().cover(part, picture, [1, 0, 0, 1, 0, 0], content);
    const { area } = measured(cover, content);
    expect(Math.abs(area - 0.5)).toBeLessThan(0.03);
    expect(cover[68 * 240 + 121]).toBe(0);
    expect(cover[68 * 240 + 118]).toBe(255);
  });

  it('is worked out once for one picture, and anew for another or another outline', () => {
    const edges = new FittedEdges();
    const unmoved: [number, number, number, number, number, number] = [1, 0, 0, 1, 0, 0];
    const light = rgbaToYuv(painted(content, () => [190, 200, 210]));
    const first = edges.cover(fitting, picture, unmoved, content);
    // The same file's second is the same picture: what is given beside it is not looked at again.
    expect(edges.cover(fitting, light, unmoved, content)).toEqual(first);
    const later = edges.cover({ ...fitting, seconds: 1 }, light, unmoved, content);
    expect(later).not.toEqual(first);
    expect(edges.cover({ ...fitting, rings: [disc(112)] }, light, unmoved, content)).not.toEqual(later);
  });
});
