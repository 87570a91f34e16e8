import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { partKey, takeParts } from '@/core/footage/take-parts';
import { createMoment, setMoment } from './commands/moments';
import { newRecord, setProject } from './commands/projects';
import { change, redo, undo } from './change';
import { Store } from './db';
import { findingsOf } from './findings';
import { materialOf, pictureOf } from './material';
import { planOf } from './plan';
import { playbackKey, playbackOf, readSnapshot } from './snapshot';
import { TestFilm } from './__tests__/film';

let film: TestFilm;
let moment: string;
let count = 0;
beforeEach(async () => {
  film = await TestFilm.begin();
  moment = await film.wholeClone();
  for (const id of ['plate', 'one', 'two']) await film.measured(id);
  await film.compared('one');
  await film.compared('two');
});
const rename = (name: string) => setMoment(film.store, film.project, moment, 'Name', { name });

describe('where a take lies on the song', () => {
  const confidences = { heard: 0.9, doubted: 0.2 };
  /** By what is known of the take `one`, in which the slate beeped at its second 4 or did not; null where nothing was heard. */
  async function laid(confidence: number | null, beep: number | null, logged: boolean) {
    const [one] = (await film.read()).takes.filter(({ id }) => id === 'one');
    if (confidence !== null) {
      const playback = { offset: 3, drift: 0, confidence };
      await film.keep(playbackKey(one, 'song'), one.media, { method: 'playback', playback, beep });
    }
    const log = {
      ...newRecord(film.project, 'line'),
      ...{ kind: 'log' as const, setup: 'table', shot: 'table/left', number: 1, started: 0, length: 9 },
      ...{ rating: null, tags: {}, variation: '', notes: '', take: 'one', seen: [] },
      passage: { at: 0, from: 8, speed: 2 },
    };
    if (logged) await change(film.store, film.project, 'Log', [{ create: log }]);
    return playbackOf(await film.read(), one);
  }

  it('is told by the beep of its slate where nothing is heard, and it was logged with one', async () => {
    // Beat 8 of 120 a minute lies at second 4. Twice as fast, four counts of two beats each last two seconds, and begin one after the beep.
    const found = await laid(confidences.doubted, 4, true);
    expect(found).toEqual({ offset: 4 - 2 * (4 + 3), drift: 0, confidence: 1, speed: 2, by: 'beep' });
  });

  it('is what is heard otherwise', async () => {
    expect(await laid(confidences.heard, 4, true)).toMatchObject({ offset: 3, confidence: 0.9 });
    expect(await laid(confidences.doubted, null, true)).toMatchObject({ offset: 3, confidence: 0.2 });
  });

  it('is told by the white picture of its slate where no beep is heard, or nothing at all is', async () => {
    const source = { media: 'm-one' };
    await film.keep(partKey('white', source), 'm-one', { method: 'white', small: { time: 5 } });
    const seen = { offset: 4 - 2 * (5 + 3), confidence: 1, by: 'white' };
    expect(await laid(null, null, false)).toBeNull();
    expect(await laid(null, null, true)).toMatchObject(seen);
    expect(await laid(confidences.doubted, null, true)).toMatchObject(seen);
    expect(await laid(confidences.doubted, 4, true)).toMatchObject({ by: 'beep' });
  });

  it('is not told by a picture before its sound was listened to', async () => {
    await film.keep(partKey('white', { media: 'm-one' }), 'm-one', { method: 'white', small: { time: 5 } });
    const { media } = await film.read();
    const probe = { duration: 9, audio: { codec: 'aac', rate: 48_000, channels: 2 } } as never;
    await film.store.writeRows('media', [{ ...media.get('m-one'), probe } as never]);
    expect(await laid(null, null, true)).toBeNull();
    expect(await laid(confidences.doubted, null, true)).toMatchObject({ by: 'white' });
  });

  it('is not told by a beep that nobody logged', async () => {
    expect(await laid(confidences.doubted, 4, false)).toMatchObject({ offset: 3, confidence: 0.2 });
  });
});

