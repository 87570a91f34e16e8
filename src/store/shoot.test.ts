import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Take } from '@/core/model/records';
import type { CloneMoment } from '@/core/recipes/clone/material';
import { regularGrid } from '@/core/time/grid';
import { slotOfShot } from '@/core/recipes/slots';
import { sayFinding } from '@/core/finding/say';
import type { Board, BoardRow } from '@/core/shoot/board';
import { change, undo } from './change';
import { addMoment, addSetup } from './commands/plan';
import { createProject, newRecord } from './commands/projects';
import {
  acceptPairs,
  addPickups,
  linkTake,
  noteLog,
  rateLog,
  removePickup,
  restoreSetup,
  setMove,
  startLog,
  stopLog,
  strikeSetup,
  tagLog,
  varyLog,
} from './commands/shoot';
import { Store } from './db';
import { findingsOf } from './findings';
import { planOf } from './plan';
import { bestTakes, trialOf } from './rough';
import { plateFor } from './plates';
import { readSnapshot, type Snapshot } from './snapshot';

let store: Store;
let project: string;
let number = 0;

const read = async (): Promise<Snapshot> => (await readSnapshot(store, project)) as Snapshot;
const boardNow = async (): Promise<{ snapshot: Snapshot; board: Board }> => {
  const snapshot = await read();
  return { snapshot, board: planOf(snapshot).boards[0] };
};
const rowOf = (board: Board, end: string): BoardRow => {
  const row = board.rows.find(({ id }) => id.endsWith(end));
  if (!row) throw new Error(`There is no shot ${end}.`);
  return row;
};
const film = async (end: string, more = {}, seconds = 12.123) => {
  const { board } = await boardNow();
  const log = await startLog(store, project, board.setup, rowOf(board, end).id, { variation: '', ...more });
  await stopLog(store, log, seconds);
  return log;
};
const addTake = (name: string, slot: Take['slot'], order: number) =>
  change(store, project, 'Take', [
    {
      create: {
        ...newRecord(project, name),
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

beforeEach(async () => {
  store = new Store(`shoot-${number++}`);
  project = await createProject(store, 'Test');
  // 120 beats a minute: a beat is half a second.
  await change(store, project, 'Song', [
    {
      create: {
        ...newRecord(project),
        kind: 'song',
        media: null,
        grid: regularGrid(120, 0, 60),
        confidence: null,
      },
    },
  ]);
  await addSetup(store, project);
  await addMoment(store, project, 'clone', 8, 24);
});

describe('the log', () => {
  it('numbers takes, keeps their length, and lets one run at a time', async () => {
    const first = await film('/left');
    const second = await film('/left');
    expect([first.number, second.number]).toEqual([1, 2]);
    expect((await read()).logs.map(({ length }) => length)).toEqual([12.12, 12.12]);
    const { board } = await boardNow();
    await startLog(store, project, board.setup, rowOf(board, '/right').id, { variation: '' });
    await expect(
      startLog(store, project, board.setup, rowOf(board, '/left').id, { variation: '' }),
    ).rejects.toMatchObject({ code: 'log.running' });
  });

  it('is written with single taps that undo takes back one by one', async () => {
    const log = await film('/left');
    await rateLog(store, log, 'good');
    await tagLog(store, log, 'eye line');
    await varyLog(store, log, 'closer');
    await noteLog(store, log, 'Her sleeve.');
    expect((await read()).logs[0]).toMatchObject({
      rating: 'good',
      tags: { 'eye line': true },
      variation: 'closer',
      notes: 'Her sleeve.',
    });
    for (let step = 0; step < 4; step++) await undo(store, project);
    expect((await read()).logs[0]).toMatchObject({ rating: null, tags: {}, variation: '', notes: '' });
  });

  it('gives a file the name and slot of its shot', async () => {
    const [left, plate] = [await film('/left'), await film('/first plate')];
    await addTake('clip-a', 'none', 1);
    await addTake('clip-b', 'right', 2);
    const { board } = await boardNow();
    await acceptPairs(store, project, board, [
      { file: 'clip-a', log: left.id, offset: 0, off: 0 },
      { file: 'clip-b', log: plate.id, offset: 0, off: 0 },
    ]);
    expect((await read()).takes.map(({ name, slot }) => `${name}: ${slot}`)).toEqual([
      'Left: first role, take 1: left',
      'Clean plate, take 1: plate',
    ]);
    expect((await read()).logs.map(({ take }) => take)).toEqual(['clip-a', 'clip-b']);
    expect(slotOfShot(null)).toBeNull();
  });

  it('names the setup in a take’s name where there are several', async () => {
    await addSetup(store, project);
    const left = await film('/left');
    await addTake('clip', null, 1);
    const { board } = await boardNow();
    await acceptPairs(store, project, board, [{ file: 'clip', log: left.id, offset: 0, off: 0 }]);
    expect((await read()).takes[0].name).toBe('Left: first role, take 1, First setup');
  });
});

describe('the board of a project', () => {
  it('is a finding once filming began, until everything is there, and no longer when it is struck', async () => {
    const shoot = async () => {
      const snapshot = await read();
      return findingsOf(snapshot, planOf(snapshot)).shoot.map(({ code }) => code);
    };
    expect(await shoot()).toEqual([]);
    for (const end of ['/first plate', '/left', '/right']) await rateLog(store, await film(end), 'good');
    expect(await shoot()).toEqual(['shoot.missing']);
    const { board } = await boardNow();
    await strikeSetup(
      store,
      project,
      board.setup,
      board.missing.map(({ id }) => id),
    );
    expect(await shoot()).toEqual(['shoot.given']);
    await restoreSetup(store, project, board.setup);
    await rateLog(store, await film('/last plate', { draft: true }), 'good');
    expect(await shoot()).toEqual(['shoot.draft', 'shoot.ready']);
    await strikeSetup(store, project, board.setup, []);
    expect((await boardNow()).board.struck?.given).toEqual([]);
  });

  it('does not count a take as good without a word that is much shorter than its shot', async () => {
    const { board } = await boardNow();
    const needed = rowOf(board, '/left').shot?.seconds ?? 0;
    const said = async () => {
      const snapshot = await read();
      return findingsOf(snapshot, planOf(snapshot)).shoot.filter(({ code }) => code === 'shoot.short');
    };
    await rateLog(store, await film('/left', {}, needed * 0.9), 'good');
    await rateLog(store, await film('/right', {}, needed * 0.3), 'maybe');
    expect(await said()).toEqual([]);
    await rateLog(store, await film('/left', {}, needed * 0.3), 'good');
    const [finding, ...others] = await said();
    expect(others).toEqual([]);
    const { text } = sayFinding(finding, { takes: {}, grid: null });
    expect(text).toMatch(/^Take 2 of Left: first role counts as good, but runs for .*Film it longer/);
  });

  it('lists pick-ups until they are filmed or taken off', async () => {
    const { board } = await boardNow();
    const pickup = { setup: board.setup, shot: 'x', moment: null, title: 'Left again', why: 'It moved.' };
    await addPickups(store, project, [pickup]);
    const [made] = (await read()).pickups;
    expect((await boardNow()).board.missing.at(-1)).toMatchObject({ title: 'Left again', note: 'It moved.' });
    await rateLog(store, await film(`pickup/${made.id}`), 'good');
    expect((await boardNow()).board.missing.some(({ id }) => id.startsWith('pickup/'))).toBe(false);
    await removePickup(store, project, made.id);
    expect((await boardNow()).board.rows.at(-1)).toMatchObject({ title: 'No longer planned', good: 1 });
  });

  it('keeps one move for a setup', async () => {
    const { board } = await boardNow();
    await setMove(store, project, board.setup, { seconds: 6 });
    await setMove(store, project, board.setup, { from: 'the red tape' });
    expect((await read()).moves).toMatchObject([{ from: 'the red tape', to: 'last mark', seconds: 6 }]);
    await expect(setMove(store, project, board.setup, { seconds: -1 })).rejects.toMatchObject({
      code: 'value',
    });
  });
});

describe('trying a moment on the set', () => {
  const file = async (end: string, take: string, slot: Take['slot'], more = {}) => {
    const log = await film(end, more);
    await rateLog(store, log, 'good');
    await addTake(take, slot, number++);
    const { board } = await boardNow();
    await linkTake(store, project, board, [{ log: log.id, take }]);
  };

  it('takes the best take of each side, from where the song says it is', async () => {
    await addTake('old-plate', 'plate', 0);
    await file('/first plate', 'plate', 'plate');
    await file('/left', 'l1', 'left', { passage: { at: 4, from: 8, speed: 1 } });
    expect(
      await boardNow().then(({ snapshot, board }) => trialOf(snapshot, board, snapshot.built[0])),
    ).toBeNull();
    await file('/right', 'r1', 'right', { passage: { at: 4, from: 8, speed: 2 } });
    const { snapshot, board } = await boardNow();
    const [moment] = snapshot.built;
    expect(bestTakes(snapshot, board, moment.id).map(({ take }) => take.id)).toEqual(['plate', 'l1', 'r1']);
    const trial = trialOf(snapshot, board, { ...moment, start: 8, lands: 16 } as CloneMoment);
    // Beats of half a second: eight of them are four seconds of song, two of a take that is played twice as fast.
    expect(trial?.slots).toEqual({
      plate: { take: 'plate' },
      left: { take: 'l1', at: 4 },
      right: { take: 'r1', at: 6 },
    });
    // Takes of this setup are held against its own plate, not against the first there is.
    const find = (id: string) => snapshot.takes.find((take) => take.id === id) as Take;
    expect(plateFor(snapshot, find('l1'))?.id).toBe('plate');
  });
});

describe('findings of the set in words', () => {
  const names = { takes: {}, grid: null, things: { s: 'Bench' } };
  const say = (
    code: string,
    value: number,
    unit: 'px' | 'stops' | 'share' | 'seconds' | 'count',
    facts = {},
  ) =>
    sayFinding(
      {
        code,
        severity: 'fix',
        where: { setup: 's', from: 5.2 },
        measured: { value, unit },
        allowed: { value: 0.3, unit },
        facts,
      },
      names,
    ).text;

  it('say what, how much, where to, and what to do', () => {
    expect(say('watch.moved', 2.4, 'px', { dx: 2.2, dy: 0.9, scale: 1 })).toBe(
      'The camera moved 2.4 px to the right at 0:05.20 (allowed 0.3 px). The join will show. Put it back until this goes, or film the plate again.',
    );
    expect(say('watch.moved', 3, 'px', { dx: 0.1, dy: 0, scale: 1.004 })).toMatch(
      /changed size.*Hold the focus/,
    );
    expect(say('watch.moved', 3, 'px', { dx: 0, dy: -2, scale: 1 })).toMatch(/moved 3\.0 px up/);
    expect(say('watch.light', -0.34, 'stops')).toMatch(/0\.34 stop \(× 1\.27\) darker than on the plate/);
    expect(say('pass.late', -0.2, 'seconds')).toMatch(/ahead of the first one/);
    expect(say('shoot.draft', 1, 'count')).toMatch(/1 take of Bench is a draft/);
    expect(say('shoot.draft', 2, 'count')).toMatch(/2 takes of Bench are drafts/);
  });

  it('leave nothing open in any sentence', () => {
    const facts = {
      seam: 'Join',
      stops: 0.01,
      pictures: 9,
      name: 'Meets a copy',
      lacks: 'Left',
      frames: 96,
      takes: 2,
      shot: 'Clean plate',
      moments: 2,
      names: 'lower',
      why: 'It moved.',
      of: 4,
      next: 'Left',
    };
    const codes =
      'watch.colour watch.soft watch.view watch.crossing watch.shadow watch.changed watch.nothing watch.good pass.first pass.short pass.other pass.uneven pass.drift pass.fits strike.moment strike.maybe strike.plate strike.drift strike.late-plate strike.sound strike.pass strike.variation strike.pickup shoot.missing shoot.ready shoot.given';
    for (const code of codes.split(' '))
      expect(say(code, 0.5, 'share', facts)).not.toMatch(/undefined|NaN|null|: undefined/);
  });
});
