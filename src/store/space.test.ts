import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { undo } from './change';
import { keepVersion } from './commands/keep';
import { removeTake, restoreTake } from './commands/takes';
import { removeProject } from './commands/projects';
import { TestFilm } from './__tests__/film';
import { bytesOf, bytesOfTake, emptyTake, removedTakes, spaceOfProjects, usesOfTake } from './space';

let film: TestFilm;
const blob = (bytes: number) => new Blob([new Uint8Array(bytes)]);
/** A file's bytes with a small copy of them. */
const fill = async (media: string, original: number, proxy: number) => {
  await film.store.originals.put({ id: media, blob: blob(original) });
  await film.store.proxies.put({ id: media, blob: blob(proxy) });
};

beforeEach(async () => {
  film = await TestFilm.begin();
});

describe('what takes room', () => {
  it('is told for each project by what it is, with what was removed', async () => {
    const other = await TestFilm.begin(film.store);
    await film.addTake('one', 'left', 1);
    await fill('m-one', 3000, 400);
    await film.store.curves.put({ key: 'c', project: film.project, values: new Float32Array(25) });
    await film.store.recordings.put({
      id: 'r',
      project: film.project,
      log: 'l',
      type: 'video/webm',
      name: 'r',
      started: 0,
    });
    await film.store.chunks.put({ recording: 'r', index: 0, blob: blob(70) });
    await removeProject(other.store, other.project);
    const [first, second] = await spaceOfProjects(film.store);
    expect(first).toMatchObject({
      id: film.project,
      alive: true,
      held: { originals: 3000, proxies: 400, stills: 100, recordings: 70, renders: 0 },
    });
    expect(bytesOf(first.held)).toBe(3570);
    expect(second).toMatchObject({ id: other.project, alive: false });
    expect(bytesOf(second.held)).toBe(0);
  });

  it('names what uses a take: moments, their versions, the log', async () => {
    const moment = await film.wholeClone();
    await keepVersion(film.store, film.project, moment);
    const snapshot = await film.read();
    const slots = Object.values(snapshot.moments[0].slots ?? {});
    const used = snapshot.takes.find(({ id }) => id === slots[0]?.take);
    expect(used && usesOfTake(snapshot, used)).toEqual([
      expect.stringContaining(snapshot.moments[0].name),
      'version A of a moment',
    ]);
    // A plate that nobody chose is used as well: by the moment that stands on it, and by what is held against it.
    const plate = snapshot.takes.find(({ slot }) => slot === 'plate');
    expect(plate && usesOfTake(snapshot, plate)).toEqual([
      expect.stringMatching(/\(.*plate\)$/),
      '2 takes are held against it',
    ]);
    await film.addTake('spare', 'left', 9);
    const again = await film.read();
    const spare = again.takes.find(({ id }) => id === 'spare');
    expect(spare && usesOfTake(again, spare)).toEqual([]);
  });
});

describe('a take that is removed', () => {
  it('waits with its room, is brought back as it was, and frees its room once it is emptied', async () => {
    const { store, project } = film;
    await film.addTake('one', 'left', 1);
    await film.addTake('two', 'right', 2);
    await fill('m-one', 3000, 400);
    await fill('m-two', 50, 5);
    await expect(emptyTake(store, project, 'm-one')).rejects.toMatchObject({ code: 'alive' });
    await removeTake(store, project, 'one');
    expect(await removedTakes(store, project)).toMatchObject([{ id: 'one', name: 'one', bytes: 3400 }]);
    await restoreTake(store, project, 'one');
    expect(await removedTakes(store, project)).toEqual([]);
    await removeTake(store, project, 'one');
    await emptyTake(store, project, 'm-one');
    expect(await removedTakes(store, project)).toEqual([]);
    expect(await bytesOfTake(store, 'm-one')).toBe(0);
    expect(await bytesOfTake(store, 'm-two')).toBe(55);
    // Undo still knows it, and it asks for its file.
    await undo(store, project);
    expect((await film.read()).takes.map(({ id }) => id)).toContain('one');
    expect(await store.media.get('m-one')).toBeDefined();
  });

  it('keeps its file as long as anything else is made of it', async () => {
    const { store, project } = film;
    await film.addTake('one', 'left', 1);
    await fill('m-one', 3000, 400);
    await store.records.put({ ...(await store.records.get('one')), id: 'twin' } as never);
    await removeTake(store, project, 'one');
    expect(await removedTakes(store, project)).toEqual([]);
    await expect(emptyTake(store, project, 'm-one')).rejects.toMatchObject({ code: 'alive' });
  });
});