describe('snapshots', () => {
  it('hold the same objects for what has not changed, and others for what has', async () => {
    const before = await film.read();
    await rename('Another name');
    const after = await film.read();
    expect(after.moments[0]).not.toBe(before.moments[0]);
    expect(after.moments).not.toBe(before.moments);
    for (const part of ['takes', 'setups', 'logs', 'sections', 'project', 'song', 'measures'] as const)
      expect(after[part], part).toBe(before[part]);
    expect(after.media.get('m-one')).toBe(before.media.get('m-one'));
  });

  it('read what was taken back, and what was changed twice, as it is now', async () => {
    await rename('Once');
    await rename('Twice');
    expect((await film.read()).moments[0].name).toBe('Twice');
    await undo(film.store, film.project);
    expect((await film.read()).moments[0].name).toBe('Once');
    await film.store.removeRows('measures', film.project, [...(await film.read()).measures.keys()]);
    expect((await film.read()).measures.size).toBe(0);
    await film.measured('one');
    expect([...(await film.read()).measures.keys()]).toHaveLength(takeParts.length);
  });

  it('read only what was written since the last time', async () => {
    const { store, project } = film;
    await film.read();
    const tables = [store.records, store.media, store.measures];
    const whole = tables.map((table) => vi.spyOn(table, 'where'));
    const rows = tables.map((table) => vi.spyOn(table as unknown as typeof store.media, 'bulkGet'));
    await store.writeRows('halted', [{ key: 'x', project, label: 'x', reason: 'cancelled' }]);
    await film.read();
    await rename('Another name');
    await film.read();
    await film.measured('two');
    await film.read();
    await film.addMedia('m-three');
    await film.read();
    const [records, media, measures] = rows.map(({ mock }) => mock.calls.flatMap(([keys]) => keys));
    // The command itself looks the record up as well.
    expect(new Set(records)).toEqual(new Set([moment]));
    expect(media).toEqual(['m-three']);
    expect([...measures].sort()).toEqual(takeParts.map((part) => partKey(part, { media: 'm-two' })).sort());
    for (const all of whole) expect(all).not.toHaveBeenCalled();
    await store.removeRows('media', project, ['m-three']);
    expect((await film.read()).media.has('m-three')).toBe(false);
  });

  it('are what is stored, whatever was done in whichever tab, and whatever was given up', async () => {
    const other = new Store(film.store.name);
    const refused = (store: Store) =>
      change(store, film.project, 'Too much', async ({ takes }) => {
        await readSnapshot(store, film.project);
        return takes.map(({ id }) => ({ record: id, set: { order: 'first' } }));
      }).catch(() => null);
    const steps = [
      (store: Store) => setMoment(store, film.project, moment, 'Name', { name: `At ${count++}` }),
      (store: Store) => setProject(store, film.project, { kinds: 9 }),
      (store: Store) => createMoment(store, film.project, 0, 4),
      (store: Store) => undo(store, film.project),
      (store: Store) => redo(store, film.project),
      refused,
    ];
    const step = fc.record({ step: fc.constantFrom(...steps), store: fc.constantFrom(film.store, other) });
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 1, maxLength: 6 }), async (done) => {
        for (const { step: run, store } of done) {
          await run(store);
          await readSnapshot(other, film.project);
        }
        const fresh = new Store(film.store.name);
        const stored = new Map((await fresh.records.toArray()).map((record) => [record.id, record]));
        fresh.close();
        for (const store of [film.store, other])
          expect((await readSnapshot(store, film.project))?.records).toEqual(stored);
      }),
      { numRuns: 12 },
    );
  });

  it('keep two projects apart', async () => {
    const other = await TestFilm.begin(film.store);
    expect((await other.read()).moments).toEqual([]);
    expect((await film.read()).moments).toHaveLength(1);
    expect((await other.read()).project.id).not.toBe((await film.read()).project.id);
  });
});

describe('what follows from a snapshot', () => {
  it('is the same while nothing of it changed, and new once something has', async () => {
    const before = await film.read();
    const [plan, material, tree] = [
      planOf(before),
      materialOf(before, before.built[0]).material,
      pictureOf(before, before.built[0])?.tree,
    ];
    await setProject(film.store, film.project, { kinds: 7 });
    const project = await film.read();
    expect(planOf(project).schedule).not.toBe(plan.schedule);
    const halted = { key: 'x', project: film.project, label: 'x', reason: 'cancelled' as const };
    await film.store.writeRows('halted', [halted]);
    const same = await film.read();
    expect(planOf(same).schedule).toBe(planOf(project).schedule);
    expect(materialOf(same, same.built[0]).material).toBe(materialOf(project, project.built[0]).material);
    expect(material).not.toBe(materialOf(same, same.built[0]).material);
    expect(tree).not.toBe(pictureOf(same, same.built[0])?.tree);
    expect(pictureOf(same, same.built[0])?.tree).toBe(pictureOf(same, same.built[0])?.tree);
  });

  it('is what it would be if it were worked out from nothing', async () => {
    await film.read();
    for (const feather of [3, 40]) {
      await setMoment(film.store, film.project, moment, 'Soft', { 'settings.feather': feather });
      const snapshot = await film.read();
      const anew = structuredClone(snapshot);
      expect(findingsOf(snapshot, planOf(snapshot))).toEqual(findingsOf(anew, planOf(anew)));
      expect(pictureOf(snapshot, snapshot.built[0])?.tree).toEqual(pictureOf(anew, anew.built[0])?.tree);
    }
  });
});
