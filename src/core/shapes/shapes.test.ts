import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/size';
import { coverOfRings } from '../picture/mask';
import type { Followed } from '../footage/track/track';
import { carriedAt, fewestShapes, middleOf } from './carried';
import { areaOf, brushed, evenRing, lassoed, rounded, type Ring } from './draw';
import { shapeAt, withShapeAt } from './keyed';

const frame = { width: 1280, height: 720 };
const circle = (x: number, y: number, radius: number, corners = 90): Ring =>
  Array.from({ length: corners }, (_, corner): Point => {
    const turn = (2 * Math.PI * corner) / corners;
    return [x + radius * Math.cos(turn), y + ((radius * 16) / 9) * Math.sin(turn)];
  });
/** Share of the frame inside a shape, counted on 160 × 90 pixels. */
const shareOf = (ring: Ring) => {
  const size = { width: 160, height: 90 };
  const cover = coverOfRings([ring.map(([x, y]): Point => [x * size.width, y * size.height])], size);
  return cover.reduce((sum, one) => sum + one, 0) / cover.length;
};
/** Of a circle, by its formula, in shares of the frame. */
const circleShare = (radius: number) => (Math.PI * radius * radius * 16) / 9;

describe('a shape that is drawn', () => {
  // Chaikin 1974: each round of cutting takes a known share of a square away; what is left tends to 5/6 of it.
  it('rounds corners by cutting them, inside the shape', () => {
    const square: Ring = [
      [0.2, 0.2],
      [0.8, 0.2],
      [0.8, 0.8],
      [0.2, 0.8],
    ];
    const once = rounded(square, frame);
    expect(once).toHaveLength(16);
    expect(areaOf(once)).toBeCloseTo(0.36 * (1 - 1 / 8 - 1 / 32), 6);
    expect(once.every(([x, y]) => x >= 0.2 && x <= 0.8 && y >= 0.2 && y <= 0.8)).toBe(true);
    const again = Array.from({ length: 5 }).reduce<Ring>((ring) => rounded(ring, frame), once);
    expect(again.length).toBeLessThanOrEqual(120);
    expect(areaOf(again)).toBeGreaterThan(0.36 * 0.8);
  });

  it('keeps what a line goes round, with few corners, and refuses a slip of the hand', () => {
    const drawn = lassoed(circle(0.5, 0.5, 0.2, 900), frame);
    expect(drawn?.length).toBeLessThan(60);
    expect(areaOf(drawn ?? [])).toBeCloseTo(circleShare(0.2), 2);
    expect(
      lassoed(
        [
          [0.2, 0.2],
          [0.21, 0.2],
        ],
        frame,
      ),
    ).toBeNull();
    expect(
      lassoed(
        [
          [0.2, 0.2],
          [0.5, 0.2],
          [0.8, 0.2],
          [0.5, 0.2],
        ],
        frame,
      ),
    ).toBeNull();
    // What leaves the frame ends at its edge.
    expect(Math.max(...(lassoed(circle(0.9, 0.5, 0.3), frame) ?? []).map(([x]) => x))).toBe(1);
  });

  it('grows and shrinks under a brush by as much as the brush covers', () => {
    const ring = circle(0.3, 0.5, 0.1);
    const more = brushed(ring, [[0.4, 0.5]], 0.1, 'adds', frame);
    // Two circles whose middles lie a radius apart share (2π/3 − √3/2) r².
    const shared = (2 * Math.PI) / 3 - Math.sqrt(3) / 2;
    const union = circleShare(0.1) * (2 - shared / Math.PI);
    expect(shareOf(more)).toBeCloseTo(union, 2);
    const less = brushed(more, [[0.4, 0.5]], 0.1, 'takes', frame);
    expect(shareOf(less)).toBeCloseTo(circleShare(0.1) * (1 - shared / Math.PI), 2);
    const band = brushed(
      ring,
      [
        [0.3, 0.5],
        [0.8, 0.5],
      ],
      0.05,
      'adds',
      frame,
    );
    expect(Math.max(...band.map(([x]) => x))).toBeCloseTo(0.85, 2);
  });

  it('keeps its largest piece, and stays as it was rather than vanish', () => {
    const ring = circle(0.5, 0.5, 0.2);
    const halves = brushed(
      ring,
      [
        [0.4, 0],
        [0.4, 1],
      ],
      0.02,
      'takes',
      frame,
    );
    expect(Math.min(...halves.map(([x]) => x))).toBeGreaterThan(0.41);
    expect(
      brushed(
        ring,
        [
          [0, 0.5],
          [1, 0.5],
        ],
        0.5,
        'takes',
        frame,
      ),
    ).toBe(ring);
  });

  it('keeps its form with any number of corners, and begins where another does', () => {
    fc.assert(
      fc.property(fc.integer({ min: 24, max: 90 }), fc.boolean(), fc.nat(89), (count, turned, first) => {
        const ring = circle(0.5, 0.5, 0.2);
        const given = [...ring.slice(first), ...ring.slice(0, first)];
        const even = evenRing(turned ? given.reverse() : given, count);
        expect(even).toHaveLength(count);
        expect(areaOf(even)).toBeCloseTo(circleShare(0.2), 2);
        expect(even[0][1]).toBeLessThan(0.5 - 0.3);
        const like = evenRing(ring, count, [[0.9, 0.5]]);
        expect(like[0][0]).toBeGreaterThan(0.69);
      }),
    );
  });
});

