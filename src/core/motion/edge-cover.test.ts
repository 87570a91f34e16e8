import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { coverScale, type Move } from './edge-cover';

const frame = { width: 1920, height: 1080 };
const moved = (part: Partial<Move>): Move => ({ x: 0, y: 0, rotation: 0, scale: 1, ...part });
const moves = fc.array(
  fc.record({
    x: fc.double({ min: -300, max: 300, noNaN: true }),
    y: fc.double({ min: -300, max: 300, noNaN: true }),
    rotation: fc.double({ min: -180, max: 180, noNaN: true }),
    scale: fc.double({ min: 0.3, max: 2, noNaN: true }),
  }),
  { minLength: 1, maxLength: 6 },
);

/** Whether a moved picture shows no edge, by asking of points all along the frame's border where they lie in it. */
function covers({ x, y, rotation, scale }: Move, slack = 1e-6): boolean {
  const angle = (rotation * Math.PI) / 180;
  const { width, height } = frame;
  for (let step = 0; step <= 40; step++) {
    const [along, down] = [(width * step) / 40, (height * step) / 40];
    for (const [px, py] of [
      [along, 0],
      [along, height],
      [0, down],
      [width, down],
    ]) {
      const [dx, dy] = [px - width / 2 - x, py - height / 2 - y];
      const across = (Math.cos(angle) * dx + Math.sin(angle) * dy) / scale;
      const deep = (-Math.sin(angle) * dx + Math.cos(angle) * dy) / scale;
      if (Math.abs(across) > width / 2 + slack || Math.abs(deep) > height / 2 + slack) return false;
    }
  }
  return true;
}

describe('edge cover', () => {
  it('is the smallest scale at which no point of the border lies outside, by brute force', () => {
    fc.assert(
      fc.property(moves, (all) => {
        const cover = coverScale(all, frame);
        expect(all.every((one) => covers({ ...one, scale: one.scale * cover }))).toBe(true);
        if (cover > 1)
          expect(all.every((one) => covers({ ...one, scale: one.scale * cover * 0.999 }, 0))).toBe(false);
      }),
    );
  });

  it('knows the overscan of the trade', () => {
    // Geometry (SOURCES.md): 105 % leaves 2.38 % of the scaled picture on each side, 48 px of 1920.
    expect(coverScale([moved({ x: 48 })], frame)).toBeCloseTo(1.05, 9);
    expect(coverScale([moved({ x: -48 }), moved({ y: 10 })], frame)).toBeCloseTo(1.05, 9);
    expect(coverScale([], frame)).toBe(1);
    expect(coverScale([moved({ scale: 2, x: 100 })], frame)).toBe(1);
    // A square turned by 45° needs the square root of two.
    expect(coverScale([moved({ rotation: 45 })], { width: 100, height: 100 })).toBeCloseTo(Math.SQRT2, 9);
  });

  it('refuses what no scale covers', () => {
    for (const wrong of [moved({ scale: 0 }), moved({ scale: -1 }), moved({ x: NaN })])
      expect(() => coverScale([wrong], frame)).toThrow(expect.objectContaining({ code: 'edge-cover' }));
  });
});
