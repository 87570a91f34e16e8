import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { texture } from '../__tests__/scene';
import type { Point } from '../geometry/size';
import { lumaOf, type RgbaImage } from '../picture/image';
import { rasterMask } from '../picture/mask';
import { seeded } from '../random';
import { cutOut, cutOutLikely, plateMatte, type Cutout } from './cutout';
import { prepareReference } from './reference';

const size = { width: 320, height: 180 };
type Filmed = {
  noise?: number;
  gain?: number;
  shadow?: number;
  clothes?: [number, number, number] | 'like the wall' | null;
};

/** A performer: head, trunk, an arm out to the side with daylight under it, two legs. */
function stands(x: number, y: number): boolean {
  const box = (left: number, top: number, right: number, bottom: number) =>
    x >= left && x < right && y >= top && y < bottom;
  return (
    Math.hypot(x - 160, y - 42) < 13 ||
    box(144, 54, 177, 112) ||
    box(118, 60, 144, 70) ||
    box(118, 60, 126, 96) ||
    box(118, 90, 144, 97) ||
    box(144, 112, 157, 170) ||
    box(164, 112, 177, 170)
  );
}
/** A picture of the set as a camera sees it, with the performer and a soft shadow beside them where asked for. */
function film(seed: number, { noise = 2, gain = 1, shadow = 1, clothes = null }: Filmed): RgbaImage {
  const wall = texture(7, size);
  const next = seeded(seed);
  const data = new Uint8ClampedArray(size.width * size.height * 4);
  for (let y = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++) {
      const at = (y * size.width + x) * 4;
      const light = wall(x, y) * 0.7 + 20;
      const darker = 1 - (1 - shadow) * Math.exp(-(((x - 205) / 18) ** 2) - ((y - 120) / 40) ** 2);
      const set = [light, light * 0.9, light * 0.75].map((value) => value * darker);
      const worn = clothes === 'like the wall' ? [set[0] + 18, set[1] + 17, set[2] + 18] : clothes;
      const rgb = worn && stands(x, y) ? worn : set;
      for (let channel = 0; channel < 3; channel++)
        data[at + channel] = rgb[channel] * gain + (next() + next() + next() - 1.5) * 2 * noise;
      data[at + 3] = 255;
    }
  return { ...size, data };
}

const truth = Uint8Array.from({ length: size.width * size.height }, (_, p) =>
  Number(stands(p % size.width, Math.floor(p / size.width))),
);
/** Intersection over union of a cut-out with where the performer really stands. */
function overlap({ rings }: Cutout): number {
  const inside = rings.map((ring) => ring.map(([x, y]): Point => [x * size.width, y * size.height]));
  const { data } = rasterMask(inside, 0, size);
  let [both, either] = [0, 0];
  truth.forEach((there, p) => {
    const found = data[p] > 127 ? 1 : 0;
    both += there & found;
    either += there | found;
  });
  return both / either;
}
const red: [number, number, number] = [170, 40, 45];
const navy: [number, number, number] = [35, 40, 80];

