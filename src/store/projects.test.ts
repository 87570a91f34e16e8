import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { change, redo, undo } from './change';
import { createProject, removeProject, restoreProject, setProject } from './commands/projects';
import { Store } from './db';
import { emptyProject, removedProjects } from './empty';
import { sayStep } from './say-step';
import { TestFilm } from './__tests__/film';

let number = 0;
const opened = async () => {
  const store = new Store(`projects-${number++}`);
  return { store, one: await createProject(store, 'One'), two: await createProject(store, 'Two') };
};
const nameOf = async (store: Store, id: string) => {
  const record = await store.records.get(id);
  return record?.kind === 'project' && record.alive ? record.name : null;
};

describe('undo of a project', () => {
  it('ends where the project begins and never touches another', async () => {
    const steps = fc.array(fc.constantFrom('one', 'two', 'undo one', 'undo two', 'redo one', 'redo two'), {
      maxLength: 14,
    });
    await fc.assert(
      fc.asyncProperty(steps, async (pressed) => {
        const { store, one, two } = await opened();
        for (const [index, press] of pressed.entries()) {
          const id = press.endsWith('one') ? one : two;
          const other = await nameOf(store, id === one ? two : one);
          if (press.startsWith('undo')) await undo(store, id);
          else if (press.startsWith('redo')) await redo(store, id);
          else await setProject(store, id, { name: `${press} ${index}` });
          expect(await nameOf(store, id)).not.toBeNull();
          expect(await nameOf(store, id === one ? two : one)).toBe(other);
        }
        for (let step = 0; step < 20; step++) await undo(store, one);
        expect(await nameOf(store, one)).toBe('One');
        expect(await undo(store, one)).toBeNull();
      }),
      { numRuns: 30 },
    );
  });

  it('says what it put back and what stays, because it was changed again since', async () => {
    const { store, one } = await opened();
    await setProject(store, one, { name: 'Renamed', megabits: 20 });
    await change(store, one, 'By itself', [{ record: one, set: { megabits: 24 } }], true);
    const back = await undo(store, one);
    expect(back).toEqual({ label: 'Rename the project', moved: 1, left: 1 });
    expect(sayStep('undo', back)).toBe(
      'Undone: Rename the project. One thing stays as now: changed again since.',
    );
    await setProject(store, one, { width: 640 });
    await change(store, one, 'By itself', [{ record: one, set: { width: 320 } }], true);
    expect(sayStep('undo', await undo(store, one))).toBe(
      'Nothing was put back: what “What is handed over” changed was changed again since.',
    );
    expect(sayStep('redo', { label: 'Delivery', moved: 2, left: 0 })).toBe('Done again: Delivery');
    expect(sayStep('redo', null)).toBe('There is nothing to redo.');
  });
});

describe('two projects', () => {
  it('never begin with one name; a name that was given up or removed is free again', async () => {
    const { store } = await opened();
    const named = async (name: string) => nameOf(store, await createProject(store, name));
    expect(await named('My film')).toBe('My film');
    expect(await named('My film')).toBe('My film 2');
    const third = await createProject(store, 'My film');
    expect(await nameOf(store, third)).toBe('My film 3');
    await removeProject(store, third);
    expect(await named('My film')).toBe('My film 3');
  });
});

describe('a removed project', () => {
  it('waits whole, comes back as it was, and no undo removes or returns it', async () => {
    const { store, one, two } = await opened();
    await setProject(store, one, { name: 'Renamed' });
    await removeProject(store, one);
    expect(await removedProjects(store)).toMatchObject([{ id: one, name: 'Renamed', takes: 0 }]);
    expect(await undo(store, two)).toBeNull();
    expect(await nameOf(store, one)).toBeNull();
    await restoreProject(store, one);
    expect(await undo(store, one)).toMatchObject({ label: 'Rename the project' });
    expect(await nameOf(store, one)).toBe('One');
    expect(await undo(store, one)).toBeNull();
    expect(await nameOf(store, one)).toBe('One');
  });

  it('that an earlier version lost to undo is listed', async () => {
    const { store, one } = await opened();
    const [begun] = await store.commands.where({ project: one }).toArray();
    await change(store, one, 'New project', [{ remove: one }]);
    const last = (await store.commands.where({ project: one }).sortBy('id'))[1];
    await store.commands.update(last.id, { undoes: begun.id });
    expect(await removedProjects(store)).toMatchObject([{ id: one }]);
    await restoreProject(store, one);
    expect(await undo(store, one)).toBeNull();
    expect(await nameOf(store, one)).toBe('One');
  });

  it('is emptied with all that it held, and with nothing of another', async () => {
    const store = new Store(`projects-${number++}`);
    const films = [await TestFilm.begin(store), await TestFilm.begin(store)];
    for (const [index, film] of films.entries()) {
      const media = `m-take-${index}`;
      await film.addTake(`take-${index}`, 'plate', 1);
      await film.measured(`take-${index}`);
      const blob = new Blob(['bytes']);
      await store.originals.put({ id: media, blob });
      await store.proxies.put({ id: media, blob });
      await store.recordings.put({
        id: `r-${film.project}`,
        project: film.project,
        log: 'l',
        type: 'video/webm',
        name: 'r',
        started: 0,
      });
      await store.chunks.put({ recording: `r-${film.project}`, index: 0, blob });
      await store.curves.put({
        key: `c-${film.project}`,
        project: film.project,
        values: new Float32Array(2),
      });
    }
    const counts = () => Promise.all(store.tables.map((table) => table.count()));
    const [gone, kept] = films.map(({ project }) => project);
    await expect(emptyProject(store, gone)).rejects.toMatchObject({ code: 'alive' });
    await removeProject(store, gone);
    const left = await store.records.where({ project: kept }).toArray();
    const before = await counts();
    await emptyProject(store, gone);
    const after = await counts();
    store.tables.forEach(({ name }, index) => {
      if (before[index] > 0 && name !== 'writes')
        expect(`${name} ${after[index] < before[index]}`).toBe(`${name} true`);
    });
    expect(await store.records.where({ project: gone }).count()).toBe(0);
    expect(await store.records.where({ project: kept }).toArray()).toEqual(left);
    expect(await removedProjects(store)).toEqual([]);
  });
});
