import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { inPlace } from '@/core/footage/placement';
import type { Comparison, SongMeasure, TakeMeasure } from '@/core/model/measures';
import type { Take } from '@/core/model/records';
import { regularGrid } from '@/core/time/grid';
import { change, undo } from './change';
import { applyFix } from './commands/fix';
import { createClone, setMoment } from './commands/moments';
import { addMoment } from './commands/plan';
import { createProject, newRecord } from './commands/projects';
import { setTake } from './commands/takes';
import { Store, type Measure, type Media } from './db';
import { findingsOf } from './findings';
import { layersOf, needsOf, seamTask } from './needs';
import { planOf, sectionEnergies } from './plan';
import { compareKey, materialOf, readSnapshot, seamKey, songKey, takeKey, type Snapshot } from './snapshot';

let store: Store;
let project: string;
let number = 0;
const read = async (): Promise<Snapshot> => (await readSnapshot(store, project)) as Snapshot;
const findings = async () => {
  const snapshot = await read();
  return findingsOf(snapshot, planOf(snapshot));
};
const codes = async (station: 'song' | 'match' | 'build' | 'deliver') =>
  (await findings())[station].map(({ code }) => code);
const kinds = async () => needsOf(await read()).map((need) => need.kind);

const addMedia = (id: string, more: Partial<Media> = {}) =>
  store.media.add({
    id,
    project,
    name: `${id}.mp4`,
    type: 'video/mp4',
    size: 10,
    fingerprint: id,
    place: 'blob',
    probe: null,
    problem: null,
    created: 1,
    ...more,
  });
async function addTake(id: string, role: Take['role'], order: number): Promise<void> {
  await addMedia(`m-${id}`);
  const take: Take = {
    ...newRecord(project, id),
    kind: 'take',
    media: `m-${id}`,
    name: id,
    role,
    order,
    steady: false,
    match: false,
  };
  await change(store, project, 'Take', [{ create: take }]);
}
const keep = (key: string, subject: string, value: Measure['value']) =>
  store.measures.put({ key, project, subject, value });

const size = { width: 1280, height: 720 };
/** A take of ten seconds at 24 pictures a second. */
const taken = (more: Partial<TakeMeasure> = {}): TakeMeasure => ({
  size,
  analysis: { width: 640, height: 360 },
  times: Float64Array.from({ length: 240 }, (_, index) => index / 24),
  track: [],
  motion: { share: 0.1, middle: 0.5 },
  ...more,
});
const measured = (id: string, take = taken(), complete = true) =>
  keep(takeKey(`m-${id}`), id, { method: 'take-1', take, poster: new Blob(), complete });
const compared = (id: string, more: Partial<Comparison> = {}) =>
  keep(compareKey(`m-${id}`, 'm-plate'), id, {
    method: 'compare-1',
    comparison: {
      placements: Array.from({ length: 240 }, () => inPlace),
      colour: null,
      agreement: 1,
      covered: new Uint8Array(4),
      ...more,
    },
  });
const sung = (more: Partial<SongMeasure> = {}): Measure['value'] => ({
  method: 'song-2',
  song: {
    duration: 60,
    peaks: new Float32Array(0),
    perSecond: 100,
    silent: false,
    levels: Float32Array.from({ length: 600 }, (_, index) => (index < 300 ? 0.1 : 0.8)),
    sections: [],
    ...more,
  },
  beats: { beats: [], downbeats: [], bpm: 120, confidence: 0.9, hits: [], beatsPerBar: 4 } as never,
});
async function addSong(more: object = {}): Promise<void> {
  await addMedia('song', { type: 'audio/wav', name: 'song.wav' });
  await change(store, project, 'Song', [
    {
      create: {
        ...newRecord(project, 'song-record'),
        kind: 'song',
        media: 'song',
        grid: regularGrid(120, 0, 60),
        confidence: 0.9,
        ...more,
      },
    },
  ]);
}
async function wholeClone(): Promise<string> {
  await addSong();
  await addTake('plate', 'plate', 1);
  await addTake('one', 'left', 2);
  await addTake('two', 'right', 3);
  return createClone(store, await read(), 0, 8);
}

beforeEach(async () => {
  store = new Store(`work-${number++}`);
  project = await createProject(store, 'Test');
});

