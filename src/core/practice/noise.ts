import { seeded } from '../random';

/** Smooth noise -1..1 over the plane. */
export function smoothNoise(seed: number): (x: number, y: number) => number {
  const next = seeded(seed);
  const grid = Float32Array.from({ length: 64 * 64 }, () => next() * 2 - 1);
  const at = (x: number, y: number) => grid[(y & 63) * 64 + (x & 63)];
  const bend = (t: number) => t * t * (3 - 2 * t);
  return (x, y) => {
    const [ix, iy] = [Math.floor(x), Math.floor(y)];
    const [u, v] = [bend(x - ix), bend(y - iy)];
    const top = at(ix, iy) + (at(ix + 1, iy) - at(ix, iy)) * u;
    const bottom = at(ix, iy + 1) + (at(ix + 1, iy + 1) - at(ix, iy + 1)) * u;
    return top + (bottom - top) * v;
  };
}
