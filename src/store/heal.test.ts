import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { setProject } from './commands/projects';
import { undo } from './change';
import type { Command } from './db';
import { heal } from './heal';
import { TestFilm } from './__tests__/film';

/** A step as a file of old could bring it in, with what it made of its record. */
async function spoil(film: TestFilm, id: string, field: string, after: unknown): Promise<void> {
  const record = await film.store.records.get(film.project);
  const command: Command = {
    id,
    project: film.project,
    label: 'Odd',
    ops: [{ record: film.project, kind: 'project', field, before: null, after }],
    elsewhere: true,
  };
  await film.store.commands.put(command);
  await film.store.writeRows('records', [
    { ...record, [field]: after, stamps: { ...record?.stamps, [field]: id } } as never,
  ]);
}
const name = async (film: TestFilm) => (await film.read()).project.name;

describe('a store that a bad file has spoilt', () => {
  it('is left alone where nothing is wrong', async () => {
    const film = await TestFilm.begin();
    const before = await film.store.records.toArray();
    expect(await heal(film.store, film.project)).toBe(0);
    expect(await film.store.records.toArray()).toEqual(before);
  });

  it('loses steps of a time that no clock has, and can be worked in again', async () => {
    const film = await TestFilm.begin();
    await setProject(film.store, film.project, { name: 'Own' });
    await spoil(film, 'zzzzzzzzz:zzzz:odd', 'name', 'From nowhere');
    expect(await heal(film.store, film.project)).toBeGreaterThan(0);
    expect(await name(film)).toBe('Own');
    await setProject(film.store, film.project, { name: 'Mine' });
    expect(await name(film)).toBe('Mine');
    await undo(film.store, film.project);
    expect(await name(film)).toBe('Own');
    expect(await heal(film.store, film.project)).toBe(0);
  });

  it('loses what can stand in no field, and keeps the rest of the project', async () => {
    const film = await TestFilm.begin();
    await film.addTake('one', 'left', 1);
    await spoil(film, '0zzzzzzzz:0000:odd', 'width', 'wide');
    expect(await heal(film.store, film.project)).toBeGreaterThan(0);
    const snapshot = await film.read();
    expect(snapshot.project.width).toBe(1280);
    expect(snapshot.takes.map(({ id }) => id)).toEqual(['one']);
  });

  it('leaves other projects as they are', async () => {
    const film = await TestFilm.begin();
    const other = await TestFilm.begin(film.store);
    await spoil(film, 'zzzzzzzzz:zzzz:odd', 'name', 'From nowhere');
    const before = await film.store.records.where({ project: other.project }).toArray();
    await heal(film.store, film.project);
    expect(await film.store.records.where({ project: other.project }).toArray()).toEqual(before);
  });
});
