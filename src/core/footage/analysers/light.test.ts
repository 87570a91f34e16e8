import { describe, expect, it } from 'vitest';
import { seeded } from '../../random';
import { light, type Light } from './light';

const analysis = { width: 160, height: 90 };
const noise = seeded(11);

/** What is found of pictures with these codes, each with noise of 3 codes. */
function lightOf(
  codes: readonly (number | ((x: number, y: number) => number))[],
  rate = 25,
  fullRange = false,
): Light {
  const pass = light.begin({ analysis, fullRange });
  codes.forEach((code, index) => {
    const picture = Uint8Array.from({ length: analysis.width * analysis.height }, (_, at) => {
      const value =
        typeof code === 'number' ? code : code(at % analysis.width, Math.floor(at / analysis.width));
      return Math.round(Math.min(255, Math.max(0, value + 6 * (noise() - 0.5))));
    });
    pass.push(picture, index / rate);
  });
  return pass.finish().small;
}
const times = <One>(count: number, one: (index: number) => One) =>
  Array.from({ length: count }, (_, at) => one(at));

describe('the light of a take', () => {
  it('is black where nothing is seen, in both ranges of codes, and not in a night with one lamp', () => {
    expect(lightOf(times(30, () => 17)).dark).toBe(1);
    expect(
      lightOf(
        times(30, () => 4),
        25,
        true,
      ).dark,
    ).toBe(1);
    const night = (x: number) => (x < 16 ? 150 : 18);
    expect(lightOf(times(30, () => night)).dark).toBe(0);
    // Covered for the first 12 of 30 pictures.
    expect(lightOf(times(30, (index) => (index < 12 ? 17 : 90))).dark).toBeCloseTo(0.4, 6);
  });

  it('says how much is burnt out, whatever the range', () => {
    const window = (white: number) => (x: number) => (x < 40 ? white : 90);
    expect(lightOf(times(20, () => window(240))).blown).toBeCloseTo(0.25, 1);
    expect(
      lightOf(
        times(20, () => window(255)),
        25,
        true,
      ).blown,
    ).toBeCloseTo(0.25, 1);
    // 235 is white in one range and not yet in the other.
    expect(
      lightOf(
        times(20, () => window(228)),
        25,
        true,
      ).blown,
    ).toBe(0);
    expect(lightOf(times(20, () => 120)).blown).toBe(0);
  });

  it('finds lamps that beat with the shutter, as strong as they were planted', () => {
    // Mains of 50 Hz light twice a cycle: 100 a second show as 4 a second at 24 pictures, 10 at 30.
    for (const [rate, beat] of [
      [24, 4],
      [30, 10],
    ]) {
      for (const swing of [0.06, 0.12]) {
        const codes = times(96, (index) => {
          const lit = 0.2 * (1 + (swing / 2) * Math.cos((2 * Math.PI * beat * index) / rate + 0.4));
          return 16 + 219 * lit ** (1 / 2.4);
        });
        expect(Math.abs(lightOf(codes, rate).flicker - swing)).toBeLessThan(0.012);
      }
    }
  });

  it('finds lamps whose light runs through the picture in bands, somebody moving before them', () => {
    // Read in a thirtieth of a second from top to bottom, 100 lights a second fill it with 3.3 of them.
    for (const swing of [0.06, 0.2]) {
      const codes = times(96, (index) => (x: number, y: number) => {
        const turns = (100 / 30) * (y / analysis.height) + (10 * index) / 30;
        const lit = 0.2 * (1 + (swing / 2) * Math.cos(2 * Math.PI * turns));
        return Math.abs(x - 80 - 12 * Math.sin(index / 9)) < 14 ? 40 : 16 + 219 * lit ** (1 / 2.4);
      });
      const { flicker } = lightOf(codes, 30);
      expect(flicker / swing).toBeGreaterThan(0.75);
      expect(flicker / swing).toBeLessThan(1.1);
    }
  });

  it('does not take for bands somebody who dances on the beat, in the middle or all over the picture', () => {
    const dances = (index: number) => (x: number, y: number) =>
      Math.abs(x - 80) < 30 && (y + 8 * Math.cos((2 * Math.PI * 2 * index) / 25)) % 20 < 10 ? 50 : 120;
    expect(lightOf(times(96, dances)).flicker).toBeLessThan(0.04);
    const sways = times(96, (index) => (x: number) => {
      const off = 10 * Math.cos((2 * Math.PI * 2 * index) / 25);
      return x + off < 60 || x + off > 120 ? 50 : 120;
    });
    expect(lightOf(sways).flicker).toBeLessThan(0.04);
  });

  it('does not take for flicker a cloud, somebody who passes, a cut, noise, or a few pictures', () => {
    const steady = lightOf(times(96, () => 100));
    const cloud = lightOf(times(96, (index) => 100 + 20 * Math.sin(index / 20)));
    const passes = lightOf(times(96, (index) => (x: number) => (Math.abs(x - 2 * index) < 20 ? 40 : 110)));
    const cut = lightOf(times(96, (index) => (index < 40 ? 60 : 140)));
    for (const { flicker } of [steady, cloud, passes, cut]) expect(flicker).toBeLessThan(0.04);
    expect(lightOf(times(10, (index) => (index % 2 ? 60 : 140))).flicker).toBe(0);
    expect(lightOf([]).dark).toBe(0);
    expect(lightOf([90]).flicker).toBe(0);
  });
});
