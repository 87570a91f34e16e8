import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/size';
import { filePlaceAt } from '../picture/layer-at';
import { bare, mediaIn, type MediaNode } from '../picture/node';
import { layerOf, pictureOf, span } from '../recipes/__tests__/layers';
import { tappedHead } from './tapped-head';

const size = { width: 400, height: 200 };
const rate = { num: 25, den: 1 };
/** Half as large as it was filmed, in the right half of the picture, before one that fills it. */
const small = (): MediaNode => {
  const [layer] = mediaIn(layerOf('small', 8, size, rate));
  return { ...layer, transforms: [{ is: 'map', matrix: [0.5, 0, 0, 0.5, 200, 50] }] };
};
const layers = mediaIn(pictureOf(size, layerOf('back', 3, size, rate), bare(small())));
const placeAt =
  (frame: number) =>
  ([x, y]: Point) =>
    filePlaceAt(layers, frame, [x * size.width, y * size.height]);

describe('a point of the picture', () => {
  it('is a place in the file that shows there, at its own time and in its own size', () => {
    expect(placeAt(span.from + 25)([0.25, 0.5])).toEqual({ media: 'back', time: 4, at: [0.25, 0.5] });
    expect(placeAt(span.from + 25)([0.75, 0.5])).toEqual({ media: 'small', time: 9, at: [0.5, 0.5] });
    expect(placeAt(span.until)([0.25, 0.5])).toBeNull();
  });
});

describe('a tap on somebody', () => {
  const place = placeAt(span.from);
  const tapped = place([0.7, 0.5]);
  if (!tapped) throw new Error('Nothing shows there.');

  it('means the head under it, as large as it is in its file', () => {
    const found = tappedHead(tapped, { at: [0.75, 0.5], reach: 0.05 }, place);
    expect(found.place).toEqual({ media: 'small', time: 8, at: [0.5, 0.5] });
    expect(found.reach).toBeCloseTo(0.1, 6);
    // Its outer edge may lie beyond the file: the inner one says how large it is.
    const outermost = tappedHead(tapped, { at: [0.98, 0.5], reach: 0.05 }, place);
    expect(outermost.reach).toBeCloseTo(0.1, 6);
  });

  it('means the point itself where no head is found, or one that another file shows', () => {
    const elsewhere: Point[] = [
      [0.3, 0.5],
      [0.52, 0.5],
    ];
    for (const head of [null, ...elsewhere.map((at) => ({ at, reach: 0.05 }))])
      expect(tappedHead(tapped, head, place)).toEqual({ place: tapped, reach: null });
  });
});
