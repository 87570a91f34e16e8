import { describe, expect, it } from 'vitest';
import { beyondFrame } from './beyond';

const size = { width: 100, height: 50 };

describe('a ring that reaches the edge of the frame', () => {
  it('is led on beyond it, its corners on both sides, a line across it in its own direction', () => {
    const ring: [number, number][] = [
      [60, 0],
      [100, 0],
      [100, 50],
      [40, 50],
    ];
    // The line from (40, 50) to (60, 0) rises by 5 for each 2 across.
    expect(beyondFrame(ring, size, 10)).toEqual([
      [64, -10],
      [110, -10],
      [110, 60],
      [36, 60],
    ]);
  });

  it('moves points that follow the edge straight out, and leaves all others where they are', () => {
    const ring: [number, number][] = [
      [20, 20],
      [0, 0],
      [50, 0],
      [100, 0],
      [80, 20],
    ];
    expect(beyondFrame(ring, size, 5)).toEqual([
      [20, 20],
      [-5, -5],
      [50, -5],
      [105, -5],
      [80, 20],
    ]);
    // A line that leaves the frame nearly along its edge would end far aside.
    const flat: [number, number][] = [
      [50, 10],
      [95, 0],
      [10, 0],
    ];
    expect(beyondFrame(flat, size, 5)[1]).toEqual([95, -5]);
    expect(
      beyondFrame(
        [
          [10, 10],
          [20, 10],
          [10, 20],
        ],
        size,
        5,
      ),
    ).toEqual([
      [10, 10],
      [20, 10],
      [10, 20],
    ]);
  });
});