describe('work follows from what is stored', () => {
  it('asks for beats, measures, comparisons and the join, one after the other', async () => {
    const moment = await wholeClone();
    expect(await kinds()).toEqual(['song', 'take', 'take', 'take']);
    await keep(songKey('song'), 'song-record', sung());
    for (const id of ['plate', 'one', 'two']) await measured(id);
    expect(await kinds()).toEqual(['compare', 'compare']);
    await compared('one');
    await compared('two');
    expect(await kinds()).toEqual(['seam']);
    const snapshot = await read();
    const key = seamKey(snapshot, snapshot.clones[0]) as string;
    await keep(key, moment, {
      method: 'seam-1',
      seam: { outline: [], visible: [], crossing: [], found: { left: true, right: true } },
    });
    expect(await kinds()).toEqual([]);
    expect(materialOf(await read(), snapshot.clones[0]).fresh).toBe(true);
  });

  it('solves the join anew when what it depends on has changed, and not when a name has', async () => {
    const moment = await wholeClone();
    for (const id of ['plate', 'one', 'two']) await measured(id);
    await compared('one');
    await compared('two');
    const key = async () => {
      const snapshot = await read();
      return seamKey(snapshot, snapshot.clones[0]);
    };
    const first = await key();
    await setMoment(store, project, moment, 'Name', { name: 'Another name' });
    expect(await key()).toBe(first);
    for (const set of [{ 'settings.leftIn': 1 }, { lands: 5 }, { end: 7 }]) {
      const before = await key();
      await setMoment(store, project, moment, 'Change', set);
      expect(await key()).not.toBe(before);
    }
    const before = await key();
    await setTake(store, project, 'one', 'Steady', { steady: true });
    expect(await key()).not.toBe(before);
  });

  it('does not begin again by itself what was cancelled, nor what is only planned', async () => {
    await addSong();
    await keep(songKey('song'), 'song-record', sung());
    await addTake('one', 'left', 1);
    await store.halted.add({ key: takeKey('m-one'), project, label: 'Measuring', reason: 'cancelled' });
    await addMoment(store, await read(), 'speed-ramp', 0, 8);
    expect(await kinds()).toEqual([]);
  });

  it('looks for beats again when asked, and renders what was ordered while its moment is there', async () => {
    const moment = await wholeClone();
    await keep(songKey('song'), 'song-record', sung());
    await change(store, project, 'Again', [{ record: 'song-record', set: { again: 7 } }]);
    expect(await kinds()).toContain('again');
    const render = { project, name: 'shot.mov', container: 'mov' as const, blob: null, created: 1 };
    await store.renders.add({ ...render, id: 'r1', moment, status: 'waiting' });
    await store.renders.add({ ...render, id: 'r2', moment, status: 'done' });
    await store.renders.add({ ...render, id: 'r3', moment: 'gone', status: 'waiting' });
    const renders = needsOf(await read()).filter((need) => need.kind === 'render');
    expect(renders.map((need) => need.key)).toEqual(['render:r1']);
  });

  it('says what a join is solved from: both takes, corrected, the frames and the taps', async () => {
    const moment = await wholeClone();
    const task = async () => {
      const snapshot = await read();
      return seamTask(snapshot, snapshot.clones[0]);
    };
    expect(await task()).toBeNull();
    for (const id of ['plate', 'one', 'two']) await measured(id);
    await compared('one', { placements: Array.from({ length: 240 }, () => ({ ...inPlace, dx: 3 })) });
    await compared('two');
    await setMoment(store, project, moment, 'Tap', { 'settings.leftTap': { time: 1, at: [0.2, 0.5] } });
    const found = await task();
    // Eight beats of half a second at 24000/1001: 95.9 frames; the copy appears after a bar.
    expect(found).toMatchObject({ from: 48, until: 96, delivery: size, outline: null });
    expect(found?.left.tap).toMatchObject({ at: [0.2, 0.5] });
    expect(found?.right.tap).toBeNull();
    expect(found?.left.corrected).not.toEqual(found?.left.layer);
    const built = layersOf(await read(), (await read()).clones[0]);
    expect(built?.layers.map(({ id }) => id)).toEqual(expect.arrayContaining(['plate', 'left', 'right']));
  });
});

