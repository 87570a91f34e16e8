import { describe, expect, it } from 'vitest';
import { unpackPlacements } from '../../geometry/placement';
import { seeded } from '../../random';
import { analyse } from '.';
import { partKey, takeParts, type AnalyserName } from '../take-parts';

const analysis = { width: 320, height: 180 };

/** A noisy wall of soft squares, seen `dx` pixels to the side, with something light at a column. */
function wall(dx: number, light: number | null = null): Uint8Array {
  const noise = seeded(Math.round(dx * 1000) + 7);
  const out = new Uint8Array(analysis.width * analysis.height);
  for (let y = 0; y < analysis.height; y++) {
    for (let x = 0; x < analysis.width; x++) {
      const wave = Math.sin((x - dx) / 5) * Math.sin(y / 7) + Math.sin((x - dx) / 17 + y / 11);
      const lit = light !== null && Math.abs(x - light) < 16 && y > 60 ? 90 : 0;
      out[y * analysis.width + x] = 110 + 30 * wave + 3 * (noise() - 0.5) + lit;
    }
  }
  return out;
}

function found(pictures: Uint8Array[], names: AnalyserName[] = ['camera', 'motion']) {
  const passes = analyse(names, { analysis, fullRange: false });
  pictures.forEach((picture, index) => passes.push(picture, index / 25));
  return passes.finish();
}

describe('analysers of a take', () => {
  it('follow a camera that was bumped, to the picture, on pictures that were taken back at once', () => {
    const passes = analyse(['camera'], { analysis, fullRange: false });
    const shared = new Uint8Array(analysis.width * analysis.height);
    for (let index = 0; index < 45; index++) {
      shared.set(wall(index < 23 ? 0 : 2.5));
      passes.push(shared, index / 25);
    }
    const track = unpackPlacements(passes.finish().camera?.curve ?? new Float32Array());
    expect(track).toHaveLength(45);
    // Planted: 2.5 px from the 24th picture on.
    track.forEach(({ dx }, index) => expect(Math.abs(dx - (index < 23 ? 0 : 2.5))).toBeLessThan(0.1));
  });

  // Shorter than the ten pictures from one that is registered to the next.
  it('see a knock of three pictures, and none behind somebody who crosses a third of the picture', () => {
    for (const shift of [1.5, 3]) {
      const knocked = (index: number) => (index >= 13 && index < 16 ? shift : index === 16 ? -shift / 2 : 0);
      const pictures = Array.from({ length: 40 }, (_, index) => wall(knocked(index) + (index % 3) / 1e3));
      const track = unpackPlacements(found(pictures, ['camera']).camera?.curve ?? new Float32Array());
      track.forEach(({ dx }, index) => expect(Math.abs(dx - knocked(index))).toBeLessThan(0.1));
    }
    const crossing = Array.from({ length: 40 }, (_, index) => wall((index % 3) / 1e3, 60 + 5 * index));
    const track = unpackPlacements(found(crossing, ['camera']).camera?.curve ?? new Float32Array());
    track.forEach(({ dx, dy }) => expect(Math.hypot(dx, dy)).toBeLessThan(0.1));
  });

  it('keep to the set behind somebody before 40 % of it who stands in the first picture too, and to a slow pan', () => {
    // Their dress has twice the contrast of the wall, and moves as one.
    const dress = (x: number, y: number) => 110 + 60 * Math.sin(x / 6) * Math.sin(y / 5 + x / 31);
    const film = (index: number, camera: number, sway: number | null) => {
      const picture = wall(camera);
      if (sway === null) return picture;
      const left = Math.round(80 + sway * index);
      for (let y = 30; y < analysis.height; y++)
        for (let x = left; x < left + 150; x++)
          picture[y * analysis.width + x] = dress(x - 80 - sway * index, y - 6 * Math.sin(index / 5));
      return picture;
    };
    const knocked = (index: number) => (index >= 23 ? 2.5 : (index % 3) / 1e3);
    for (const [camera, sway] of [
      [knocked, 0.4],
      [(index: number) => (index % 3) / 1e3, -0.9],
      [(index: number) => 0.15 * index, null],
    ] as const) {
      const pictures = Array.from({ length: 50 }, (_, index) => film(index, camera(index), sway));
      const track = unpackPlacements(found(pictures, ['camera']).camera?.curve ?? new Float32Array());
      track.forEach(({ dx, dy }, index) =>
        expect(Math.hypot(dx - camera(index), dy), `picture ${index}`).toBeLessThan(0.15),
      );
    }
  });

  it('bridge pictures that cannot be placed, and say which', () => {
    const dark = (index: number) => index >= 14 && index < 19;
    const moved = (index: number) => (index < 17 ? 0 : 2);
    const pictures = Array.from({ length: 40 }, (_, index) =>
      dark(index) ? new Uint8Array(analysis.width * analysis.height).fill(16) : wall(moved(index)),
    );
    const track = unpackPlacements(found(pictures, ['camera']).camera?.curve ?? new Float32Array());
    track.forEach(({ dx, agreement }, index) => {
      if (dark(index)) expect(agreement).toBeLessThan(0.45);
      else expect(Math.abs(dx - moved(index))).toBeLessThan(0.1);
      expect(dx).toBeGreaterThan(-0.1);
      expect(dx).toBeLessThan(2.1);
    });
    expect(track[18].dx).toBeGreaterThan(track[14].dx);
  });

  it('are not led astray by a sheet that falls before the set', () => {
    // It falls from rest in a second, lets a fifth of the set through, and is gone a third of a second later.
    const edge = (index: number) => analysis.height * Math.max(0, (index - 10) / 24) ** 2;
    const dust = seeded(3);
    const pictures = Array.from({ length: 60 }, (_, index) => {
      const [front, back] = [edge(index), edge(index - 8) - 12];
      return wall((index % 3) / 1e3).map((value, at) => {
        const y = Math.floor(at / analysis.width);
        return y < front && y > back ? 0.2 * value + 150 + 12 * dust() : value;
      });
    });
    const track = unpackPlacements(found(pictures, ['camera']).camera?.curve ?? new Float32Array());
    track.forEach(({ dx, dy }, index) => expect(Math.hypot(dx, dy), `picture ${index}`).toBeLessThan(0.15));
    expect(track.some(({ agreement }) => agreement < 0.45)).toBe(true);
    expect(track.filter(({ agreement }) => agreement < 0.45).length).toBeLessThan(35);
  });

  it('say where in the picture somebody moves, and that nobody does', () => {
    const walking = Array.from({ length: 40 }, (_, index) => wall(0, 200 + index * 2));
    const { motion } = found(walking, ['motion']);
    // Planted: something from column 184 to 294 of 320.
    expect(motion?.small.across).toBeCloseTo(239 / 320, 1);
    expect(motion?.small.share).toBeGreaterThan(0.1);
    expect(found(Array.from({ length: 12 }, () => wall(0))).motion?.small).toEqual({ share: 0, across: 0.5 });
  });

  it('answer together as each does alone', () => {
    const pictures = Array.from({ length: 14 }, (_, index) => wall(index / 4, 40 + index * 9));
    const both = found(pictures);
    expect(both).toEqual({ ...found(pictures, ['camera']), ...found(pictures, ['motion']) });
  });

  it('answer to a single picture, and keep each answer under a key that names what it is made from', () => {
    const one = found([wall(0)]);
    expect(one.camera?.curve).toHaveLength(5);
    const keys = takeParts.map((part) => partKey(part, { media: 'file' }));
    expect(new Set(keys).size).toBe(takeParts.length);
    for (const key of keys.slice(1)) expect(key).toContain(keys[0]);
  });
});