describe('something small', () => {
  it('is found wherever it stands, at the rim of the picture too', () => {
    const plate = film(3, {});
    const frame = film(4, {});
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: size.width - 9 }),
        fc.integer({ min: 0, max: size.height - 9 }),
        fc.constantFrom([1, 0, 0], [0, 1, 0], [-1, -1, 1]),
        (left, top, colour) => {
          const data = Uint8ClampedArray.from(frame.data);
          for (let y = top; y < top + 9; y++)
            for (let x = left; x < left + 9; x++)
              for (let channel = 0; channel < 3; channel++)
                data[4 * (y * size.width + x) + channel] += 60 * colour[channel];
          const matte = plateMatte(plate, { ...size, data });
          let found = 0;
          for (let y = top; y < top + 9; y++)
            for (let x = left; x < left + 9; x++) if (matte.data[y * size.width + x] > 127) found++;
          expect(found).toBeGreaterThanOrEqual(64);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('cutting somebody out by the clean plate', () => {
  const plate = film(1, {});

  // The picture is drawn, so where the performer stands is known exactly. 0.93: an edge that is a pixel off all round.
  it.each([
    ['as it is', {}],
    ['with more noise', { noise: 5 }],
    ['in a darker light', { gain: 0.93 }],
    ['in a brighter light', { gain: 1.06 }],
    ['with a soft shadow beside them', { shadow: 0.72 }],
  ])('finds them %s', (_, how: Filmed) => {
    for (const clothes of [red, navy])
      for (const seed of [5, 6, 7])
        expect(overlap(cutOut(film(seed, { clothes, ...how }), plate))).toBeGreaterThan(0.93);
  });

  it('keeps the daylight under an arm open', () => {
    const { rings } = cutOut(film(5, { clothes: red }), plate);
    const inside = rings.map((ring) => ring.map(([x, y]): Point => [x * size.width, y * size.height]));
    const { data } = rasterMask(inside, 0, size);
    expect(data[80 * size.width + 134]).toBe(0);
    expect(data[80 * size.width + 160]).toBe(255);
  });

  it('finds nobody in an empty set, however noisy or shaded', () => {
    for (const how of [{}, { noise: 6 }, { gain: 0.9 }, { shadow: 0.72 }])
      for (const seed of [8, 9, 10])
        expect(cutOut(film(seed, how), plate)).toEqual({ rings: [], share: 0, faint: 0 });
  });

  it('says along how much of the outline somebody hardly differs from the set', () => {
    const clear = cutOut(film(5, { clothes: red }), plate);
    expect(clear.faint).toBeLessThan(0.1);
    expect(clear.share).toBeCloseTo(truth.reduce((sum, one) => sum + one, 0) / truth.length, 2);
    expect(cutOut(film(5, { clothes: 'like the wall' }), plate).faint).toBeGreaterThan(0.3);
  });

  it('gives coverage, with what they throw or without', () => {
    const filmed = film(5, { clothes: red, shadow: 0.65 });
    const [without, withIt] = [plateMatte(plate, filmed), plateMatte(plate, filmed, { shadows: 'keep' })];
    const at = (x: number, y: number) => y * size.width + x;
    expect([without.data[at(160, 80)], without.data[at(20, 20)]]).toEqual([255, 0]);
    expect([without.data[at(205, 120)], withIt.data[at(205, 120)]]).toEqual([0, 255]);
    const mean = (data: Uint8Array) => data.reduce((sum, value) => sum + value, 0) / 255;
    expect(mean(without.data)).toBeCloseTo(
      truth.reduce((sum, one) => sum + one, 0),
      -3,
    );
  });

  it('learns from several plates what moves in the empty set itself', () => {
    // A flag in a corner that is bright or dark by chance.
    const flag = (picture: RgbaImage, light: number) => {
      for (let y = 10; y < 60; y++)
        for (let at = 4 * (y * size.width + 230), end = at + 4 * 70; at < end; at++)
          if (at % 4 !== 3) picture.data[at] += light;
      return picture;
    };
    const plates = [1, 2, 3, 4, 5].map((seed) => flag(film(seed, {}), 20 * seed));
    const filmed = flag(film(9, { clothes: red }), 90);
    const moved = ({ data }: { data: Uint8Array }) =>
      data.filter((value, p) => value > 127 && p % size.width >= 228 && p < 62 * size.width).length;
    expect(moved(plateMatte(plates[0], filmed))).toBeGreaterThan(500);
    const matte = plateMatte(prepareReference(plates), filmed);
    expect(moved(matte)).toBe(0);
    expect(matte.data[80 * size.width + 160]).toBe(255);
    expect(() => plateMatte(prepareReference(lumaOf(plates[0])), filmed)).toThrowError(
      expect.objectContaining({ code: 'no-colours' }),
    );
  });

  it('refuses pictures of two sizes', () => {
    expect(() => cutOut({ ...plate, width: 160, height: 360 }, plate)).toThrowError(
      expect.objectContaining({ code: 'sizes-differ' }),
    );
  });
});

describe('cutting somebody out by how likely they are', () => {
  /** What a model says that sees a picture coarsely: the performer a few pixels off, with soft edges. */
  const coarse = (off: number): Float32Array =>
    Float32Array.from({ length: size.width * size.height }, (_, p) => {
      const [x, y] = [p % size.width, Math.floor(p / size.width)];
      let sum = 0;
      for (let dy = -4; dy <= 4; dy += 2)
        for (let dx = -4; dx <= 4; dx += 2) sum += Number(stands(x + dx + off, y + dy + off));
      return (255 * sum) / 25;
    });

  it('draws the edge to that of the picture', () => {
    for (const off of [0, 2]) {
      const data = coarse(off);
      const raw = Uint8Array.from(data, (value) => Number(value > 127));
      const [both, either] = truth.reduce(
        ([all, any], there, p) => [all + (there & raw[p]), any + (there | raw[p])],
        [0, 0],
      );
      const found = overlap(cutOutLikely(lumaOf(film(5, { clothes: navy })), { ...size, data }));
      expect(found).toBeGreaterThan(both / either);
      expect(found).toBeGreaterThan(off ? 0.8 : 0.9);
    }
  });

  it('cuts them out alike whatever else is likely far off', () => {
    const picture = lumaOf(film(5, { clothes: navy }));
    // A speck in the corner is nobody, but there everything is looked at.
    const data = coarse(2);
    const withSpeck = data.map((value, p) => (p < 2 || p === data.length - 1 ? 200 : value));
    const found = cutOutLikely(picture, { ...size, data });
    expect(found.rings).not.toHaveLength(0);
    expect(cutOutLikely(picture, { ...size, data: withSpeck })).toEqual(found);
  });

  it('finds nobody where nobody is likely, and says where it is in doubt', () => {
    const nobody = { ...size, data: new Float32Array(size.width * size.height).fill(25) };
    expect(cutOutLikely(lumaOf(film(5, {})), nobody)).toEqual({ rings: [], share: 0, faint: 0 });
    const doubtful = { ...size, data: coarse(0).map((value) => 100 + 0.25 * value) };
    expect(cutOutLikely(lumaOf(film(5, { clothes: navy })), doubtful).faint).toBeGreaterThan(0.5);
    expect(cutOutLikely(lumaOf(film(5, { clothes: navy })), { ...size, data: coarse(0) }).faint).toBeLessThan(
      0.5,
    );
  });
});
