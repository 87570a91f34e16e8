import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  barAndBeat,
  beatLabel,
  beatOfTime,
  doubleGrid,
  frameOfBeat,
  halveGrid,
  positionOf,
  regularGrid,
  reportGrid,
  setDownbeat,
  shiftGrid,
  timeOfBeat,
  type BeatGrid,
  type GridChange,
} from './grid';
import { perSecond } from './rate';

const film = { num: 24000, den: 1001 };
const wandering: BeatGrid = {
  beats: [0.3, 0.9, 1.45, 2.1, 2.7, 3.3, 3.95, 4.5],
  beatsPerBar: 4,
  firstDownbeat: 1,
};
const grids = fc
  .tuple(
    fc.array(fc.double({ min: 0.25, max: 1.2, noNaN: true }), { minLength: 9, maxLength: 60 }),
    fc.nat(3),
  )
  .map(([gaps, firstDownbeat]): BeatGrid => {
    let time = 0;
    return { beats: gaps.map((gap) => (time += gap)), beatsPerBar: 4, firstDownbeat };
  });

describe('beat grid', () => {
  it('turns beats into the nearest frames at any distance', () => {
    const grid = regularGrid(128, 0, 600);
    // Arithmetic: beat 1000 of 128 a minute is 468.75 s, frame 11238.76 at 24000/1001.
    expect(frameOfBeat(grid, film, 1000)).toBe(11239);
    fc.assert(
      fc.property(grids, fc.double({ min: -20, max: 90, noNaN: true }), (grid, position) => {
        const frame = frameOfBeat(grid, film, position);
        expect(Math.abs(frame - timeOfBeat(grid, position) * perSecond(film))).toBeLessThanOrEqual(
          0.5 + 1e-6,
        );
      }),
    );
  });

  it('finds the beat of a time and the time of a beat', () => {
    fc.assert(
      fc.property(grids, fc.double({ min: -10, max: 80, noNaN: true }), (grid, time) => {
        expect(timeOfBeat(grid, beatOfTime(grid, time))).toBeCloseTo(time, 6);
      }),
    );
  });

  it('names bars and beats from 1', () => {
    expect(barAndBeat(wandering, 0)).toEqual({ bar: 1, beat: 1 });
    expect(beatLabel(wandering, 9.5)).toBe('bar 3, beat 2.5');
    expect(barAndBeat(wandering, -1)).toEqual({ bar: 0, beat: 4 });
    expect(positionOf(wandering, 3, 2.5)).toBe(9.5);
  });

  const keepsTime = (change: (grid: BeatGrid) => GridChange) =>
    fc.assert(
      fc.property(grids, fc.integer({ min: 0, max: 7 }), (grid, position) => {
        const { grid: next, move } = change(grid);
        expect(timeOfBeat(next, move(position))).toBeCloseTo(timeOfBeat(grid, position), 6);
      }),
    );

  it('keeps every moment at its place in the music when the grid is corrected', () => {
    keepsTime(doubleGrid);
    keepsTime((grid) => setDownbeat(grid, 3.1));
    const halved = halveGrid(wandering);
    expect(timeOfBeat(halved.grid, halved.move(4))).toBeCloseTo(timeOfBeat(wandering, 4), 9);
    expect(shiftGrid(wandering, 0.02).grid.beats[0]).toBeCloseTo(0.32, 9);
    expect(setDownbeat(wandering, 2.72).grid.firstDownbeat).toBe(0);
  });

  it('reports tempo, breathing and what rounding does', () => {
    const report = reportGrid(regularGrid(104.3, 0.5, 60), film);
    expect(report.bpm).toBeCloseTo(104.3, 6);
    expect(report.breathing).toBeCloseTo(0, 6);
    expect(report.framesPerBeat).toBeCloseTo(13.793, 2);
    expect(report.pattern.every((frames) => frames === 13 || frames === 14)).toBe(true);
    expect(report.worst.frames).toBeLessThanOrEqual(0.5);
  });

  it('refuses a tempo that is none', () => {
    expect(() => regularGrid(0, 0, 10)).toThrow(expect.objectContaining({ code: 'tempo' }));
    expect(() => regularGrid(Number.NaN, 0, 10)).toThrow(expect.objectContaining({ code: 'tempo' }));
  });
});
