import { describe, expect, it } from 'vitest';
import { painted, shot, texture } from '../../__tests__/scene';
import { inPlace } from '../../geometry/placement';
import { flowBetween } from '../../picture/between';
import { rgbaToYuv, type YuvImage } from '../../picture/planes';
import { Agreement } from './agreement';

const size = { width: 160, height: 96 };
const [ground, clothes] = [texture(11, { width: 260, height: 120 }), texture(12, { width: 60, height: 60 })];
const pictures = 13;

/** Left edge of somebody 40 × 56 pixels large in a picture; the camera goes the other way. */
const leftIn = (picture: number) => 20 + 4 * picture;
const inside = (picture: number, x: number, y: number) =>
  x >= leftIn(picture) && x < leftIn(picture) + 40 && y >= 40;

function film(picture: number, isThere = true): YuvImage {
  const back = shot(ground, size, { ...inPlace, dx: -2 * picture }, { noise: 2, seed: picture });
  return rgbaToYuv(
    painted(size, (x, y) => {
      const isPerson = isThere && inside(picture, x, y);
      const value = isPerson ? clothes(x - leftIn(picture), y - 40) : back.data[y * size.width + x];
      return [value, value, value];
    }),
  );
}
const films = Array.from({ length: pictures }, (_, picture) => film(picture));

/** What a finder that makes no mistake says of a picture. */
const truth = (picture: number) =>
  Uint8Array.from({ length: size.width * size.height }, (_, pixel) =>
    inside(picture, pixel % size.width, Math.floor(pixel / size.width)) ? 255 : 0,
  );

const movedTo = (seen: readonly YuvImage[], index: number) =>
  index > 0 ? flowBetween(seen[index - 1], seen[index], 1) : null;

/** @param likely undefined of a picture in which nobody looks */
function agreed(seen: readonly YuvImage[], likely: readonly (Uint8Array | null | undefined)[]): Uint8Array[] {
  const agreement = new Agreement();
  seen.forEach((picture, index) => {
    agreement.add(picture, movedTo(seen, index));
    const found = likely[index];
    if (found !== undefined) agreement.found(found);
  });
  return [...agreement.backwards()].reverse();
}

/** Share of two masks together that both cover. */
function overlap(one: Uint8Array, other: Uint8Array): number {
  let [both, either] = [0, 0];
  one.forEach((value, pixel) => {
    both += Number(value > 127 && other[pixel] > 127);
    either += Number(value > 127 || other[pixel] > 127);
  });
  return both / either;
}

describe('who is in pictures, as these agree on it', () => {
  const all = films.map((_, picture) => truth(picture));

  it('keeps what was found right, while camera and person move', () => {
    agreed(films, all).forEach((likely, picture) =>
      expect(overlap(likely, all[picture]), `${picture}`).toBeGreaterThan(0.9),
    );
  });

  it('brings back who was missed in two pictures, and half of whom was in another', () => {
    const missed = all.map((likely, picture) => {
      if (picture === 4 || picture === 5) return null;
      return picture === 9
        ? likely.map((value, pixel) => (pixel % size.width < leftIn(9) + 20 ? value : 0))
        : likely;
    });
    const out = agreed(films, missed);
    for (const picture of [4, 5, 9])
      expect(overlap(out[picture], all[picture]), `${picture}`).toBeGreaterThan(0.85);
  });

  it('tells of pictures in which nobody looked who is in them', () => {
    const now = all.map((likely, picture) => (picture % 4 === 0 ? likely : undefined));
    agreed(films, now).forEach((likely, picture) =>
      expect(overlap(likely, all[picture]), `${picture}`).toBeGreaterThan(0.85),
    );
    // Where nobody looks at all, nobody is there.
    for (const likely of agreed(films.slice(0, 4), [])) expect(Math.max(...likely)).toBe(0);
  });

  it('keeps what is thin and goes along with no block, in every picture in which somebody looked', () => {
    // A stick sways across the ground, eight pixels a picture and four thick: no block goes along with it.
    const stickAt = (picture: number) => 10 + ((8 * picture) % 90);
    const isStick = (picture: number, x: number, y: number) =>
      y >= 8 && y < 36 && Math.abs(x - stickAt(picture)) < 2;
    const seen = films.map((_, picture) => {
      const { y: luma, ...rest } = film(picture);
      return {
        ...rest,
        y: luma.map((value, pixel) =>
          isStick(picture, pixel % size.width, Math.floor(pixel / size.width)) ? 255 : value,
        ),
      };
    });
    const held = all.map((likely, picture) =>
      likely.map((value, pixel) =>
        isStick(picture, pixel % size.width, Math.floor(pixel / size.width)) ? 255 : value,
      ),
    );
    const out = agreed(
      seen,
      held.map((likely, picture) => (picture % 2 === 0 ? likely : undefined)),
    );
    const share = (picture: number) => {
      let [shown, stick] = [0, 0];
      out[picture].forEach((value, pixel) => {
        if (!isStick(picture, pixel % size.width, Math.floor(pixel / size.width))) return;
        stick++;
        shown += Number(value > 127);
      });
      return shown / stick;
    };
    for (const picture of [2, 4, 6, 8, 10]) expect(share(picture), `${picture}`).toBeGreaterThan(0.95);
    for (const [picture, likely] of out.entries())
      expect(overlap(likely, held[picture]), `${picture}`).toBeGreaterThan(0.8);
  });

  it('says how much of a picture is new: little while somebody goes on, much once they are there or are gone', () => {
    const agreement = new Agreement();
    const seen = [...films.slice(0, 6), film(6, false), film(7), film(8)];
    const fresh = seen.map((picture, index) => {
      const found = agreement.add(picture, movedTo(seen, index));
      agreement.found(index === 6 ? null : all[index]);
      return found;
    });
    expect(fresh[0]).toBe(Infinity);
    for (const index of [1, 2, 3, 4, 5, 8]) expect(fresh[index], `${index}`).toBeLessThan(1);
    for (const index of [6, 7]) expect(fresh[index], `${index}`).toBeGreaterThan(2);
  });

  it('drops what is taken for somebody in few pictures, though the camera moves', () => {
    const more = all.map((likely, picture) =>
      picture % 4 === 2
        ? likely.map((value, pixel) => (pixel % size.width > 120 && pixel < 30 * size.width ? 230 : value))
        : likely,
    );
    agreed(films, more).forEach((likely, picture) =>
      expect(overlap(likely, all[picture]), `${picture}`).toBeGreaterThan(0.85),
    );
  });

  it('keeps nobody who is gone, and shows nobody before they are there', () => {
    const seen = films.map((_, picture) => film(picture, picture >= 4 && picture < 9));
    const likely = all.map((one, picture) => (picture >= 4 && picture < 9 ? one : null));
    agreed(seen, likely).forEach((one, picture) => {
      if (likely[picture]) expect(overlap(one, all[picture]), `${picture}`).toBeGreaterThan(0.85);
      // What the ground there looks alike by chance may stay: less than a tenth of them.
      else expect(one.filter((value) => value > 127).length, `${picture}`).toBeLessThan(0.1 * 40 * 56);
    });
  });

  it('says of one picture what it says itself, and of nobody nothing', () => {
    expect(agreed([films[0]], [all[0]])).toEqual([all[0]]);
    for (const likely of agreed(films.slice(0, 4), [null, null, null, null]))
      expect(Math.max(...likely)).toBe(0);
    expect(agreed([], [])).toEqual([]);
  });
});
