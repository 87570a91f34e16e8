import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Body } from '@/core/people/bodies';
import { atMarkOf, meetingOf } from './bodies';
import { addMark, addSetup } from './commands/plan';
import { weighPairs } from './commands/projects';
import { needsOf } from './needs';
import { placeMark } from '@/core/plan/setup/numbers';
import { bodiesKey } from './snapshot';
import { TestFilm } from './__tests__/film';

let film: TestFilm;
const wanted = async () =>
  needsOf(await film.read()).flatMap((need) => (need.kind === 'bodies' ? [need.take.id] : []));
const seen = (id: string, ...bodies: Body[]) =>
  film.keep(bodiesKey({ media: `m-${id}` }), `m-${id}`, {
    method: 'bodies',
    bodies: { ratio: 16 / 9, looks: [{ time: 0.5, bodies }] },
  });
const takeOf = async (id: string) => {
  const snapshot = await film.read();
  return { snapshot, take: snapshot.takes.find((one) => one.id === id) ?? expect.fail(id) };
};

beforeEach(async () => {
  film = await TestFilm.begin();
  await film.wholeClone();
  await film.addTake('three', 'right', 4);
  await film.addTake('out', 'none', 5);
  await film.addTake('open', null, 6);
});

describe('who stands in takes', () => {
  it('is looked for once eyes count, in measured takes of paired slots alone, and not twice', async () => {
    for (const id of ['plate', 'one', 'two', 'out', 'open']) await film.measured(id);
    expect(await wanted()).toEqual([]);
    await weighPairs(film.store, film.project, 'eyes', 1);
    expect(await wanted()).toEqual(['one', 'two']);
    await seen('one');
    expect(await wanted()).toEqual(['two']);
    await film.store.writeRows('halted', [
      { key: bodiesKey({ media: 'm-two' }), project: film.project, label: 'Two', reason: 'cancelled' },
    ]);
    expect(await wanted()).toEqual([]);
    await weighPairs(film.store, film.project, 'eyes', 0);
    await film.measured('three');
    expect(await wanted()).toEqual([]);
  });

  it('is held against the other of a pair once both were looked for', async () => {
    const body = { across: 0.3, eyes: 0.4, stature: 0.6 };
    await seen('one', body);
    const { snapshot, take } = await takeOf('one');
    expect(meetingOf(snapshot, take, (await takeOf('two')).take)).toEqual([]);
    await seen('two', { ...body, eyes: 0.45 });
    await seen('three');
    const now = (await takeOf('one')).snapshot;
    const toldOf = async (id: string) =>
      meetingOf(now, take, (await takeOf(id)).take).map(({ code, where }) => [code, where.take]);
    expect(await toldOf('two')).toEqual([['people.apart', 'one']]);
    expect(await toldOf('three')).toEqual([['people.unseen', 'three']]);
  });

  it('is held against marks where it is known which setup was filmed: never against another one’s', async () => {
    const first = await addSetup(film.store, film.project);
    await addMark(film.store, film.project, { setup: first, name: 'crate', x: 0.2, y: 3, stature: 1.8 });
    const { snapshot } = await takeOf('one');
    const mark = snapshot.marks.find(({ name }) => name === 'crate') ?? expect.fail('no mark');
    const { eyes, feet, top } = placeMark(snapshot.setups[0], mark);
    if (!eyes || !feet || !top) expect.fail('behind the camera');
    await seen('one', { across: eyes.x, eyes: eyes.y, stature: feet.y - top.y });
    const said = async () => {
      const now = await takeOf('one');
      return atMarkOf(now.snapshot, now.take).map(({ code, facts }) => `${code} ${facts?.mark}`);
    };
    expect(await said()).toEqual(['people.on-mark crate']);
    await addSetup(film.store, film.project);
    expect(await said()).toEqual([]);
  });
});
