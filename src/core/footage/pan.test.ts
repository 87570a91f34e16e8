import { describe, expect, it } from 'vitest';
import { texture } from '../__tests__/scene';
import { seeded } from '../random';
import { panBetween } from './pan';

const size = { width: 160, height: 90 };
const wall = texture(7, { width: 500, height: 300 });

/** A camera's picture of a wall from a place on, its shutter open for a part of the way to the next, with noise of 3/255; somebody stands in it. */
function seenFrom(
  x: number,
  y: number,
  way: { dx: number; dy: number },
  open: number,
  seed: number,
  person = 0,
) {
  const next = seeded(seed);
  const samples = Math.max(1, Math.ceil(Math.hypot(way.dx, way.dy) * open));
  const data = Uint8Array.from({ length: size.width * size.height }, (_, pixel) => {
    const [px, py] = [pixel % size.width, Math.floor(pixel / size.width)];
    if (px < person) return 60 + 40 * Math.sin(px / 3) * Math.cos(py / 4);
    let sum = 0;
    for (let sample = 0; sample < samples; sample++) {
      const share = (open * sample) / samples;
      sum += wall(x + px - share * way.dx, y + py - share * way.dy);
    }
    return Math.min(255, Math.max(0, sum / samples + (next() + next() + next() - 1.5) * 6));
  });
  return { ...size, data };
}

/** What is said of a wall that moves so by some pixels, of 160 across. */
function told(way: { dx: number; dy: number }, open = 0.5, person = 0) {
  const one = seenFrom(150, 100, way, open, 1, person);
  const next = seenFrom(150 - way.dx, 100 - way.dy, way, open, 2, person);
  const { dx, dy } = panBetween(one, next);
  return { dx: dx * size.width, dy: dy * size.width };
}

describe('how most of a picture moves to the next', () => {
  // The whole picture moves, as it was made to; the tolerance is the docstring's.
  it('is found with the shutter open for half of the time, slow and fast', () => {
    for (const [dx, dy, off] of [
      [0, 0, 0.5],
      [4, 0, 1.5],
      [-9, 3, 1.5],
      [0, 7, 1.5],
      [22, 0, 3],
      [-34, 0, 3],
      [30, -12, 3],
    ]) {
      const found = told({ dx, dy });
      expect(Math.hypot(found.dx - dx, found.dy - dy), `${dx} ${dy}`).toBeLessThanOrEqual(off);
    }
  });

  it('is that of what fills the picture, though somebody goes along with the camera', () => {
    const found = told({ dx: -8, dy: 0 }, 0.5, 50);
    expect(Math.abs(found.dx + 8)).toBeLessThanOrEqual(1.5);
  });
});
