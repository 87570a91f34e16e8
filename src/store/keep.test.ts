import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { undo } from './change';
import { applyStyle, dropKept, keepVersion, saveStyle, stylesOf, takeVersion } from './commands/keep';
import { createMoment, moveMoment, setMoment } from './commands/moments';
import { setProject } from './commands/projects';
import { doubleTempo } from './commands/song';
import { TestFilm } from './__tests__/film';
import { worksOf } from './material';
import { versionsOf } from './versions';

let film: TestFilm;
let moment: string;
const set = (fields: Record<string, unknown>, id = moment) =>
  setMoment(film.store, film.project, id, 'Set', fields);
const now = async (id = moment) => (await film.read()).moments.find((one) => one.id === id);
const key = { from: 'lands', by: 1, unit: 'beats', value: 120, ease: 'hold' };

beforeEach(async () => {
  film = await TestFilm.begin();
  moment = await film.wholeClone();
});

describe('versions of a moment', () => {
  it('are kept under letters, bring everything back, and are undone as one step', async () => {
    await set({ 'settings.feather': 30, 'slots.left.at': 1, 'keys.whole.size': [key] });
    const first = await now();
    await keepVersion(film.store, film.project, moment);
    await set({ 'settings.feather': 4, 'keys.whole.size': [], 'slots.left.take': 'two' });
    await keepVersion(film.store, film.project, moment);
    const second = await now();
    const { versions } = await film.read();
    expect(versions.map(({ name }) => name)).toEqual(['A', 'B']);
    await takeVersion(film.store, film.project, versions[0].id);
    expect(await now()).toMatchObject({ settings: first?.settings, slots: first?.slots, keys: first?.keys });
    await undo(film.store, film.project);
    expect(await now()).toMatchObject({
      settings: second?.settings,
      slots: second?.slots,
      keys: second?.keys,
    });
    await dropKept(film.store, film.project, versions[0].id, 'Remove');
    expect((await film.read()).versions.map(({ name }) => name)).toEqual(['B']);
    await expect(takeVersion(film.store, film.project, versions[0].id)).rejects.toMatchObject({
      code: 'gone',
    });
  });

  it('land where the moment lands meanwhile, and keep their seconds when beats are counted anew', async () => {
    await set({ start: 2, lands: 4, end: 7 });
    await keepVersion(film.store, film.project, moment);
    const [{ id }] = (await film.read()).versions;
    await moveMoment(film.store, film.project, moment, 'body', 10);
    await set({ start: 13, end: 15 });
    await takeVersion(film.store, film.project, id);
    expect(await now()).toMatchObject({ start: 12, lands: 14, end: 17 });
    await doubleTempo(film.store, film.project);
    await takeVersion(film.store, film.project, id);
    expect(await now()).toMatchObject({ start: 24, lands: 28, end: 34 });
  });

  it('have joins of their own to be found, beside the moment’s', async () => {
    for (const id of ['plate', 'one', 'two']) await film.measured(id);
    for (const id of ['one', 'two']) await film.compared(id);
    await keepVersion(film.store, film.project, moment);
    await set({ 'slots.left.at': 2 });
    const snapshot = await film.read();
    const [{ as }] = versionsOf(snapshot, snapshot.moments[0]);
    const keys = [snapshot.moments[0], as]
      .flatMap((one) => worksOf(snapshot, one))
      .map(({ key: name }) => name);
    expect(new Set(keys).size).toBe(2);
  });
});

describe('styles', () => {
  it('build a moment of another film, in its rate and shape, and leave its takes alone', async () => {
    await setProject(film.store, film.project, { width: 1920, height: 1080, rate: { num: 24, den: 1 } });
    await set({ 'settings.feather': 30, 'handheld.strength': 1.5 });
    await saveStyle(film.store, film.project, moment);
    await saveStyle(film.store, film.project, moment);
    const other = await TestFilm.begin(film.store);
    await other.addSong();
    await setProject(other.store, other.project, { width: 1280, height: 720, rate: { num: 30, den: 1 } });
    const theirs = await createMoment(other.store, other.project, 20, 24, { left: 'mine' });
    const styles = await stylesOf(other.store, 'clone');
    expect(styles.map(({ name }) => name).sort()).toEqual(['Meets a copy', 'Meets a copy 2']);
    await applyStyle(other.store, other.project, theirs, styles[0]);
    const built = (await other.read()).moments[0];
    expect(built.settings).toMatchObject({ feather: 20 });
    expect([built.handheld, built.slots?.left.take, built.lands]).toEqual([{ strength: 1.5 }, 'mine', 22]);
    expect(await stylesOf(other.store, 'built-whip')).toEqual([]);
    await expect(
      applyStyle(other.store, other.project, theirs, { ...styles[0], recipe: 'built-whip' }),
    ).rejects.toMatchObject({ code: 'kind' });
  });
});
