import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { writeCutList } from '../../formats/cut-list';
import { seeded } from '../../random';
import { regularGrid, timeOfBeat } from '../../time/grid';
import { freezeFinder } from './freezes';
import { beatsBetween, onSong, rhythmOf, sayMarks, shotsOf, type Apart, type FilmMark } from './shots';

const rate = 24;
const grid = regularGrid(120, 0.25, 60);
const heard = { offset: 4.25, drift: 0, confidence: 1 };
const mark = (frame: number, kind: FilmMark['kind'] = 'cut'): FilmMark => ({
  frame,
  seconds: frame / rate,
  kind,
  strength: 1,
});
const film = (marks: FilmMark[], frames = 240): Apart => ({ marks, frames, seconds: frames / rate });

describe('a film that was taken apart', () => {
  it('is its shots end to end, whatever is in it', () => {
    const kinds = fc.constantFrom<FilmMark['kind']>('cut', 'dissolve', 'flash', 'freeze');
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 239 }), { maxLength: 30 }),
        kinds,
        (frames, kind) => {
          const marks = frames
            .sort((a, b) => a - b)
            .map((frame, index) => mark(frame, index % 3 === 0 ? kind : 'cut'));
          const shots = shotsOf(film(marks));
          expect(shots[0].from).toBe(0);
          expect(shots.at(-1)?.until).toBe(240);
          shots.slice(1).forEach((shot, index) => expect(shot.from).toBe(shots[index].until));
          expect(shots).toHaveLength(
            1 + marks.filter((one) => one.kind === 'cut' || one.kind === 'dissolve').length,
          );
        },
      ),
    );
  });

  it('lies on the beats of the song that is heard in it', () => {
    // The film's second 0 is the song's 4.25, which is beat 8; beats are half a second apart.
    expect(onSong(grid, heard, 0)).toEqual({ beat: 8, late: 0 });
    expect(onSong(grid, heard, 1.04).beat).toBe(10);
    expect(onSong(grid, heard, 1.04).late).toBeCloseTo(0.04, 9);
    expect(onSong(grid, heard, 1.46).late).toBeCloseTo(-0.04, 9);
    expect(beatsBetween(grid, heard, 1, 3)).toBeCloseTo(4, 9);
    // A clock that is slow by a thousandth: a second later it is a millisecond on.
    expect(onSong(grid, { ...heard, drift: 1000 }, 10).late).toBeCloseTo(0.01, 9);
    expect(timeOfBeat(grid, 8)).toBeCloseTo(4.25, 9);
  });

  it('says how it is cut, with a song, without one, and with one shot alone', () => {
    const apart = film([mark(24), mark(60, 'flash'), mark(73), mark(120, 'dissolve')]);
    const rhythm = rhythmOf(apart, 0.042, { grid, heard });
    expect(rhythm).toMatchObject({ shots: 4, shortest: 1, longest: 5, onBeat: { count: 3, of: 3 } });
    expect(rhythmOf(film([mark(29)]), 0.042, { grid, heard }).onBeat).toMatchObject({ count: 0, of: 1 });
    expect(rhythmOf(apart, 0.042, null).onBeat).toBeNull();
    expect(rhythmOf(film([]), 0.042, { grid, heard })).toMatchObject({ shots: 1, onBeat: { of: 0, off: 0 } });
    expect(sayMarks(apart.marks)).toEqual(['1 dissolve', '1 flash']);
  });

  it('is a list that any table reads, notes with commas and quotes too', () => {
    const text = writeCutList(film([mark(24)]), { grid, heard }, { 24: 'a "jump", here' });
    const { data, errors } = Papa.parse<Record<string, string>>(text.trim(), { header: true });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(2);
    expect(data[1]).toMatchObject({
      shot: '2',
      frame: '24',
      frames: '216',
      beats: '18.000',
      bar: '3',
      beat: '3',
      'late ms': '0.0',
      note: 'a "jump", here',
    });
    expect(writeCutList(film([]), null, {})).toContain('1,0,0.0000,beginning,240,,,,,');
  });
});

describe('freezes', () => {
  const size = { width: 40, height: 24 };
  /** A block that stands at a column, with a codec's noise. */
  const picture = (column: number, seed: number) => {
    const next = seeded(seed);
    const data = Float32Array.from({ length: size.width * size.height }, (_, at) => {
      const x = at % size.width;
      return (x >= column && x < column + 6 ? 200 : 80) + 2 * (next() - 0.5);
    });
    return { ...size, data };
  };
  const found = (columns: number[]) => {
    const pass = freezeFinder(rate);
    columns.forEach((column, index) => pass.push(picture(column, index + 1), index / rate));
    return pass.finish();
  };

  it('are found to the frame where something moved before, and moves on after', () => {
    // It walks a column a frame, stands from frame 20 to 40, and walks on.
    const columns = Array.from({ length: 60 }, (_, frame) =>
      frame < 20 ? frame : frame < 40 ? 20 : frame - 20,
    );
    expect(found(columns.map((column) => column % 34))).toEqual([{ from: 20, until: 41 }]);
  });

  it('are none where nothing ever moved, where it stands for a moment only, and in nothing', () => {
    expect(found(Array.from({ length: 60 }, () => 8))).toEqual([]);
    expect(found(Array.from({ length: 40 }, (_, frame) => (2 * Math.floor(frame / 3)) % 34))).toEqual([]);
    expect(found([])).toEqual([]);
  });
});
