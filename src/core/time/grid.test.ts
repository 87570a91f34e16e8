import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  barAndBeat,
  barStart,
  beatLabel,
  beatOfTime,
  frameOfBeat,
  meterAt,
  nearestBeat,
  nextBar,
  positionOf,
  regularGrid,
  timeOfBeat,
  type BeatGrid,
} from './grid';
import {
  doubleGrid,
  halveGrid,
  layTaps,
  moveBeat,
  setDownbeat,
  setMeter,
  setTempoFrom,
  shiftGrid,
  type GridChange,
} from './grid-change';
import { beatFrames, beatPattern, compareRates, offsetNotice, reportGrid, tempoByBar } from './grid-report';
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

  it('tells the nearest beat of an instant and how late it is', () => {
    const grid = regularGrid(120, 0.5, 20);
    for (const [seconds, beat, late] of [
      [3.04, 5, 0.04],
      [2.96, 5, -0.04],
      [0, -1, 0],
    ]) {
      const found = nearestBeat(grid, seconds);
      expect(found.beat).toBe(beat);
      expect(found.late).toBeCloseTo(late, 9);
    }
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 19, noNaN: true }), (seconds) => {
        const { beat, late } = nearestBeat(grid, seconds);
        expect(Math.abs(late)).toBeLessThanOrEqual(0.25 + 1e-9);
        expect(timeOfBeat(grid, beat) + late).toBeCloseTo(seconds, 9);
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
    fc.assert(
      fc.property(grids, fc.integer({ min: 0, max: 30 }), (grid, first) => {
        const { grid: next, move } = halveGrid(grid, first);
        expect(Number.isInteger(move(first))).toBe(true);
        if (first + grid.firstDownbeat < grid.beats.length)
          expect(timeOfBeat(next, move(first))).toBeCloseTo(timeOfBeat(grid, first), 6);
        if (first > 0) expect(barAndBeat(next, move(first)).beat).toBe(1);
      }),
    );
    expect(shiftGrid(wandering, 0.02).grid.beats[0]).toBeCloseTo(0.32, 9);
    expect(setDownbeat(wandering, 2.72).grid.firstDownbeat).toBe(0);
  });

  it('reports tempo, breathing and what rounding does', () => {
    const report = reportGrid(regularGrid(104.3, 0.5, 60), film);
    expect(report.bpm).toBeCloseTo(104.3, 6);
    expect(report.breathing).toBeCloseTo(0, 6);
    expect(report.framesPerBeat).toBeCloseTo(13.793, 2);
    expect(report.pattern.every((frames) => frames === 13 || frames === 14)).toBe(true);
    expect(report.worst * perSecond(film)).toBeLessThanOrEqual(0.5);
  });

  // Arithmetic: 120 beats a minute at 25 frames are 12.5 frames a beat; 128 at 24000/1001 are 11.238 76.
  it('knows the pattern of frames a beat', () => {
    expect(beatPattern(12.5)).toEqual([13, 12]);
    expect(beatPattern(15)).toEqual([15]);
    const pattern = beatPattern((60 / 128) * perSecond(film));
    expect(new Set(pattern)).toEqual(new Set([11, 12]));
    expect(pattern.slice(0, 4).reduce((sum, frames) => sum + frames, 0)).toBe(45);
  });

  it('puts every beat on its own nearest frame, whatever the rate', () => {
    fc.assert(
      fc.property(grids, (grid) => {
        for (const report of compareRates(grid))
          expect(report.worst).toBeLessThanOrEqual(0.5 / perSecond(report.rate) + 1e-9);
        const rows = beatFrames(grid, film);
        const since = rows.slice(1).reduce((sum, row) => sum + (row.since ?? 0), 0);
        expect(rows[0].frame + since).toBe(rows[rows.length - 1].frame);
      }),
    );
    expect(compareRates(wandering)).toHaveLength(8);
  });

  // ITU-R BT.1359-1: noticed from +45 ms early to -125 ms late, acceptable to +90 and -185; EBU R37: +40 and -60.
  it.each([
    [0.02, 'unnoticed'],
    [-0.059, 'unnoticed'],
    [0.042, 'beyond R37'],
    [-0.1, 'beyond R37'],
    [0.05, 'noticed'],
    [-0.13, 'noticed'],
    [0.1, 'unacceptable'],
    [-0.19, 'unacceptable'],
  ])('judges a picture that begins %f s after its sound', (off, notice) => {
    expect(offsetNotice(off)).toBe(notice);
  });

  it('refuses a tempo that is none', () => {
    expect(() => regularGrid(0, 0, 10)).toThrow(expect.objectContaining({ code: 'tempo' }));
    expect(() => regularGrid(Number.NaN, 0, 10)).toThrow(expect.objectContaining({ code: 'tempo' }));
  });
});

