import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../../random';
import { convolve, rectify, type Layer } from './convolve';

/** The definition of a convolution over time, term by term; outside the song is silence. */
function byDefinition(
  { out, in: ins, taps, dilation, weights, bias }: Layer,
  from: Float64Array,
  frames: number,
) {
  const answer = new Float64Array(out * frames);
  for (let o = 0; o < out; o++)
    for (let at = 0; at < frames; at++) {
      let sum = bias[o];
      for (let i = 0; i < ins; i++)
        for (let tap = 0; tap < taps; tap++) {
          const place = at + (tap - (taps - 1) / 2) * dilation;
          if (place >= 0 && place < frames) sum += weights[(tap * ins + i) * out + o] * from[place * ins + i];
        }
      answer[at * out + o] = sum;
    }
  return answer;
}

describe('a convolution over time', () => {
  it('is what its definition says, whatever its size, and is added to what is there', () => {
    const sizes = fc.record({
      out: fc.integer({ min: 1, max: 9 }),
      in: fc.integer({ min: 1, max: 9 }),
      taps: fc.constantFrom(1, 3, 5),
      dilation: fc.constantFrom(1, 2, 8, 64, 1024),
      frames: fc.integer({ min: 1, max: 1100 }),
      seed: fc.nat(),
    });
    fc.assert(
      fc.property(sizes, ({ frames, seed, ...shape }) => {
        const next = seeded(seed);
        const numbers = (count: number) => Float64Array.from({ length: count }, () => next() - 0.5);
        const layer = {
          ...shape,
          weights: numbers(shape.out * shape.in * shape.taps),
          bias: numbers(shape.out),
        };
        const from = numbers(shape.in * frames);
        const there = numbers(shape.out * frames);
        const to = there.slice();
        convolve(layer, from, to, frames);
        byDefinition(layer, from, frames).forEach((value, at) =>
          expect(Math.abs(to[at] - there[at] - value)).toBeLessThan(1e-9),
        );
      }),
      { numRuns: 40 },
    );
  });

  it('rectifies in place', () => {
    const rows = Float64Array.of(-1, 0, 2, -0.5);
    rectify(rows);
    expect([...rows]).toEqual([0, 0, 2, 0]);
  });
});
