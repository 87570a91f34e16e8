import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { partKey } from '@/core/footage/take-parts';
import { songPartKey } from '@/core/song/parts';
import { regularGrid } from '@/core/time/grid';
import type { Take } from '@/core/model/records';
import type { CloneMoment } from '@/core/recipes/clone/material';
import { change, historyOf, redo, undo } from './change';
import { HybridClock } from './clock';
import { createMoment, removeMoment, setMoment, startEarlier } from './commands/moments';
import { createProject, newRecord, setProject } from './commands/projects';
import {
  doubleTempo,
  firstOfBarAt,
  halveTempo,
  setBeatsPerBar,
  setTempo,
  shiftHalfBeat,
} from './commands/song';
import { setTake } from './commands/takes';
import { Store, type StoredRecord } from './db';
import { needsOf } from './needs';
import { readSnapshot, type Snapshot } from './snapshot';

let store: Store;
let project: string;
let number = 0;

beforeEach(async () => {
  store = new Store(`test-${number++}`);
  project = await createProject(store, 'Test');
});

const read = async (): Promise<Snapshot> => (await readSnapshot(store, project)) as Snapshot;
const addSong = (bpm = 120) =>
  change(store, project, 'Song', [
    {
      create: {
        ...newRecord(project),
        kind: 'song',
        media: 'm',
        grid: regularGrid(bpm, 0.5, 60),
        confidence: 0.9,
      },
    },
  ]);
const addTake = (name: string, slot: Take['slot'], order: number) =>
  change(store, project, 'Take', [
    {
      create: {
        ...newRecord(project),
        kind: 'take',
        media: `m-${name}`,
        name,
        slot,
        order,
        steady: false,
        match: false,
      },
    },
  ]);

describe('changes', () => {
  it('keeps every field with its stamp, and refuses what does not fit without changing anything', async () => {
    await setProject(store, project, { name: 'Film' });
    const record = await store.records.get(project);
    expect((record?.stamps.name ?? '') > (record?.stamps.width ?? '')).toBe(true);
    await expect(setProject(store, project, { width: -4 })).rejects.toMatchObject({ code: 'value' });
    expect((await read()).project.width).toBe(1280);
    expect(await setProject(store, project, { name: 'Film' })).toBeNull();
  });

  it('takes back a field that was never set before, and a record that was made', async () => {
    await setProject(store, project, { units: 'imperial' });
    expect((await read()).project.units).toBe('imperial');
    await undo(store, project);
    expect((await read()).project.units).toBeUndefined();
    await redo(store, project);
    expect((await read()).project.units).toBe('imperial');
    await addTake('One', 'left', 1);
    await undo(store, project);
    expect((await read()).takes).toHaveLength(0);
    await redo(store, project);
    expect((await read()).takes[0].name).toBe('One');
  });

  it('undoes and redoes across steps, and brings back what was removed', async () => {
    await addSong();
    const id = await createMoment(store, project, 8, 20);
    const feather = async () => ((await read()).built[0] as CloneMoment).settings.feather;
    await setMoment(store, project, id, 'Feather', { 'settings.feather': 30 });
    await removeMoment(store, project, id);
    expect((await read()).moments).toHaveLength(0);
    await undo(store, project);
    expect(await feather()).toBe(30);
    await undo(store, project);
    expect(await feather()).toBe(12);
    await redo(store, project);
    expect(await feather()).toBe(30);
    await undo(store, project);
    await undo(store, project);
    expect((await read()).moments).toHaveLength(0);
    await redo(store, project);
    expect((await read()).moments).toHaveLength(1);
  });

  it('puts back only what still holds what the step wrote', async () => {
    await addTake('left', 'left', 1);
    const [take] = (await read()).takes;
    await setTake(store, project, take.id, 'Steady', { steady: true });
    // Another device changed the same field meanwhile.
    const meanwhile: StoredRecord = { ...take, steady: false, stamps: {} };
    await store.writeRows('records', [meanwhile]);
    await undo(store, project);
    expect((await read()).takes[0].steady).toBe(false);
  });

  it('passes over what the bench did by itself', async () => {
    await addTake('left', 'left', 1);
    const [take] = (await read()).takes;
    await setTake(store, project, take.id, 'Name', { name: 'Mine' });
    await change(store, project, 'Sort', [{ record: take.id, set: { slot: 'right' } }], true);
    await undo(store, project);
    const [after] = (await read()).takes;
    expect([after.name, after.slot]).toEqual(['left', 'right']);
  });

  it('returns to the same state after any number of steps back and on', async () => {
    await addSong();
    const id = await createMoment(store, project, 0, 8);
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom('feather', 'fade'), fc.nat(90)), { maxLength: 6 }),
        async (edits) => {
          const before = (await read()).built[0].settings;
          let steps = 0;
          for (const [field, value] of edits) {
            if (await setMoment(store, project, id, 'Edit', { [`settings.${field}`]: value })) steps++;
          }
          const after = (await read()).built[0].settings;
          for (let step = 0; step < steps; step++) await undo(store, project);
          expect((await read()).built[0].settings).toEqual(before);
          for (let step = 0; step < steps; step++) await redo(store, project);
          expect((await read()).built[0].settings).toEqual(after);
        },
      ),
      { numRuns: 15 },
    );
  });

  it('knows what comes next', () => {
    expect(historyOf([])).toEqual({ undo: [], redo: [] });
  });
});