describe('bars of different lengths', () => {
  const grid = regularGrid(120, 0, 60);
  const odd = setMeter(setMeter(grid, 8, 3).grid, 14, 4).grid;

  it('count on from where the length changes', () => {
    expect(barAndBeat(odd, 7)).toEqual({ bar: 2, beat: 4 });
    expect(barAndBeat(odd, 8)).toEqual({ bar: 3, beat: 1 });
    expect(barAndBeat(odd, 13)).toEqual({ bar: 4, beat: 3 });
    expect(barAndBeat(odd, 14)).toEqual({ bar: 5, beat: 1 });
    expect(barAndBeat(odd, 19)).toEqual({ bar: 6, beat: 2 });
    expect([barStart(odd, 12.5), nextBar(odd, 12.5)]).toEqual([11, 14]);
  });

  it('find every position by bar and beat again', () => {
    fc.assert(
      fc.property(fc.integer({ min: -8, max: 80 }), (position) => {
        const { bar, beat } = barAndBeat(odd, position);
        expect(positionOf(odd, bar, beat)).toBe(position);
      }),
    );
  });

  it('tell the tempo of each whole bar, whatever its length', () => {
    const tempos = tempoByBar(odd);
    expect(tempos.map(({ bar }) => bar)).toEqual(tempos.map((_, index) => index + 1));
    for (const { bpm } of tempos) expect(bpm).toBeCloseTo(120, 6);
    const beats = [0, 0.5, 1, 1.5, 2, 3, 4, 5, 6];
    expect(tempoByBar({ beats, beatsPerBar: 4, firstDownbeat: 0 })).toEqual([
      { bar: 1, bpm: 120 },
      { bar: 2, bpm: 60 },
    ]);
  });

  it('a metre equal to the one before it is no change', () => {
    expect(setMeter(odd, 8, 4).grid.changes).toEqual([{ at: 14, beatsPerBar: 4 }]);
    expect(setMeter(grid, 0, 4).grid.changes).toEqual([]);
  });

  it('cut a bar short where the change falls inside it', () => {
    const cut = setMeter(grid, 6, 3).grid;
    expect(nextBar(cut, 4)).toBe(6);
    expect(barAndBeat(cut, 6)).toEqual({ bar: 3, beat: 1 });
  });
});

describe('correcting by hand', () => {
  it('moves one beat and no other, and never past its neighbours', () => {
    const moved = moveBeat(wandering, 2, 2.2).grid;
    expect(moved.beats[3]).toBe(2.2);
    expect(moved.beats.filter((beat, at) => beat !== wandering.beats[at])).toHaveLength(1);
    expect(() => moveBeat(wandering, 2, 2.75)).toThrow(expect.objectContaining({ code: 'grid' }));
  });

  it('sets a tempo from a bar on; what lies before stays, what lies after keeps its time', () => {
    const grid = regularGrid(120, 0, 40);
    const { grid: next, move } = setTempoFrom(grid, 16, 90, 40);
    expect(next.beats.slice(0, 17)).toEqual(grid.beats.slice(0, 17));
    expect(timeOfBeat(next, 20) - timeOfBeat(next, 19)).toBeCloseTo(60 / 90, 9);
    expect(move(12)).toBe(12);
    expect(Math.abs(timeOfBeat(next, move(40)) - timeOfBeat(grid, 40))).toBeLessThan(0.1);
    expect(() => setTempoFrom(grid, 16, 1, 40)).toThrow(expect.objectContaining({ code: 'tempo' }));
  });

  it('lays taps with their latency out, a stumble and a missed beat notwithstanding', () => {
    const grid = regularGrid(97, 0.13, 60);
    const truth = Array.from({ length: 16 }, (_, beat) => 10 + (beat * 60) / 120);
    const wobble = [4, -6, 3, 8, -2, -9, 5, 1, -4, 60, 2, -3, 6, -1, 3, -5];
    const taps = truth.map((time, at) => time + 0.08 + wobble[at] / 1000).filter((_, at) => at !== 6);
    const { grid: next } = layTaps(grid, taps, 0.08, 60);
    for (const time of truth)
      expect(Math.min(...next.beats.map((beat) => Math.abs(beat - time)))).toBeLessThan(0.012);
    const gaps = next.beats.slice(1).map((beat, at) => beat - next.beats[at]);
    expect(Math.min(...gaps)).toBeGreaterThan(0.2);
    expect(next.beats[0]).toBeCloseTo(grid.beats[0], 9);
  });

  it('refuses taps that are no beats', () => {
    const grid = regularGrid(97, 0.13, 60);
    expect(() => layTaps(grid, [1, 2, 3], 0, 60)).toThrow(expect.objectContaining({ code: 'taps' }));
    expect(() => layTaps(grid, [1, 1.01, 1.02, 1.03], 0, 60)).toThrow(
      expect.objectContaining({ code: 'taps' }),
    );
  });
});

