import { describe, expect, it } from 'vitest';
import { seeded } from '../random';
import { analyse } from './analysers';
import { actionIn } from './action';

const analysis = { width: 320, height: 180 };
const rate = 25;

/** Pictures of a textured wall with noise of 3 codes, before which a block stands at a column of each picture. */
function movedIn(columns: readonly number[], light: (index: number) => number = () => 0): Float32Array {
  const passes = analyse(['motion'], { analysis, fullRange: false });
  const noise = seeded(9);
  columns.forEach((column, index) => {
    const picture = Uint8Array.from({ length: analysis.width * analysis.height }, (_, at) => {
      const [x, y] = [at % analysis.width, Math.floor(at / analysis.width)];
      const block = x >= column && x < column + 40 && y > 50 ? 70 : 0;
      return 100 + 20 * Math.sin(x / 9 + y / 7) + block + light(index) + 10 * (noise() - 0.5);
    });
    passes.push(picture, index / rate);
  });
  return passes.finish().motion?.curve ?? new Float32Array();
}
const times = (count: number) => Float64Array.from({ length: count }, (_, index) => index / rate);
/** Stands for 40 pictures, walks for 30, stands for 50. */
const walks = Array.from({ length: 120 }, (_, index) => 60 + 3 * Math.min(30, Math.max(0, index - 40)));

describe('stillness and action', () => {
  it('begin and stop where somebody walks, to two pictures', () => {
    const { still, starts, stops } = actionIn(movedIn(walks), times(120));
    expect(still).toHaveLength(2);
    expect(Math.abs(starts[0] - 41 / rate)).toBeLessThanOrEqual(2 / rate + 1e-9);
    expect(Math.abs(stops[0] - 71 / rate)).toBeLessThanOrEqual(2 / rate + 1e-9);
    expect(still[0].from).toBe(0);
    expect(still[1].until).toBeCloseTo(119 / rate, 9);
  });

  it('do not come of a light that flickers, or of noise', () => {
    const flicker = (index: number) => 12 * Math.sin(index * 1.3);
    const lit = actionIn(movedIn(walks, flicker), times(120));
    expect(lit.still).toHaveLength(2);
    expect(Math.abs(lit.stops[0] - 71 / rate)).toBeLessThanOrEqual(3 / rate + 1e-9);
    const nobody = actionIn(movedIn(Array.from({ length: 60 }, () => -99)), times(60));
    expect(nobody.still).toHaveLength(1);
    expect(nobody.starts).toEqual([]);
  });

  it('are no stillness where somebody never stops, and nothing of one picture', () => {
    const always = Array.from({ length: 80 }, (_, index) => 60 + 2 * index);
    expect(actionIn(movedIn(always), times(80)).still).toEqual([]);
    expect(actionIn([0], [0])).toEqual({ still: [], starts: [], stops: [] });
    expect(actionIn([], [])).toEqual({ still: [], starts: [], stops: [] });
  });
});
