import { describe, expect, it } from 'vitest';
import { painted } from '../__tests__/scene';
import { seeded } from '../random';
import { matchColour, matchTake } from './colour-match';
import { ciede2000, labOf } from '../picture/colour';
import { gradeColour, type Cdl } from '../picture/grade';
import type { RgbaImage } from '../picture/image';

const size = { width: 320, height: 180 };
const next = seeded(3);
const patches = Array.from(
  { length: 96 },
  () => [30 + next() * 170, 30 + next() * 170, 30 + next() * 170] as const,
);
const plate = painted(
  size,
  (x, y) => [...patches[Math.floor(x / 27) + 12 * Math.floor(y / 23)]] as [number, number, number],
);

const relit = (image: RgbaImage, light: (rgb: number[]) => number[], noise = 2): RgbaImage => {
  const grain = seeded(9);
  return painted(size, (x, y) => {
    const at = (y * size.width + x) * 4;
    return light([...image.data.slice(at, at + 3)]).map((v) => v + (grain() - 0.5) * 2 * noise) as [
      number,
      number,
      number,
    ];
  });
};
const linear = (code: number) => (code <= 10.31 ? code / 255 / 12.92 : ((code / 255 + 0.055) / 1.055) ** 2.4);
const coded = (light: number) =>
  255 * (light <= 0.0031308 ? light * 12.92 : 1.055 * light ** (1 / 2.4) - 0.055);

/** Linear sRGB of daylight of a temperature in kelvin, 4000 to 7000. @see CIE 15, illuminants D; IEC 61966-2-1 */
function daylight(kelvin: number): [number, number, number] {
  const x = -4.607e9 / kelvin ** 3 + 2.9678e6 / kelvin ** 2 + 99.11 / kelvin + 0.244063;
  const y = -3 * x * x + 2.87 * x - 0.275;
  const [X, Z] = [x / y, (1 - x - y) / y];
  return [
    3.2404542 * X - 1.5371385 - 0.4985314 * Z,
    -0.969266 * X + 1.8760108 + 0.041556 * Z,
    0.0556434 * X - 0.2040259 + 1.0572252 * Z,
  ];
}

const whole = ([r, g, b]: readonly [number, number, number]) =>
  [Math.round(r), Math.round(g), Math.round(b)] as const;

describe('matching light and colour', () => {
  // The limit is the project's own: 1.0 is about what is just seen.
  it.each([
    [5000, -0.5],
    [5000, 0.5],
    [6200, -0.5],
    [6200, 0.5],
  ])('takes out a white balance at %i K for 5600 K together with %f stops', (kelvin, stops) => {
    const [seen, held] = [daylight(kelvin), daylight(5600)];
    const gains = seen.map((value, c) => ((value / held[c]) * held[1] * 2 ** stops) / seen[1]);
    const lit = relit(plate, (rgb) => rgb.map((v, c) => Math.min(255, coded(linear(v) * gains[c]))));
    const match = matchColour(plate, lit);
    expect(match.before).toBeGreaterThan(3);
    expect(match.after).toBeLessThan(1);
    // What is left without the noise.
    for (const patch of patches.filter((rgb) => rgb.every((v, c) => linear(v) * gains[c] < 0.95))) {
      const graded = gradeColour(
        match,
        patch.map((v, c) => coded(linear(v) * gains[c])),
      );
      const [one, two] = [graded, patch].map((rgb) => labOf(...whole(rgb)));
      expect(ciede2000(one, two)).toBeLessThan(1);
    }
  });

  it('measures a third of a stop and takes it out', () => {
    // IEC 61966-2-1: the light is changed in linear light, where a stop is a factor of two.
    const darker = relit(plate, (rgb) => rgb.map((v) => coded(linear(v) * 2 ** (-1 / 3))));
    const match = matchColour(plate, darker);
    expect(match.stops).toBeCloseTo(-1 / 3, 1);
    expect(match.before).toBeGreaterThan(3);
    expect(match.after).toBeLessThan(0.8);
  });

  it('is not led astray by a performer, and finds the decision that was made', () => {
    const made: Cdl = {
      slope: [1.08, 1, 0.93],
      offset: [0.01, 0, -0.01],
      power: [1, 1.05, 1],
      saturation: 1,
    };
    const undone = relit(plate, (rgb) => {
      return rgb.map(
        (v, c) => Math.max(0, ((v / 255) ** (1 / made.power[c]) - made.offset[c]) / made.slope[c]) * 255,
      );
    });
    const withPerformer = painted(size, (x, y) => {
      const at = (y * size.width + x) * 4;
      return x > 60 && x < 150 && y > 40
        ? [30, 60, 120]
        : ([...undone.data.slice(at, at + 3)] as [number, number, number]);
    });
    const match = matchColour(plate, withPerformer);
    expect(match.after).toBeLessThan(0.8);
    for (const at of [0, 5, 30, 61]) {
      const truth = gradeColour(made, patches[at]);
      gradeColour(match, patches[at]).forEach((v, c) => expect(Math.abs(v - truth[c])).toBeLessThan(5));
    }
  });

  it('judges the match of a take by its worst frame: no one match follows a light that changes', () => {
    const dark = (stops: number) => relit(plate, (rgb) => rgb.map((v) => coded(linear(v) * 2 ** -stops)));
    const timed = (...pictures: RgbaImage[]) => pictures.map((picture, time) => ({ time, picture }));
    const steady = matchTake(plate, timed(dark(0.4), dark(0.4), dark(0.4)));
    expect(steady?.drift).toBeLessThan(0.02);
    expect(steady?.after).toBeLessThan(0.8);
    const cloud = matchTake(plate, timed(dark(0.8), dark(0), dark(0.4)));
    expect(cloud?.stops).toBeCloseTo(-0.4, 1);
    expect(cloud?.drift).toBeCloseTo(0.8, 1);
    const wanted = [-0.8, 0, -0.4];
    expect(cloud?.light.map(({ time }) => time)).toEqual([0, 1, 2]);
    cloud?.light.forEach(({ stops }, index) => expect(stops).toBeCloseTo(wanted[index], 1));
    // The middle frame alone would be called matched.
    expect(matchColour(plate, dark(0.4)).after).toBeLessThan(0.8);
    expect(cloud?.after).toBeGreaterThan(4);
    expect(cloud?.before).toBeGreaterThan(8);
    // Frames with nothing to be compared are passed over; none at all is no match.
    const white = painted(size, () => [255, 255, 255]);
    expect(matchTake(plate, timed(white, dark(0.4)))?.light.map(({ time }) => time)).toEqual([1]);
    expect(matchTake(plate, timed(white))).toBeNull();
  });

  it('leaves equal pictures alone, and refuses what cannot be compared', () => {
    const match = matchColour(plate, plate);
    expect(match.before).toBe(0);
    expect(Math.abs(match.stops)).toBeLessThan(0.001);
    match.slope.forEach((value) => expect(value).toBeCloseTo(1, 3));
    const white = painted(size, () => [255, 255, 255]);
    expect(() => matchColour(white, white)).toThrow(expect.objectContaining({ code: 'nothing-still' }));
    expect(() =>
      matchColour(
        plate,
        painted({ width: 8, height: 8 }, () => [1, 1, 1]),
      ),
    ).toThrow(expect.objectContaining({ code: 'sizes-differ' }));
  });
});
