import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { regularGrid } from '@/core/time/grid';
import { change, undo } from './change';
import { newRecord, removeProject, setProject } from './commands/projects';
import { createMoment } from './commands/moments';
import { copyProject } from './copy-project';
import { emptyProject } from './empty';
import { readSnapshot, type Snapshot } from './snapshot';
import { TestFilm } from './__tests__/film';

const read = async (film: TestFilm, project: string) => (await readSnapshot(film.store, project)) as Snapshot;

async function filmed() {
  const film = await TestFilm.begin();
  const song = crypto.randomUUID();
  await film.addMedia(song);
  await film.store.originals.put({ id: song, blob: new Blob(['song']) });
  await film.store.measures.put({
    key: `sound-1:${song}`,
    project: film.project,
    subject: song,
    value: { method: 'sound', sound: { duration: 60 } as never },
  });
  await film.store.curves.put({ key: `sound-1:${song}`, project: film.project, values: new Float32Array(3) });
  const grid = regularGrid(120, 0, 60);
  await change(film.store, film.project, 'Song', [
    { create: { ...newRecord(film.project), kind: 'song', media: song, grid, confidence: 0.9 } },
  ]);
  await createMoment(film.store, film.project, 8, 16);
  return { film, song };
}

describe('a copied project', () => {
  it('has everything under ids of its own, and a name of its own', async () => {
    const { film, song } = await filmed();
    const copy = await copyProject(film.store, film.project);
    const [one, two] = [await film.read(), await read(film, copy)];
    expect(two.project.name).toBe('Test 2');
    expect(two.moments).toHaveLength(one.moments.length);
    expect(two.moments[0].id).not.toBe(one.moments[0].id);
    expect(two.moments[0].name).toBe(one.moments[0].name);
    const [file] = two.media.values();
    expect(file.id).not.toBe(song);
    expect(await (await film.store.originals.get(file.id))?.blob.text()).toBe('song');
    expect(two.measures.has(`sound-1:${file.id}`)).toBe(true);
    expect((await film.store.curves.get(`sound-1:${file.id}`))?.values).toHaveLength(3);
    // Nothing in it names anything of the other.
    const theirs = [film.project, song, ...one.moments.map(({ id }) => id)];
    const rows = await film.store.records.where({ project: copy }).toArray();
    for (const id of theirs) expect(JSON.stringify(rows)).not.toContain(id);
  });

  it('is a project of its own: neither changes with the other, and undo ends where it begins', async () => {
    const { film } = await filmed();
    const copy = await copyProject(film.store, film.project);
    await setProject(film.store, copy, { name: 'The other cut' });
    expect((await film.read()).project.name).toBe('Test');
    await undo(film.store, copy);
    expect(await undo(film.store, copy)).toBeNull();
    expect((await read(film, copy)).moments).toHaveLength(1);
    await removeProject(film.store, film.project);
    await emptyProject(film.store, film.project);
    const left = await read(film, copy);
    expect(left.moments).toHaveLength(1);
    expect(await film.store.originals.get([...left.media.keys()][0])).toBeDefined();
  });

  it('leaves out what was removed, and refuses a project that is gone', async () => {
    const { film } = await filmed();
    const [moment] = (await film.read()).moments;
    await film.store.records.update(moment.id, { alive: false });
    const copy = await copyProject(film.store, film.project);
    expect(await film.store.records.where({ project: copy, kind: 'moment' }).count()).toBe(0);
    await removeProject(film.store, film.project);
    await expect(copyProject(film.store, film.project)).rejects.toMatchObject({ code: 'gone' });
  });
});