describe('findings of what is stored', () => {
  it('about the song: silent, unsure, without beats', async () => {
    await addSong({ confidence: 0.2 });
    expect(await codes('song')).toEqual([]);
    await keep(songKey('song'), 'song-record', sung());
    expect(await codes('song')).toEqual(['song.unsure']);
    await change(store, project, 'Grid', [{ record: 'song-record', set: { grid: null } }]);
    expect(await codes('song')).toEqual(['song.no-beats']);
    await keep(songKey('song'), 'song-record', sung({ silent: true }));
    expect(await codes('song')).toEqual(['song.silent']);
  });

  it('about takes: no plate, broken off, turned, uneven, moved; and nothing about a good one', async () => {
    await addTake('one', 'left', 1);
    await measured('one');
    expect(await codes('match')).toEqual(['setup.no-plate']);
    await addTake('plate', 'plate', 0);
    await measured('plate', taken(), false);
    expect(await codes('match')).toEqual(['take.cut-off']);
    await store.media.update('m-one', {
      probe: { duration: 10, video: { codec: 'avc', size, turned: 90, rate: 24 }, audio: null },
    });
    const uneven = Float64Array.from({ length: 240 }, (_, index) => index / 24 + (index > 99 ? 0.05 : 0));
    await measured('one', taken({ times: uneven }));
    expect(await codes('match')).toEqual(['take.cut-off', 'take.turned', 'take.varying-rate']);
    await measured('one');
    await compared('one', { placements: Array.from({ length: 240 }, () => ({ ...inPlace, dx: 2 })) });
    const [moved] = (await findings()).match.filter(({ code }) => code === 'take.moved');
    expect(moved.measured).toEqual({ value: 2, unit: 'px' });
  });

  it('about files that could not be used, until they are taken off the list', async () => {
    await addMedia('broken', {
      problem: { code: 'truncated', message: 'The file breaks off. Copy it again.' },
    });
    const [problem] = (await findings()).match;
    expect(problem).toMatchObject({ code: 'truncated', severity: 'stop', facts: { name: 'broken.mp4' } });
    if (problem.fix) await applyFix(store, await read(), problem.fix);
    expect(await codes('match')).toEqual([]);
  });

  it('about clones only: what is merely planned is nothing to build or deliver', async () => {
    await addSong();
    await addMoment(store, await read(), 'shake', 0, 8);
    expect(await codes('build')).toEqual([]);
    await createClone(store, await read(), 8, 16);
    expect(await codes('deliver')).toEqual(['clone.missing', 'clone.missing']);
  });

  it('offer fixes that do what they say, and undo takes each back', async () => {
    const moment = await wholeClone();
    const take = async () => (await read()).takes.find(({ id }) => id === 'one');
    const fix = async (command: string, args: unknown) => applyFix(store, await read(), { command, args });
    for (const [command, back, field] of [
      ['steadyTake', 'unsteadyTake', 'steady'],
      ['matchTake', 'unmatchTake', 'match'],
    ] as const) {
      await fix(command, { take: 'one' });
      expect((await take())?.[field]).toBe(true);
      await fix(back, { take: 'one' });
      expect((await take())?.[field]).toBe(false);
      await undo(store, project);
      expect((await take())?.[field]).toBe(true);
    }
    await setMoment(store, project, moment, 'In', { 'settings.leftIn': 3 });
    await fix('startEarlier', { moment, role: 'left', frames: 24 });
    expect((await read()).clones[0].settings.leftIn).toBeCloseTo(3 - 1.001, 9);
    await fix('askedStory', { moment });
    expect(planOf(await read()).findings.some(({ code }) => code === 'style.story')).toBe(false);
  });
});

describe('energies of the sections', () => {
  it('follow the levels between the beats at which sections begin', async () => {
    await addSong();
    await keep(songKey('song'), 'song-record', sung());
    expect(sectionEnergies(await read())).toEqual([]);
    for (const [at, name] of [
      [0, 'Verse'],
      [60, 'Chorus'],
    ] as const)
      await change(store, project, 'Section', [
        { create: { ...newRecord(project), kind: 'section', at, name, dye: 0 } },
      ]);
    const [verse, chorus] = sectionEnergies(await read());
    expect(verse).toMatchObject({ name: 'Verse', from: 0, until: 60 });
    expect(chorus.until).toBeCloseTo(120, 6);
    expect(chorus.song).toBeGreaterThan(verse.song);
  });
});