describe('a shape with keys', () => {
  const small = evenRing(circle(0.3, 0.5, 0.1), 12);
  const large = evenRing(circle(0.5, 0.5, 0.2), 12);

  it('moves evenly from key to key and stands before and after', () => {
    const keys = withShapeAt(withShapeAt([], 10, large), 0, small);
    expect(keys.map(({ after }) => after)).toEqual([0, 10]);
    expect([shapeAt(keys, -5), shapeAt(keys, 99)]).toEqual([small, large]);
    shapeAt(keys, 5).forEach(([x, y], corner) => {
      expect(x).toBeCloseTo((small[corner][0] + large[corner][0]) / 2, 9);
      expect(y).toBeCloseTo((small[corner][1] + large[corner][1]) / 2, 9);
    });
  });

  it('gives every key as many corners as the one that was drawn last, without changing their forms', () => {
    const keys = withShapeAt(
      withShapeAt([{ after: 0, ring: small }], 10, large),
      10,
      circle(0.6, 0.5, 0.1, 40),
    );
    expect(keys.map(({ ring }) => ring.length)).toEqual([40, 40]);
    expect(areaOf(keys[0].ring)).toBeCloseTo(areaOf(small), 3);
  });
});

describe('a shape that is carried', () => {
  const followed = (index: number, more: Partial<Followed> = {}): Followed => ({
    time: index,
    at: [0.3 + index / 100, 0.5],
    tap: 0,
    scale: 1,
    rotation: 0,
    ...more,
  });
  const drawn = { after: 0, ring: circle(0.3, 0.5, 0.1, 12) };
  const close = (ring: Ring, to: Ring) =>
    ring.forEach(([x, y], corner) => {
      expect(x).toBeCloseTo(to[corner][0], 6);
      expect(y).toBeCloseTo(to[corner][1], 6);
    });

  it('goes with what is followed, and grows and turns with it', () => {
    const path = new Map([1, 2, 3].map((index) => [index, followed(index)]));
    close(carriedAt([drawn], path, 0, frame), drawn.ring);
    close(carriedAt([drawn], path, 3, frame), circle(0.33, 0.5, 0.1, 12));
    const other = new Map([[5, followed(5, { scale: 1.5, rotation: 90 })]]);
    const turned = circle(0.35, 0.5, 0.15, 12);
    // A quarter turn of twelve corners: each lies where the third after it did.
    close(carriedAt([drawn], other, 5, frame), [...turned.slice(3), ...turned.slice(0, 3)]);
  });

  it('arrives at the next frame that it was drawn on as it was drawn there', () => {
    const next = { after: 10, ring: circle(0.5, 0.5, 0.2, 12) };
    const path = new Map(
      Array.from({ length: 20 }, (_, index) => [index, followed(index, { tap: index < 10 ? 0 : 1 })]),
    );
    close(carriedAt([drawn, next], path, 10, frame), next.ring);
    const before = carriedAt([drawn, next], path, 9, frame);
    expect(middleOf(before)[0]).toBeGreaterThan(0.45);
    expect(middleOf(before)[0]).toBeLessThan(0.5);
    expect(middleOf(carriedAt([drawn, next], path, 5, frame))[0]).toBeCloseTo(0.35 + 0.5 * (0.5 - 0.39), 6);
  });

  it('stays where it was known last, and goes straight to the next drawn one', () => {
    const path = new Map([1, 2, 3].map((index) => [index, followed(index)]));
    close(carriedAt([drawn], path, 30, frame), circle(0.33, 0.5, 0.1, 12));
    const next = { after: 13, ring: circle(0.43, 0.5, 0.1, 12) };
    const places = [3, 8, 13].map((after) => middleOf(carriedAt([drawn, next], path, after, frame))[0]);
    expect(places[0]).toBeLessThan(places[1]);
    expect(places[1]).toBeLessThan(places[2]);
    expect(places[2]).toBeCloseTo(0.43, 6);
  });

  it('goes back from the first frame that it was drawn on as well', () => {
    const path = new Map([0, 1, 2].map((index) => [index, followed(index)]));
    const later = { after: 2, ring: circle(0.32, 0.5, 0.1, 12) };
    close(carriedAt([later], path, 0, frame), circle(0.3, 0.5, 0.1, 12));
  });

  it('needs keys only where it does not go evenly', () => {
    const at = (index: number) => circle(index < 40 ? 0.2 + index / 200 : 0.4, 0.5, 0.1, 12);
    const shapes = Array.from({ length: 80 }, (_, index) => at(index));
    const keys = fewestShapes(shapes, 0, 0.2, frame);
    expect(keys.map(({ after }) => after)).toEqual([0, 40, 79]);
    for (let after = 0; after < 80; after++) close(shapeAt(keys, after), at(after));
    expect(fewestShapes(shapes.slice(0, 1), 7, 0.2, frame).map(({ after }) => after)).toEqual([7]);
  });
});
