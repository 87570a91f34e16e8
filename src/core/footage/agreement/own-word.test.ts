import { describe, expect, it } from 'vitest';
import { settled } from './own-word';

const size = { width: 320, height: 180 };
type Box = [left: number, top: number, width: number, height: number];
const body: Box = [140, 40, 40, 120];
const arm: Box = [180, 60, 60, 8];

const maskOf = (...boxes: Box[]) =>
  Uint8Array.from({ length: size.width * size.height }, (_, pixel) => {
    const [x, y] = [pixel % size.width, Math.floor(pixel / size.width)];
    return boxes.some(
      ([left, top, width, height]) => x >= left && x < left + width && y >= top && y < top + height,
    )
      ? 255
      : 0;
  });
const shown = (likely: Uint8Array) => likely.map((value) => (value > 127 ? 255 : 0));

describe('what a picture says itself, against what its neighbours agree on', () => {
  it('counts where it is thin: an arm that they smear away stays, a gap that they fill stays open', () => {
    expect(shown(settled(size, maskOf(body, arm), maskOf(body)))).toEqual(maskOf(body, arm));
    const legs: Box[] = [
      [140, 100, 16, 70],
      [164, 100, 16, 70],
    ];
    const filled = maskOf(...legs, [156, 100, 8, 70]);
    expect(shown(settled(size, maskOf(...legs), filled))).toEqual(maskOf(...legs));
  });

  it('does not count where it is thick: who is missed comes back with the arms, who is made up goes', () => {
    const nobody = new Uint8Array(size.width * size.height);
    expect(settled(size, nobody, maskOf(body, arm))).toEqual(maskOf(body, arm));
    expect(settled(size, maskOf(body, [20, 20, 60, 60]), maskOf(body))).toEqual(maskOf(body));
    // Half of somebody is missed.
    expect(settled(size, maskOf([140, 40, 40, 50]), maskOf(body))).toEqual(maskOf(body));
  });

  it('is the whole word where nobody contradicts it, and where there is nobody', () => {
    expect(settled(size, maskOf(body), maskOf(body))).toEqual(maskOf(body));
    expect(Math.max(...settled(size, maskOf(), maskOf()))).toBe(0);
  });

  it('says the same of the same people in smaller pictures', () => {
    const small = { width: 160, height: 90 };
    const half = (mask: Uint8Array) =>
      Uint8Array.from(
        { length: small.width * small.height },
        (_, pixel) => mask[2 * (pixel % small.width) + 2 * size.width * Math.floor(pixel / small.width)],
      );
    const [withArm, armless] = [half(maskOf(body, arm)), half(maskOf(body))];
    expect(shown(settled(small, withArm, armless))).toEqual(withArm);
    expect(settled(small, new Uint8Array(withArm.length), withArm)).toEqual(withArm);
  });
});
