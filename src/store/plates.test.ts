import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Take } from '@/core/model/records';
import type { CloneMoment } from '@/core/recipes/clone/material';
import { compared, TestFilm } from './__tests__/film';
import { change } from './change';
import { createMoment, setMoment } from './commands/moments';
import { addSetup } from './commands/plan';
import { makePlate } from './commands/takes';
import { newRecord } from './commands/projects';
import { materialOf, worksOf } from './material';
import { needsOf } from './needs';
import { filmedIn, plateFor, plateOfMoment, platesFor } from './plates';
import { compareKey, type Snapshot } from './snapshot';

let film: TestFilm;
let setups: string[];
beforeEach(async () => {
  film = await TestFilm.begin();
  await film.addSong();
  await addSetup(film.store, film.project);
  await addSetup(film.store, film.project);
  setups = (await film.read()).setups.map(({ id }) => id);
});

/** A take that was measured, with its log line where it was logged. */
async function shot(
  id: string,
  slot: Take['slot'],
  setup: string | null,
  rating: 'good' | 'no' | null = null,
) {
  await film.addTake(id, slot, (await film.read()).takes.length);
  await film.measured(id);
  if (!setup) return;
  const log = { kind: 'log' as const, setup, shot: `${setup}/${slot}`, number: 1, started: 0, length: 9 };
  const rest = { rating, tags: {}, variation: '', notes: '', take: id, seen: [] };
  await change(film.store, film.project, 'Log', [
    { create: { ...newRecord(film.project, `log-${id}`), ...log, ...rest } },
  ]);
}

/** A clone of a setup from these two takes. */
async function clone(setup: string, left: string | null, right: string | null): Promise<string> {
  const id = await createMoment(film.store, film.project, 0, 8);
  const set = { setup, 'slots.left.take': left, 'slots.right.take': right };
  await setMoment(film.store, film.project, id, 'Choose', set);
  return id;
}
const of = (snapshot: Snapshot, id: string) =>
  snapshot.built.find((moment) => moment.id === id) as CloneMoment;
const plateNow = async (id: string) => {
  const snapshot = await film.read();
  return plateOfMoment(snapshot, of(snapshot, id))?.id ?? null;
};

describe('which plate', () => {
  it('is one of the moment’s own setup, and never another setup’s', async () => {
    const [first, second] = [await clone(setups[0], null, null), await clone(setups[1], null, null)];
    await shot('a', 'plate', setups[0]);
    expect([await plateNow(first), await plateNow(second)]).toEqual(['a', null]);
    await shot('b', 'plate', setups[1]);
    expect([await plateNow(first), await plateNow(second)]).toEqual(['a', 'b']);
    const snapshot = await film.read();
    expect(plateFor(snapshot, snapshot.takes.find(({ id }) => id === 'b') as Take)?.id).toBe('b');
    expect(snapshot.takes.map((take) => filmedIn(snapshot, take))).toEqual(setups);
  });

  it('is found by a moment that was planned before anything was filmed', async () => {
    const id = await createMoment(film.store, film.project, 0, 8);
    expect(await plateNow(id)).toBeNull();
    await shot('loose', 'plate', null);
    expect(await plateNow(id)).toBe('loose');
    await shot('a', 'plate', setups[0]);
    expect(await plateNow(id)).toBe('a');
  });

  it('is the good one first, not one that was rated “no”, and what a person chose before all', async () => {
    const id = await clone(setups[0], null, null);
    await shot('bad', 'plate', setups[0], 'no');
    expect(await plateNow(id)).toBeNull();
    await shot('plain', 'plate', setups[0]);
    await shot('good', 'plate', setups[0], 'good');
    await shot('loose', 'plate', null);
    await shot('elsewhere', 'plate', setups[1]);
    const snapshot = await film.read();
    expect(platesFor(snapshot, of(snapshot, id)).map((take) => take.id)).toEqual(['good', 'plain', 'loose']);
    const choose = (plate: string) =>
      setMoment(film.store, film.project, id, 'Choose the plate', { 'slots.plate.take': plate });
    await choose('bad');
    expect(await plateNow(id)).toBe('bad');
    await choose('elsewhere');
    expect(await plateNow(id)).toBe('good');
  });
});

describe('a plate that is put together', () => {
  const made = async (setup: string | null) => {
    await makePlate(film.store, film.project, setup);
    const { takes } = await film.read();
    return takes[takes.length - 1];
  };

  it('is of the takes of one setup, serves that one alone, and gives way to one that was filmed', async () => {
    const moments = [await clone(setups[0], null, null), await clone(setups[1], null, null)];
    for (const [index, setup] of setups.entries())
      for (const role of ['left', 'right'] as const) await shot(`${role}${index}`, role, setup);
    await shot('loose', null, null);
    await shot('out', 'none', setups[1]);
    const plate = await made(setups[1]);
    expect(plate.made?.from).toEqual(['left1', 'right1']);
    expect(await Promise.all(moments.map(plateNow))).toEqual([null, plate.id]);
    await shot('filmed', 'plate', setups[1]);
    expect(await Promise.all(moments.map(plateNow))).toEqual([null, 'filmed']);
  });

  it('of takes that nobody logged may serve any setup; of none it is refused', async () => {
    await expect(made(null)).rejects.toThrow(/no take/);
    await shot('loose', null, null);
    const plate = await made(null);
    expect(await plateNow(await clone(setups[0], null, null))).toBe(plate.id);
    const asked = needsOf(await film.read()).filter(({ kind }) => kind === 'plate');
    expect(asked).toMatchObject([{ from: [{ id: 'loose' }] }]);
  });
});

describe('two setups, each with a clone', () => {
  it('are compared with their own plates and joined, one like the other', async () => {
    const moments = [];
    for (const [index, setup] of setups.entries()) {
      for (const role of ['plate', 'left', 'right'] as const) await shot(`${role}${index}`, role, setup);
      moments.push(await clone(setup, `left${index}`, `right${index}`));
    }
    const pairs = (needs: ReturnType<typeof needsOf>) =>
      needs.flatMap((need) => (need.kind === 'compare' ? [need.key] : [])).sort();
    const own = setups.flatMap((_, index) =>
      ['left', 'right'].map((role) =>
        compareKey({ media: `m-${role}${index}` }, { media: `m-plate${index}` }),
      ),
    );
    expect(pairs(needsOf(await film.read()))).toEqual(own.sort());
    for (const key of own) await film.keep(key, key, { method: 'comparison', comparison: compared() });
    const snapshot = await film.read();
    expect(moments.map((id) => worksOf(snapshot, of(snapshot, id)).length)).toEqual([1, 1]);
    expect(needsOf(snapshot).filter(({ kind }) => kind === 'work')).toHaveLength(2);
    const { material } = materialOf(snapshot, of(snapshot, moments[1]));
    const { plate, left } = material.takes;
    expect([plate?.take.id, left?.take.id]).toEqual(['plate1', 'left1']);
    expect(left?.comparison).not.toBeNull();
  });

  it('compares a loose take with the plate of the moment that it is chosen for', async () => {
    await shot('plate1', 'plate', setups[1]);
    await shot('left', 'left', null);
    await shot('right', 'right', setups[1]);
    await clone(setups[1], 'left', 'right');
    const keys = needsOf(await film.read()).map(({ key }) => key);
    expect(keys).toContain(compareKey({ media: 'm-left' }, { media: 'm-plate1' }));
  });
});
