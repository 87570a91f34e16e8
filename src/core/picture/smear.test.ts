import { describe, expect, it } from 'vitest';
import { seeded } from '../random';
import { foldIndex } from './edges';
import { smearPlane, type Smear } from './smear';

const size = { width: 60, height: 44 };
/** Soft waves with some grain. */
const filmed = () => {
  const random = seeded(5);
  return Uint8Array.from({ length: size.width * size.height }, (_, at) => {
    const [x, y] = [at % size.width, Math.floor(at / size.width)];
    return 128 + 60 * Math.sin(x / 5) + 40 * Math.cos(y / 4 + x / 9) + 8 * (random() - 0.5);
  });
};

/** The mean over many more instants, each sampled between two pixels: what the running sums stand for. */
function meanOf(plane: Uint8Array, { along, shifts }: Smear, edges: 'mirrored' | 'repeated'): number[] {
  const dense = Array.from({ length: shifts.length * 40 }, (_, index) => {
    const place = (index + 0.5) / 40 - 0.5;
    const low = Math.min(shifts.length - 2, Math.max(0, Math.floor(place)));
    return shifts[low] + (shifts[low + 1] - shifts[low]) * (place - low);
  });
  const length = size[along];
  return Array.from(plane, (_, at) => {
    const [x, y] = [at % size.width, Math.floor(at / size.width)];
    const pixel = (place: number) => {
      const folded = foldIndex(place, 0, length, edges);
      return along === 'width' ? plane[y * size.width + folded] : plane[folded * size.width + x];
    };
    let sum = 0;
    for (const shift of dense) {
      // Pixels are areas: what lies under a moved pixel is parts of two.
      const from = (along === 'width' ? x : y) - shift;
      const whole = Math.floor(from);
      sum += pixel(whole) * (1 - (from - whole)) + pixel(whole + 1) * (from - whole);
    }
    return sum / dense.length;
  });
}

const evenly = (from: number, to: number, count: number) =>
  Array.from({ length: count }, (_, index) => from + ((to - from) * (index + 0.5)) / count);

describe('a picture smeared by its movement', () => {
  it.each([
    ['width', 'mirrored', evenly(3, 21, 8)],
    ['width', 'repeated', evenly(-70, -40, 12)],
    ['height', 'mirrored', evenly(50, -20, 30)],
    ['width', 'mirrored', evenly(0, 1, 24).map((share) => 40 * share ** 2)],
    ['height', 'mirrored', [10, 10.2]],
  ] as const)('along its %s, with %s edges, is the mean of all its places', (along, edges, shifts) => {
    const plane = filmed();
    const expected = meanOf(filmed(), { along, shifts }, edges);
    smearPlane(plane, size, { along, shifts }, edges);
    const off = Array.from(plane, (value, at) => value - expected[at]);
    expect(Math.max(...off.map(Math.abs))).toBeLessThan(3.5);
    expect(Math.abs(off.reduce((sum, one) => sum + one, 0) / off.length)).toBeLessThan(0.1);
  });

  it('leaves an even picture even, wherever it is moved', () => {
    const plane = new Uint8Array(size.width * size.height).fill(77);
    smearPlane(plane, size, { along: 'width', shifts: evenly(-200, 130, 64) }, 'mirrored');
    expect(new Set(plane)).toEqual(new Set([77]));
  });
});
