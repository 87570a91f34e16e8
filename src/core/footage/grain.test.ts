import { describe, expect, test } from 'vitest';
import { texture } from '../__tests__/scene';
import { bt709, blankYuv, type YuvImage, type YuvKind } from '../picture/planes';
import { regrained, type Grain } from '../picture/regrain';
import { seeded } from '../random';
import { GrainPass } from './grain';

const size = { width: 640, height: 360 };
const drawn = texture(5, size);
/** twice as wide, for cameras that turn */
const wide = Float32Array.from({ length: 2 * size.width * size.height }, (_, at) =>
  drawn(at % (2 * size.width), Math.floor(at / (2 * size.width))),
);
const at = (column: number, row: number) => wide[row * 2 * size.width + column];
const full: YuvKind = { matrix: 'bt709', fullRange: true };

/** A photographed set without grain, before which somebody as wide as asked walks in step with the pictures. */
function setOf(kind: YuvKind, step: number, performer = 0): YuvImage {
  const picture = blankYuv(size, kind);
  const [scale, black] = kind.fullRange ? [1, 0] : [219 / 255, 16];
  const from = 40 + 7 * step;
  for (let row = 0; row < size.height; row++)
    for (let column = 0; column < size.width; column++) {
      const own = performer > 0 && column >= from && column < from + performer;
      const light = own ? 90 + 60 * Math.sin((column - from) / 4) * Math.cos(row / 9) : at(column, row);
      picture.y[row * size.width + column] = Math.round(black + scale * light);
    }
  return picture;
}

/** Adds independent noise of a deviation in full-range codes, normal but for its rarest values. @see Irwin-Hall */
function noisy(picture: YuvImage, deviation: (code: number) => number, seed: number): YuvImage {
  const next = seeded(seed);
  const chance = () => 2 * (next() + next() + next() - 1.5);
  const [scale, black] = picture.fullRange ? [1, 0] : [219 / 255, 16];
  const y = picture.y.map((code) => {
    const spread = deviation((code - black) / scale) * scale;
    return Math.min(255, Math.max(0, Math.round(code + spread * chance())));
  });
  const colour = picture.fullRange ? 1 : 224 / 255;
  const chroma = (plane: Uint8Array) => plane.map((code) => Math.round(code + 1.5 * colour * chance()));
  return { ...picture, y, u: chroma(picture.u), v: chroma(picture.v) };
}

function measured(pictures: readonly YuvImage[]): Grain | null {
  const pass = new GrainPass();
  for (const picture of pictures) pass.push(picture);
  return pass.finish();
}
const film = (
  kind: YuvKind,
  deviation: (code: number) => number,
  {
    performer = 0,
    pictures = 5,
    gain = () => 1,
  }: { performer?: number; pictures?: number; gain?: (step: number) => number } = {},
) =>
  Array.from({ length: pictures }, (_, step) => {
    const set = setOf(kind, step, performer);
    const black = kind.fullRange ? 0 : 16;
    const lit = { ...set, y: set.y.map((code) => Math.round(black + (code - black) * gain(step))) };
    return noisy(lit, deviation, step + 1);
  });

describe('the grain of a take', () => {
  test.each([
    ['full range', full],
    ['limited range', bt709],
  ])('is measured to a tenth by what changes where nothing moves: %s', (_, kind) => {
    for (const deviation of [1, 2.5, 6]) {
      const grain = measured(film(kind, () => deviation));
      // Rounding to whole codes adds a twelfth of a code squared.
      const rounded = Math.sqrt(deviation ** 2 + (kind.fullRange ? 1 : 1.36) / 12);
      expect(Math.abs(grain!.luma[3] / rounded - 1)).toBeLessThan(0.1);
      expect(grain!.soft).toBeLessThan(0.25);
      expect(Math.abs(grain!.chroma / 1.53 - 1)).toBeLessThan(0.1);
    }
  });

  test('is told apart by how light it is where it falls, as a sensor has it', () => {
    const grain = measured(film(full, (code) => 1 + code / 64))!;
    for (const band of [2, 3, 4, 5]) {
      const middle = 16 + 32 * band;
      expect(Math.abs(grain.luma[band] / (1 + middle / 64) - 1)).toBeLessThan(0.12);
    }
  });

  test('is not raised by somebody who walks before two fifths of the picture, nor by lamps that flicker', () => {
    const walks = measured(film(full, () => 2, { performer: 0.4 * size.width }));
    expect(walks!.luma[3]).toBeGreaterThan(1.85);
    expect(walks!.luma[3]).toBeLessThan(2.25);
    const flickers = measured(film(full, () => 2, { gain: (step) => 1 + 0.03 * (step % 2) }));
    expect(flickers!.luma[3]).toBeGreaterThan(1.85);
    expect(flickers!.luma[3]).toBeLessThan(2.5);
  });

  test('is none of a still, nor of pictures that stand twice; nothing is said where all moves, or of one picture', () => {
    const still = setOf(full, 0);
    expect(measured([still, still, still])!.luma).toEqual(Array(8).fill(0));
    const twice = film(full, () => 2).flatMap((one) => [one, one]);
    expect(Math.abs(measured(twice)!.luma[3] / 2 - 1)).toBeLessThan(0.1);
    expect(measured([still])).toBeNull();
    expect(measured([])).toBeNull();
    const pan = Array.from({ length: 4 }, (_, step) => {
      const picture = blankYuv(size, full);
      for (let row = 0; row < size.height; row++)
        for (let column = 0; column < size.width; column++)
          picture.y[row * size.width + column] = Math.round(at(column + 9 * step, row));
      return picture;
    });
    const panned = measured(pan);
    expect(panned).toBeNull();
  });

  test.each([0, 0.6, 1.1])('is what is laid over a picture that has none, grains %s pixels wide', (soft) => {
    const grain: Grain = { across: size.width, luma: [1, 2, 3, 4, 4, 3, 2, 1], chroma: 2, soft };
    const set = setOf(full, 0);
    const again = measured(Array.from({ length: 5 }, (_, frame) => regrained(set, grain, frame)))!;
    for (const band of [2, 3, 4, 5])
      expect(Math.abs(again.luma[band] / grain.luma[band] - 1)).toBeLessThan(0.15);
    expect(Math.abs(again.soft - soft)).toBeLessThan(0.2);
    expect(Math.abs(again.chroma / 2 - 1)).toBeLessThan(0.12);
  });
});
