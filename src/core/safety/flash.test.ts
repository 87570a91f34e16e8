import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { beatShown, beatsPerGlow, displayTones } from '../shoot/beat-display';
import { regularGrid, timeOfBeat } from '../time/grid';
import { blankYuv } from '../picture/planes';
import { flashesOfFilm, flashesPerSecond, lightsOf, mostFlashes } from './flash';

/** A light that goes on and off so many times a second, sixty pictures a second. */
const blinking = (hertz: number, low: number, high: number, seconds = 3) =>
  Array.from({ length: seconds * 60 }, (_, index) => ({
    time: index / 60,
    light: Math.floor((index / 60) * hertz * 2) % 2 === 0 ? low : high,
  }));

// WCAG 2.2, success criterion 2.3.1 and its definition of general flash.
describe('flashes a second (WCAG 2.2)', () => {
  it('counts pairs of opposing changes', () => {
    expect(flashesPerSecond(blinking(3, 0, 1))).toBe(3);
    expect(flashesPerSecond(blinking(5, 0, 1))).toBe(5);
    expect(flashesPerSecond([])).toBe(0);
    expect(flashesPerSecond([{ time: 0, light: 0.5 }])).toBe(0);
  });

  it('leaves out changes under 0.1, and those whose darker side is 0.8 or more', () => {
    expect(flashesPerSecond(blinking(8, 0.4, 0.49))).toBe(0);
    expect(flashesPerSecond(blinking(8, 0.85, 1))).toBe(0);
    expect(flashesPerSecond(blinking(8, 0.7, 1))).toBe(8);
  });

  it('counts a slow rise as one change, however many pictures it takes', () => {
    const ramp = Array.from({ length: 120 }, (_, at) => ({ time: at / 60, light: at / 120 }));
    expect(flashesPerSecond(ramp)).toBe(0);
  });
});

describe('flashes of a film', () => {
  const size = { width: 64, height: 64 };
  /** A film of which some rows, from their first column on, flash so often. */
  const film = (hertz: number, rows: number, columns = 64) =>
    Array.from({ length: 120 }, (_, index) => {
      const picture = blankYuv(size);
      if (Math.floor((index / 60) * hertz * 2) % 2)
        for (let row = 0; row < rows; row++) picture.y.fill(235, row * 64, row * 64 + columns);
      return { time: index / 60, lights: lightsOf(picture) };
    });

  it('count where a quarter of the picture or more flashes', () => {
    expect(flashesOfFilm(film(5, 64))).toBe(5);
    expect(flashesOfFilm(film(5, 16))).toBe(5);
    expect(flashesOfFilm(film(5, 16, 16))).toBe(0);
    expect(flashesOfFilm(film(2, 64))).toBeLessThanOrEqual(mostFlashes);
  });

  it('are measured as light, black 0 and white 1, whatever the range', () => {
    const white = blankYuv(size);
    white.y.fill(235);
    expect(lightsOf(white)[5]).toBeCloseTo(1, 6);
    expect(lightsOf(blankYuv(size))[5]).toBeCloseTo(0, 6);
    const full = blankYuv(size, { matrix: 'bt709', fullRange: true });
    full.y.fill(255);
    expect(lightsOf(full)[0]).toBeCloseTo(1, 6);
  });
});

describe('the beat display', () => {
  it('stays under the published limit at any tempo, metre and playback speed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 30, max: 390, noNaN: true }),
        fc.integer({ min: 2, max: 7 }),
        fc.constantFrom(0.5, 1, 2, 2.5, 5),
        (bpm, beatsPerBar, speed) => {
          const grid = regularGrid(bpm, 0.2, 40, beatsPerBar);
          const every = beatsPerGlow(grid, speed);
          const { dark, light } = displayTones;
          const lights = Array.from({ length: 6 * 60 }, (_, index) => ({
            time: index / 60,
            light: dark + (light - dark) * beatShown(grid, 1 + (index / 60) * speed, every).glow,
          }));
          expect(flashesPerSecond(lights)).toBeLessThanOrEqual(mostFlashes);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('lights up on every beat of a usual song, and shows bar and beat', () => {
    const grid = regularGrid(100, 0.5, 60);
    expect(beatsPerGlow(grid, 1)).toBe(1);
    expect(beatsPerGlow(grid, 2.5)).toBe(4);
    const shown = beatShown(grid, timeOfBeat(grid, 9), 1);
    expect(shown).toMatchObject({ bar: 3, beat: 2 });
    expect(shown.glow).toBeCloseTo(1, 2);
    expect(Math.abs(shown.swing)).toBeCloseTo(1, 2);
  });
});
