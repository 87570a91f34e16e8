import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { regularGrid, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { change, historyOf, redo, undo } from './change';
import { copyMoment, createMoment, moveMoment, startEarlier, setMoment } from './commands/moments';
import { addPass, addSetup, setDay } from './commands/plan';
import { switchUnits } from './commands/projects';
import { rateLast, rateLog, startLog, stopLog, tagLog } from './commands/shoot';
import {
  addSection,
  doubleTempo,
  firstOfBarAt,
  halveTempo,
  layFirstBeats,
  layFoundRest,
  lockPassage,
  shiftBeats,
} from './commands/song';
import type { Store } from './db';
import { TestFilm } from './__tests__/film';

let film: TestFilm;
let store: Store;
let project: string;
const grid = async () => (await film.read()).song?.grid as BeatGrid;
const track = ({ beats, beatsPerBar }: BeatGrid) => ({
  beats,
  beatsPerBar,
  downbeats: beats.filter((_, index) => index % beatsPerBar === 0),
  bpm: 120,
  confidence: 0.9,
  hits: [],
});

beforeEach(async () => {
  film = await TestFilm.begin();
  ({ store, project } = film);
  await film.addSong();
});

// Nothing here waits between two presses: each is made while the one before it is still on its way.
describe('quick presses build on each other', () => {
  it('moves the beats as often as was pressed', async () => {
    const before = await grid();
    await Promise.all([1, 2, 3].map(() => shiftBeats(store, project, 0.001)));
    const after = await grid();
    after.beats.forEach((beat, index) => expect(beat).toBeCloseTo(before.beats[index] + 0.003, 9));
  });

  it('halves the grid that the press before it has set right', async () => {
    await doubleTempo(store, project);
    await Promise.all([firstOfBarAt(store, project, 1.25), halveTempo(store, project, 1.25)]);
    const { beats, firstDownbeat, beatsPerBar } = await grid();
    const bars = beats.filter((_, index) => index % beatsPerBar === firstDownbeat);
    expect(Math.min(...bars.map((time) => Math.abs(time - 1.25)))).toBeLessThan(1e-9);
  });

  it('locks two passages, and adds two sections with names of their own', async () => {
    await Promise.all([
      lockPassage(store, project, 0, 4),
      lockPassage(store, project, 8, 12),
      addSection(store, project, 0),
      addSection(store, project, 8),
    ]);
    const { song, sections } = await film.read();
    expect(song?.locked).toEqual([
      { from: 0, to: 4 },
      { from: 8, to: 12 },
    ]);
    expect(sections.map(({ name }) => name)).toEqual(['Part 1', 'Part 2']);
    await expect(addSection(store, project, 8)).rejects.toMatchObject({ code: 'section' });
  });

  it('moves a moment by every press, and keeps its ends in order whatever is pressed', async () => {
    const id = await createMoment(store, project, 8, 16);
    await Promise.all([1, 2, 3].map(() => moveMoment(store, project, id, 'body', 1)));
    expect((await film.read()).moments[0]).toMatchObject({ start: 11, end: 19 });
    const press = fc.tuple(
      fc.constantFrom('body' as const, 'start' as const, 'lands' as const, 'end' as const),
      fc.integer({ min: -12, max: 12 }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(press, { maxLength: 6 }), async (presses) => {
        await Promise.all(presses.map(([part, by]) => moveMoment(store, project, id, part, by)));
        const { start, lands, end } = (await film.read()).moments[0];
        expect(start).toBeLessThanOrEqual(lands);
        expect(lands).toBeLessThan(end);
      }),
      { numRuns: 25 },
    );
  });

  it('names two moments, two copies and two setups apart', async () => {
    const [first] = await Promise.all([
      createMoment(store, project, 0, 4),
      createMoment(store, project, 8, 12),
    ]);
    await Promise.all([
      copyMoment(store, project, first),
      addSetup(store, project),
      addSetup(store, project),
    ]);
    const { moments, setups, marks } = await film.read();
    expect(moments.map(({ name }) => name).sort()).toEqual([
      'Meets a copy',
      'Meets a copy',
      'Meets a copy 2',
    ]);
    expect(setups.map(({ name, order }) => `${order} ${name}`)).toEqual(['1 First setup', '2 Setup 2']);
    expect(marks).toHaveLength(2);
    await Promise.all([addPass(store, project), addPass(store, project)]);
    expect((await film.read()).passes).toHaveLength(5);
  });

  it('starts a take earlier twice', async () => {
    const id = await createMoment(store, project, 0, 8);
    await setMoment(store, project, id, 'In', { 'slots.left.at': 3.003 });
    const args = { moment: id, slot: 'left', frames: 24 };
    await Promise.all([startEarlier(store, project, args), startEarlier(store, project, args)]);
    expect((await film.read()).built[0].slots?.left.at).toBeCloseTo(1.001, 9);
  });

  it('keeps one day that two presses made at once, and turns a switch as often as it was pressed', async () => {
    await Promise.all([
      setDay(store, project, { date: '2026-11-28' }),
      setDay(store, project, { start: '09:00' }),
      switchUnits(store, project),
      switchUnits(store, project),
    ]);
    const now = await film.read();
    expect(now.day).toMatchObject({ date: '2026-11-28', start: '09:00' });
    expect(now.project.units).toBe('metric');
  });

  it('logs: one take runs at a time, tags go on and off, the last take is the one that ended last', async () => {
    const [setup, shot] = ['s', 'shot'];
    const begin = () => startLog(store, project, setup, shot, { variation: '' });
    const begun = await Promise.allSettled([begin(), begin()]);
    expect(begun.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const [first] = (await film.read()).logs;
    expect(await rateLast(store, project, { setup, shot }, 'good')).toBeNull();
    await stopLog(store, first, 3);
    await Promise.all([
      tagLog(store, first, 'bumped'),
      tagLog(store, first, 'bumped'),
      tagLog(store, first, 'light'),
    ]);
    await Promise.all([rateLog(store, first, 'good'), rateLog(store, first, 'no')]);
    expect((await film.read()).logs[0]).toMatchObject({ rating: 'no', tags: { bumped: false, light: true } });
    const second = await begin();
    expect(second.number).toBe(2);
    // A key that was meant for the first take comes while the second ends: the second is the last one then.
    await Promise.all([stopLog(store, second, 2), rateLast(store, project, { setup, shot }, 'maybe')]);
    const rated = (await film.read()).logs.map(({ rating }) => rating);
    expect(rated[0]).toBe('no');
  });
});

describe('a choice that is made while work runs', () => {
  it('keeps the beats that were set by hand while the song was listened to', async () => {
    const found = track(regularGrid(97, 0.31, 60));
    await layFirstBeats(store, project, 'song-record', found);
    expect((await grid()).beats[1]).toBeCloseTo(0.5, 9);
    expect((await film.read()).song?.confidence).toBe(0.9);
    await change(store, project, 'None', [{ record: 'song-record', set: { grid: null } }]);
    await layFirstBeats(store, project, 'another-song', found);
    expect((await film.read()).song?.grid).toBeNull();
    await layFirstBeats(store, project, 'song-record', found);
    expect(timeOfBeat(await grid(), 0)).toBeCloseTo(0.31, 9);
  });

  it('keeps beats that were changed while the others were looked for, and says so', async () => {
    const searched = await grid();
    const found = track(regularGrid(60, 0, 60));
    await shiftBeats(store, project, 0.02);
    await expect(layFoundRest(store, project, searched, found)).rejects.toMatchObject({
      code: 'beats-changed',
    });
    expect((await grid()).beats[0]).toBeCloseTo(0.02, 9);
    await layFoundRest(store, project, await grid(), found);
    expect((await grid()).beats[1]).toBeCloseTo(1, 9);
  });
});

describe('a held key', () => {
  it('is one step to undo, and one to redo; a new press is another', async () => {
    const id = await createMoment(store, project, 8, 16);
    const start = async () => (await film.read()).moments[0].start;
    const press = () => moveMoment(store, project, id, 'body', 1);
    await Promise.all([1, 2, 3, 4].map(() => store.within('hold', press)));
    await store.within('another', press);
    expect(await start()).toBe(13);
    await undo(store, project);
    expect(await start()).toBe(12);
    await undo(store, project);
    expect(await start()).toBe(8);
    await redo(store, project);
    expect(await start()).toBe(12);
    await undo(store, project);
    await undo(store, project);
    expect((await film.read()).moments).toHaveLength(0);
  });

  it('ends where something else was done in between', async () => {
    const id = await createMoment(store, project, 8, 16);
    const press = () => store.within('hold', () => moveMoment(store, project, id, 'body', 1));
    await press();
    await shiftBeats(store, project, 0.01);
    await press();
    const { undo: steps } = historyOf(await store.commands.where({ project }).sortBy('id'));
    expect(steps).toHaveLength(1);
    await undo(store, project);
    expect((await film.read()).moments[0].start).toBe(9);
  });

  it('returns to the same state after any number of steps back and on', async () => {
    const id = await createMoment(store, project, 100, 116);
    const steps = fc.array(fc.tuple(fc.constantFrom('a', 'b', null), fc.integer({ min: -3, max: 3 })), {
      minLength: 1,
      maxLength: 8,
    });
    await fc.assert(
      fc.asyncProperty(steps, fc.nat(8), async (made, back) => {
        for (const [gesture, by] of made) {
          const press = () => moveMoment(store, project, id, 'body', by);
          await (gesture ? store.within(gesture, press) : press());
        }
        const after = (await film.read()).moments[0].start;
        const { undo: last } = historyOf(await store.commands.where({ project }).sortBy('id'));
        const count = Math.min(back, last.length === 0 ? 0 : 1);
        for (let step = 0; step < count; step++) await undo(store, project);
        for (let step = 0; step < count; step++) await redo(store, project);
        expect((await film.read()).moments[0].start).toBe(after);
      }),
      { numRuns: 15 },
    );
  });
});