describe('every correction, whatever changes of metre there are', () => {
  const odd = fc
    .record({
      bpm: fc.integer({ min: 60, max: 180 }),
      anchor: fc.double({ min: 0, max: 2, noNaN: true }),
      beatsPerBar: fc.integer({ min: 2, max: 5 }),
      first: fc.integer({ min: 1, max: 14 }),
      second: fc.integer({ min: 3, max: 12 }),
      meters: fc.tuple(fc.integer({ min: 2, max: 7 }), fc.integer({ min: 2, max: 7 })),
      count: fc.integer({ min: 0, max: 2 }),
    })
    .map(({ bpm, anchor, beatsPerBar, first, second, meters, count }) => {
      const changes = [
        { at: first, beatsPerBar: meters[0] },
        { at: first + second, beatsPerBar: meters[1] },
      ];
      return { ...regularGrid(bpm, anchor, 30, beatsPerBar), changes: changes.slice(0, count) };
    });
  const place = fc.integer({ min: 0, max: 24 });
  /** Changes of metre lie where they lay in time, to within some beats, or were overtaken. */
  const metersKept = (old: BeatGrid, { grid, move }: GridChange, beats: number) =>
    (grid.changes ?? []).forEach(({ at, beatsPerBar }) => {
      const apart = (old.changes ?? [])
        .filter((one) => one.beatsPerBar === beatsPerBar)
        .map((one) => Math.abs(move(one.at) - at));
      if (apart.length > 0) expect(Math.min(...apart)).toBeLessThanOrEqual(beats);
    });
  const rising = ({ grid }: GridChange) =>
    (grid.changes ?? []).forEach(({ at }, index, all) => {
      expect(Number.isInteger(at) && at > (all[index - 1]?.at ?? 0)).toBe(true);
    });

  it('keeps what is pinned where it is in time, and makes the chosen beat what was asked', () => {
    fc.assert(
      fc.property(odd, place, fc.integer({ min: -3, max: 24 }), (grid, chosen, pinned) => {
        const seconds = timeOfBeat(grid, chosen);
        const exact = {
          doubled: doubleGrid(grid),
          halved: halveGrid(grid, chosen),
          downbeat: setDownbeat(grid, seconds),
          meter: setMeter(grid, chosen, 3),
        };
        for (const [name, change] of Object.entries(exact)) {
          if (name !== 'halved' || chosen > 0) {
            const off = timeOfBeat(change.grid, change.move(pinned)) - timeOfBeat(grid, pinned);
            // Outside the beats half a tempo goes on otherwise.
            if (pinned + grid.firstDownbeat >= 1) expect(Math.abs(off)).toBeLessThan(1e-6);
          }
          rising(change);
          // A new metre is a change of its own.
          if (name !== 'meter') metersKept(grid, change, 7);
        }
        for (const change of [exact.downbeat, exact.meter])
          expect(barAndBeat(change.grid, change.move(chosen)).beat).toBe(1);
        if (chosen > 0) expect(barAndBeat(exact.halved.grid, exact.halved.move(chosen)).beat).toBe(1);
        expect(meterAt(exact.meter.grid, exact.meter.move(chosen)).beatsPerBar).toBe(3);
      }),
      { numRuns: 300 },
    );
  });

  it('sets tempo and taps so that changes of metre and pins keep their time to the beat', () => {
    fc.assert(
      fc.property(odd, place, fc.integer({ min: 0, max: 24 }), (grid, chosen, pinned) => {
        const tempo = setTempoFrom(grid, chosen, 97, 30);
        const taps = Array.from({ length: 8 }, (_, step) => 8 + step * 0.62);
        for (const change of [tempo, layTaps(grid, taps, 0, 30)]) {
          rising(change);
          metersKept(grid, change, 0.5);
          const off = timeOfBeat(change.grid, change.move(pinned)) - timeOfBeat(grid, pinned);
          expect(Math.abs(off)).toBeLessThan(0.2);
        }
        const length = timeOfBeat(tempo.grid, chosen + 1) - timeOfBeat(tempo.grid, chosen);
        expect(length).toBeCloseTo(60 / 97, 9);
      }),
    );
  });

  it('leaves no gap after the last beat, and says where there is no beat', () => {
    const grid = regularGrid(120, 0, 10);
    const { beats } = setTempoFrom(grid, 30, 90, 30).grid;
    const gaps = beats.slice(1).map((beat, at) => beat - beats[at]);
    expect(Math.max(...gaps)).toBeCloseTo(60 / 90, 9);
    expect(() => moveBeat(grid, 40, 20.1)).toThrow(expect.objectContaining({ code: 'grid' }));
    expect(() => moveBeat(grid, -3, -1.4)).toThrow(expect.objectContaining({ code: 'grid' }));
  });

  it('takes a metre before bar 1 for the song’s own', () => {
    const grid = regularGrid(120, 2, 30);
    const { grid: next, move } = setMeter({ ...grid, firstDownbeat: 4 }, -4, 3);
    expect(next).toMatchObject({ beatsPerBar: 3, firstDownbeat: 0, changes: [] });
    expect([move(-4), barAndBeat(next, move(-1)).beat]).toEqual([0, 1]);
  });
});
