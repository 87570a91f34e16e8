import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { hiddenIn } from '@/core/model/hidden';
import { mediaIn } from '@/core/picture/node';
import { change, undo } from './change';
import { hideSomebody, setHidden, showAgain, tapHidden } from './commands/veils';
import { findingsOf } from './findings';
import { pictureOf, worksOf } from './material';
import { planOf } from './plan';
import { TestFilm } from './__tests__/film';

let film: TestFilm;
const tap = (time: number, x = 0.3) => ({ time, at: [x, 0.4] as [number, number] });
const hidden = async (id = 'one') => {
  const take = (await film.read()).takes.find((one) => one.id === id);
  return take ? hiddenIn(take) : [];
};
const veiled = async () => {
  const snapshot = await film.read();
  const tree = pictureOf(snapshot, snapshot.built[0])?.tree;
  return (tree ? mediaIn(tree) : []).flatMap(({ id, content }) => (content.veils ? [id] : []));
};

beforeEach(async () => {
  film = await TestFilm.begin();
  await film.wholeClone();
  await film.sung();
  for (const id of ['plate', 'one', 'two']) await film.measured(id);
});

describe('hiding somebody in a take', () => {
  const hide = (take: string, time: number) => hideSomebody(film.store, film.project, take, tap(time), 0.05);

  it('asks each moment that shows it to follow them, and hides them in no other take', async () => {
    await hide('one', 1);
    await hide('one', 1.2);
    const snapshot = await film.read();
    const asked = worksOf(snapshot, snapshot.built[0]).filter(({ name }) => name.startsWith('veil-'));
    expect(asked).toHaveLength(2);
    expect(new Set(asked.map(({ key }) => key.split(':')[0]))).toEqual(new Set(['veil-1']));
    expect(await veiled()).toEqual(['left']);
    await hide('plate', 1);
    expect((await veiled()).sort()).toEqual(['left', 'plate']);
  });

  it('takes further taps, one for each picture, and is undone step by step', async () => {
    await hide('one', 1);
    const [{ id }] = await hidden();
    await tapHidden(film.store, film.project, 'one', id, tap(2), 1 / 24);
    await tapHidden(film.store, film.project, 'one', id, tap(2.01, 0.6), 1 / 24);
    await setHidden(film.store, film.project, 'one', id, { covers: 'body', reach: 0.1 });
    expect(await hidden()).toEqual([
      { id, hidden: { taps: [tap(1), tap(2.01, 0.6)], reach: 0.1, covers: 'body' } },
    ]);
    for (let step = 0; step < 3; step++) await undo(film.store, film.project);
    expect(await hidden()).toEqual([{ id, hidden: { taps: [tap(1)], reach: 0.05, covers: 'face' } }]);
    await undo(film.store, film.project);
    expect(await hidden()).toEqual([]);
    expect(await veiled()).toEqual([]);
  });

  it('shows somebody again, whatever another device still says of them', async () => {
    await hide('one', 1);
    const [{ id }] = await hidden();
    await showAgain(film.store, film.project, 'one', id);
    expect(await hidden()).toEqual([]);
    await change(film.store, film.project, 'From elsewhere', [
      { record: 'one', set: { [`veils.${id}.reach`]: 0.2, 'veils.unknown.covers': 'body' } },
    ]);
    expect(await hidden()).toEqual([]);
    await expect(tapHidden(film.store, film.project, 'one', id, tap(2), 1 / 24)).rejects.toMatchObject({
      code: 'gone',
    });
    await undo(film.store, film.project);
    await undo(film.store, film.project);
    expect(await hidden()).toMatchObject([{ id, hidden: { reach: 0.05 } }]);
  });

  it('refuses a head that is no head, and leaves everything as it was', async () => {
    await hide('one', 1);
    const [{ id }] = await hidden();
    await expect(setHidden(film.store, film.project, 'one', id, { reach: 3 })).rejects.toMatchObject({
      code: 'value',
    });
    expect(await hidden()).toMatchObject([{ hidden: { reach: 0.05 } }]);
  });

  it('says nothing of who is followed until that is known, and then what was found', async () => {
    await hide('one', 1);
    const veils = async (station: 'build' | 'deliver' = 'build') => {
      const snapshot = await film.read();
      return findingsOf(snapshot, planOf(snapshot))[station].flatMap(({ code, severity }) =>
        code.startsWith('veil.') ? [`${code} ${severity}`] : [],
      );
    };
    expect(await veils()).toEqual([]);
    const snapshot = await film.read();
    const [{ key }] = worksOf(snapshot, snapshot.built[0]).filter(({ name }) => name.startsWith('veil-'));
    const places = [0, 1, 2].map((time) => ({ ...tap(time), reach: 0.05 }));
    const veil = { places, lost: [], looks: 4, met: 4, beside: [], again: [] };
    await film.keep(key, snapshot.built[0].id, { method: 'veil-1', veil });
    expect(await veils()).toEqual(['veil.hidden fine']);
    expect(await veils('deliver')).toEqual([]);
    // What may show them after all is said once more where the film leaves the house.
    await film.keep(key, snapshot.built[0].id, { method: 'veil-1', veil: { ...veil, lost: [1.5] } });
    expect(await veils('deliver')).toEqual(['veil.lost fix']);
    // Another tap asks anew: what was found before is of something else.
    const [{ id }] = await hidden();
    await tapHidden(film.store, film.project, 'one', id, tap(2), 1 / 24);
    expect(await veils()).toEqual([]);
  });
});
