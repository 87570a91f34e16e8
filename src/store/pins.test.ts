import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { movePins, pinnedAt } from '@/core/model/pins';
import { change, undo } from './change';
import { copyMoment, createMoment, moveMoment } from './commands/moments';
import { doubleTempo, snapMoments } from './commands/song';
import { TestFilm } from './__tests__/film';

let film: TestFilm;
let moment: string;
beforeEach(async () => {
  film = await TestFilm.begin();
  await film.addSong();
  moment = await createMoment(film.store, film.project, 8, 16);
  await change(film.store, film.project, 'Pin', [
    { record: moment, set: { 'pins.first piece': 9.25, 'pins.second piece': 14 } },
  ]);
});
const pins = async (at = 0) => (await film.read()).moments[at].pins;

describe('what a moment is pinned to beyond its three instants', () => {
  it('goes along when all of the moment is moved, and stays when one end is', async () => {
    await moveMoment(film.store, film.project, moment, 'body', 2);
    expect(await pins()).toEqual({ 'first piece': 11.25, 'second piece': 16 });
    await moveMoment(film.store, film.project, moment, 'end', 3);
    expect(await pins()).toEqual({ 'first piece': 11.25, 'second piece': 16 });
    await undo(film.store, film.project);
    await undo(film.store, film.project);
    expect(await pins()).toEqual({ 'first piece': 9.25, 'second piece': 14 });
  });

  it('is copied with the moment, and keeps its place in the music when the grid is set right', async () => {
    await copyMoment(film.store, film.project, moment);
    expect(await pins(1)).toEqual({ 'first piece': 17.25, 'second piece': 22 });
    await doubleTempo(film.store, film.project);
    const [one] = (await film.read()).moments;
    expect([one.start, one.lands, one.end, one.pins]).toEqual([
      16,
      24,
      32,
      { 'first piece': 18.5, 'second piece': 28 },
    ]);
    await snapMoments(film.store, film.project);
    expect(await pins()).toEqual({ 'first piece': 19, 'second piece': 28 });
  });

  it('is moved field by field, each by the same move', () => {
    const position = fc.double({ min: -20, max: 400, noNaN: true });
    const pinned = fc.record({
      start: position,
      lands: position,
      end: position,
      pins: fc.dictionary(fc.stringMatching(/^[a-z]{1,6}$/), position),
    });
    fc.assert(
      fc.property(pinned, position, (given, by) => {
        const moved = movePins(given, (value) => value + by);
        const before = pinnedAt(given);
        expect(Object.keys(moved)).toEqual(Object.keys(before));
        for (const [field, value] of Object.entries(moved)) expect(value).toBe(before[field] + by);
      }),
    );
  });
});
