import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import { rgbaToYuv, yuvToRgba, type YuvKind } from './planes';
import { CleanPictures, planesWithoutSpill, withoutSpill, type Rgb } from './spill';

const size = { width: 32, height: 18 };
const green: Rgb = [40, 170, 60];
const channel = fc.integer({ min: 0, max: 255 });
const kinds: YuvKind[] = [
  { matrix: 'bt709', fullRange: false },
  { matrix: 'bt709', fullRange: true },
  { matrix: 'bt601', fullRange: false },
];

describe('the light of a backdrop', () => {
  it('is taken out of planes as out of colours', () => {
    fc.assert(
      fc.property(fc.tuple(channel, channel, channel), fc.constantFrom(...kinds.slice(0, 2)), (rgb, kind) => {
        const picture = rgbaToYuv(
          painted(size, () => rgb),
          kind,
        );
        const clean = planesWithoutSpill(picture, green);
        expect(clean.y).toBe(picture.y);
        const [one, other] = [yuvToRgba(clean), withoutSpill(yuvToRgba(picture), green)];
        // What is out of range is cut off in one of the two.
        for (let at = 0; at < 3; at++)
          if (Math.min(one.data[at], other.data[at]) > 0 && Math.max(one.data[at], other.data[at]) < 255)
            expect(Math.abs(one.data[at] - other.data[at])).toBeLessThanOrEqual(8);
      }),
    );
  });

  it.each(kinds)('leaves nothing of the backdrop’s colour, and other colours as they are: %o', (kind) => {
    const planes = (rgb: Rgb) =>
      rgbaToYuv(
        painted(size, () => [...rgb] as [number, number, number]),
        kind,
      );
    const gone = planesWithoutSpill(planes(green), green);
    for (const plane of [gone.u, gone.v]) expect(Math.abs(plane[0] - 128)).toBeLessThanOrEqual(1);
    const skin = planes([205, 150, 120]);
    expect([...planesWithoutSpill(skin, green).u]).toEqual([...skin.u]);
    // A grey is the colour of nothing.
    expect([...planesWithoutSpill(planes(green), [90, 90, 90]).v]).toEqual([...planes(green).v]);
  });

  it('is taken out of a picture once while it is the same, for each colour', () => {
    const picture = rgbaToYuv(painted(size, () => [60, 180, 70]));
    const pictures = new CleanPictures();
    expect(pictures.of(picture, undefined)).toBe(picture);
    const clean = pictures.of(picture, green);
    expect(pictures.of(picture, [40, 170, 60])).toBe(clean);
    expect([...pictures.of(picture, [30, 40, 200]).u]).not.toEqual([...clean.u]);
    pictures.clear();
    expect(pictures.of(picture, green)).not.toBe(clean);
  });
});
