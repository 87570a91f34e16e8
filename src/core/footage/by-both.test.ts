import { describe, expect, it } from 'vitest';
import { byBoth } from './by-both';

const size = { width: 320, height: 180 };
type Box = [left: number, top: number, width: number, height: number];
const maskOf = (...boxes: Box[]) =>
  Uint8Array.from({ length: size.width * size.height }, (_, pixel) => {
    const [x, y] = [pixel % size.width, Math.floor(pixel / size.width)];
    return Number(
      boxes.some(
        ([left, top, width, height]) => x >= left && x < left + width && y >= top && y < top + height,
      ),
    );
  });
const body: Box = [140, 40, 40, 120];
const stick: Box = [180, 80, 50, 4];
/** found coarsely: three pixels too large all round */
const coarse: Box = [137, 37, 46, 126];

describe('who is in a picture, by the empty set and by finding people', () => {
  it('has the edge of what differs, and what they hold', () => {
    expect(byBoth(size, maskOf(body), maskOf(coarse))).toEqual(maskOf(body));
    expect(byBoth(size, maskOf(body, stick), maskOf(coarse))).toEqual(maskOf(body, stick));
  });

  it('leaves out what else differs: leaves, a light that flickers, somebody who is not found', () => {
    const leaves: Box[] = [
      [20, 10, 50, 40],
      [270, 20, 30, 90],
    ];
    expect(byBoth(size, maskOf(body, ...leaves), maskOf(coarse))).toEqual(maskOf(body));
  });

  it('keeps clothes of the wall’s colour as they were found', () => {
    // Head and legs differ, the trunk between them does not.
    const differs = maskOf([140, 40, 40, 30], [140, 110, 40, 50]);
    const found = byBoth(size, differs, maskOf(body));
    // But for notches where what differs ends.
    const missing = maskOf(body).reduce((sum, one, pixel) => sum + (one & ~found[pixel] & 1), 0);
    expect(missing).toBeLessThan(0.02 * 40 * 120);
    expect(byBoth(size, maskOf(), maskOf(body))).toEqual(maskOf(body));
  });

  it('keeps the daylight under an arm open, which people are found across', () => {
    const arm: Box[] = [
      [180, 50, 20, 10],
      [190, 60, 10, 40],
      [180, 90, 20, 10],
    ];
    const found = byBoth(size, maskOf(body, ...arm), maskOf(coarse, [180, 50, 20, 50]));
    expect(found[75 * size.width + 185]).toBe(0);
  });

  it('goes by the person alone where nearly everything differs, as once the camera was moved', () => {
    expect(byBoth(size, maskOf([0, 0, 320, 180]), maskOf(body))).toEqual(maskOf(body));
  });

  it('finds nobody where no person was found', () => {
    expect(byBoth(size, maskOf(body), maskOf())).toEqual(maskOf());
  });
});