describe('stamps', () => {
  it('rise even when the device clock falls back', () => {
    const times = [1000, 1000, 400, 1001];
    const clock = new HybridClock('a', () => times.shift() ?? 0);
    const stamps = [clock.next(), clock.next(), clock.next(), clock.next()];
    expect([...stamps].sort()).toEqual(stamps);
    clock.saw(`${(9999).toString(36).padStart(9, '0')}:0004:b`);
    expect(clock.next() > `${(9999).toString(36).padStart(9, '0')}:0004:b`).toBe(true);
  });

  it('keep their form after a stamp whose count is as high as it goes', () => {
    const clock = new HybridClock('a', () => 1000);
    clock.saw(`${(2000).toString(36).padStart(9, '0')}:zzzz:b`);
    const stamps = [clock.next(), clock.next()];
    expect(stamps.every((stamp) => /^[0-9a-z]{9}:[0-9a-z]{4}:a$/.test(stamp))).toBe(true);
    expect([`${(2000).toString(36).padStart(9, '0')}:zzzz:b`, ...stamps].sort()[0]).toContain(':zzzz:b');
    expect([...stamps].sort()).toEqual(stamps);
  });
});

describe('correcting the beats', () => {
  it('turns a grid at double tempo and half a beat off into the right one with three actions', async () => {
    // Found: 240 beats a minute from 0.625 s; true: 120 from 0.5 s, bars from there.
    await change(store, project, 'Song', [
      {
        create: {
          ...newRecord(project),
          kind: 'song',
          media: 'm',
          grid: regularGrid(240, 0.625, 60),
          confidence: 0.4,
        },
      },
    ]);
    const id = await createMoment(store, project, 16, 40);
    await shiftHalfBeat(store, project);
    await halveTempo(store, project);
    await firstOfBarAt(store, project, 2.5);
    const { song, moments } = await read();
    expect(song?.grid?.beats[1]).toBeCloseTo((song?.grid?.beats[0] as number) + 0.5, 6);
    expect(((song?.grid?.beats[0] as number) / 0.25) % 1).toBeCloseTo(0, 6);
    expect(moments.find((one) => one.id === id)?.end).toBeCloseTo((moments[0].start as number) + 12, 6);
  });

  it('keeps moments at their time when tempo, bars and octave change', async () => {
    await addSong(120);
    await createMoment(store, project, 8, 16);
    await doubleTempo(store, project);
    expect((await read()).moments[0].start).toBe(16);
    await setBeatsPerBar(store, project, 3);
    expect((await read()).song?.grid?.beatsPerBar).toBe(3);
    await setTempo(store, project, 120, 0.5);
    expect((await read()).song?.confidence).toBeNull();
    await expect(setTempo(store, project, 3, 0)).rejects.toMatchObject({ code: 'tempo' });
  });
});

describe('moments and work', () => {
  it('refuses a moment without beats or length', async () => {
    await expect(createMoment(store, project, 0, 4)).rejects.toMatchObject({ code: 'no-grid' });
    await addSong();
    await expect(createMoment(store, project, 4, 4)).rejects.toMatchObject({ code: 'no-length' });
  });

  it('starts a take earlier as far as it can', async () => {
    await addSong();
    const id = await createMoment(store, project, 0, 8);
    const args = { moment: id, slot: 'left', frames: 12 };
    await expect(startEarlier(store, project, args)).rejects.toMatchObject({ code: 'too-short' });
    await setMoment(store, project, id, 'In', { 'slots.left.at': 2 });
    await startEarlier(store, project, args);
    expect((await read()).built[0].slots?.left.at).toBeCloseTo(2 - (12 * 1001) / 24000, 9);
  });

  it('finds what is missing from what is there, and leaves alone what was cancelled', async () => {
    await addSong();
    await addTake('plate', 'plate', 1);
    await addTake('left', 'left', 2);
    for (const id of ['m', 'm-plate', 'm-left']) {
      await store.writeRows('media', [
        {
          id,
          project,
          name: id,
          type: '',
          size: 1,
          fingerprint: id,
          place: 'blob',
          probe: null,
          problem: null,
          created: 0,
        },
      ]);
    }
    expect(needsOf(await read()).map((need) => need.kind)).toEqual(['song', 'take', 'take']);
    const key = partKey('pictures', { media: 'm-left' });
    await store.writeRows('halted', [{ key, project, label: '', reason: 'cancelled' }]);
    expect(needsOf(await read()).map((need) => need.key)).toEqual([
      songPartKey('sound', 'm'),
      partKey('pictures', { media: 'm-plate' }),
    ]);
  });
});
