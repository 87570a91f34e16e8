import 'fake-indexeddb/auto';
import type { SeamTask } from '@/core/footage/seam-task';
import { beforeEach, describe, expect, it } from 'vitest';
import { partKey } from '@/core/footage/take-parts';
import { pictureTimes } from '@/core/footage/picture-times';
import { sayFinding } from '@/core/finding/say';
import { mediaIn } from '@/core/picture/node';
import { change } from './change';
import { applyFix } from './commands/fix';
import { createMoment, setMoment } from './commands/moments';
import { addMoment, addSetup, setPart } from './commands/plan';
import { newRecord, setProject } from './commands/projects';
import { setTake } from './commands/takes';
import type { Store } from './db';
import { findingsOf } from './findings';
import { materialOf, pictureOf, worksOf } from './material';
import { needsOf } from './needs';
import { planOf, sectionEnergies } from './plan';
import { standing, taken, TestFilm } from './__tests__/film';

let film: TestFilm;
let store: Store;
let project: string;
const findings = async () => {
  const snapshot = await film.read();
  return findingsOf(snapshot, planOf(snapshot));
};
const codes = async (station: 'song' | 'match' | 'build' | 'deliver') =>
  (await findings())[station].map(({ code }) => code);
const kinds = async () => needsOf(await film.read()).map((need) => need.kind);

beforeEach(async () => {
  film = await TestFilm.begin();
  ({ store, project } = film);
});

describe('work follows from what is stored', () => {
  it('asks for beats, measures, comparisons and the join, one after the other', async () => {
    const moment = await film.wholeClone();
    expect(await kinds()).toEqual(['song', 'take', 'take', 'take']);
    await film.sung();
    for (const id of ['plate', 'one', 'two']) await film.measured(id);
    expect(await kinds()).toEqual(['compare', 'compare']);
    await film.compared('one');
    await film.compared('two');
    expect(await kinds()).toEqual(['work']);
    const snapshot = await film.read();
    const [{ key }] = worksOf(snapshot, snapshot.built[0]);
    expect(materialOf(snapshot, snapshot.built[0]).waiting).toBe(true);
    const seam = {
      rings: [],
      shares: [0.5, 0.5] as [number, number],
      losses: [],
      borders: [null, null] as [null, null],
      shadows: [null, null] as [null, null],
      visible: [],
      moves: [],
      contact: null,
      crossing: [],
      found: [true, true] as [boolean, boolean],
    };
    await film.keep(key, moment, { method: 'seam-7', seam });
    expect(await kinds()).toEqual([]);
    expect(materialOf(await film.read(), snapshot.built[0])).toMatchObject({
      waiting: false,
      fresh: { solved: { seam: { seam } } },
    });
  });

  it('solves the join anew when what it depends on has changed, and not when a name has', async () => {
    const moment = await film.wholeClone();
    for (const id of ['plate', 'one', 'two']) await film.measured(id);
    await film.compared('one');
    await film.compared('two');
    const key = async () => {
      const snapshot = await film.read();
      return worksOf(snapshot, snapshot.built[0])[0].key;
    };
    const first = await key();
    await setMoment(store, project, moment, 'Name', { name: 'Another name' });
    expect(await key()).toBe(first);
    for (const set of [{ 'slots.left.at': 1 }, { lands: 5 }, { end: 7 }]) {
      const before = await key();
      await setMoment(store, project, moment, 'Change', set);
      expect(await key()).not.toBe(before);
    }
    const before = await key();
    await setTake(store, project, 'one', 'Steady', { steady: true });
    expect(await key()).not.toBe(before);
    const steadied = await key();
    await setProject(store, project, { width: 640, height: 360 });
    expect(await key()).toBe(steadied);
    await setProject(store, project, { width: 360, height: 640 });
    expect(await key()).not.toBe(steadied);
  });

  it('does not begin again by itself what was cancelled, nor what is only planned', async () => {
    await film.addSong();
    await film.sung();
    await film.addTake('one', 'left', 1);
    await store.writeRows('halted', [
      {
        key: partKey('pictures', { media: 'm-one' }),
        project,
        label: 'Measuring',
        reason: 'cancelled',
      },
    ]);
    await addMoment(store, project, 'speed-ramp', 0, 8);
    expect(await kinds()).toEqual([]);
  });

  it('looks for beats again when asked, and renders what was ordered while its moment is there', async () => {
    const moment = await film.wholeClone();
    await film.sung();
    await change(store, project, 'Again', [{ record: 'song-record', set: { again: 7 } }]);
    expect(await kinds()).toContain('again');
    const render = { project, name: 'shot.mov', container: 'mov' as const, blob: null, created: 1 };
    await store.writeRows('renders', [{ ...render, id: 'r1', moment, status: 'waiting' }]);
    await store.writeRows('renders', [{ ...render, id: 'r2', moment, status: 'done' }]);
    await store.writeRows('renders', [{ ...render, id: 'r3', moment: 'gone', status: 'waiting' }]);
    const renders = needsOf(await film.read()).filter((need) => need.kind === 'render');
    expect(renders.map((need) => need.key)).toEqual(['render:r1']);
  });

  it('says what a join is solved from: both takes, corrected, the frames and the taps', async () => {
    const moment = await film.wholeClone();
    const task = async () => {
      const snapshot = await film.read();
      return worksOf(snapshot, snapshot.built[0])[0]?.task() ?? null;
    };
    expect(await task()).toBeNull();
    for (const id of ['plate', 'one', 'two']) await film.measured(id);
    await film.compared('one', { path: standing(3) });
    await film.compared('two');
    await setMoment(store, project, moment, 'Tap', { 'slots.left.taps': [{ time: 1, at: [0.2, 0.5] }] });
    const found = (await task()) as SeamTask | undefined;
    // Eight beats of half a second at 24000/1001: 95.9 frames; the copy appears after a bar.
    expect(found).toMatchObject({
      from: 48,
      until: 96,
      delivery: { width: 1920, height: 1080 },
      outline: null,
    });
    expect(found?.sides[0].taps).toMatchObject([{ at: [0.2, 0.5] }]);
    expect(found?.sides[1].taps).toEqual([]);
    expect(found?.sides[0].corrected).not.toEqual(found?.sides[0].node);
    const built = pictureOf(await film.read(), (await film.read()).built[0]);
    expect(built && mediaIn(built.tree).map(({ id }) => id)).toEqual(
      expect.arrayContaining(['plate', 'left', 'right']),
    );
  });
});

describe('findings of what is stored', () => {
  it('about the song: silent, unsure, without beats', async () => {
    await film.addSong({ confidence: 0.2 });
    expect(await codes('song')).toEqual([]);
    await film.sung();
    expect(await codes('song')).toEqual(['song.unsure']);
    await change(store, project, 'Grid', [{ record: 'song-record', set: { grid: null } }]);
    expect(await codes('song')).toEqual(['song.no-beats']);
    await film.sung({ silent: true });
    expect(await codes('song')).toEqual(['song.silent']);
  });

  it('about a setup without a plate, by its name, while others have one', async () => {
    for (const name of ['By the window', 'At the door']) {
      await addSetup(store, project);
      const setup = (await film.read()).setups.at(-1)?.id ?? '';
      await setPart(store, project, setup, 'Name', { name });
      for (const slot of name === 'At the door' ? ['left'] : ['plate', 'left']) {
        const take = `${slot} ${name}`;
        await film.addTake(take, slot, 1);
        await film.measured(take);
        const log = {
          kind: 'log' as const,
          setup,
          shot: `${setup}/${slot}`,
          number: 1,
          started: 0,
          length: 9,
        };
        const rest = { rating: null, tags: {}, variation: '', notes: '', take, seen: [] };
        await change(store, project, 'Log', [{ create: { ...newRecord(project), ...log, ...rest } }]);
      }
    }
    const snapshot = await film.read();
    const [missing, ...others] = findingsOf(snapshot, planOf(snapshot)).match.filter(
      ({ code }) => code === 'setup.no-plate',
    );
    expect(others).toEqual([]);
    const things = planOf(snapshot).names;
    expect(sayFinding(missing, { takes: {}, grid: null, things }).text).toMatch(
      /^At the door has no clean plate\. Takes cannot be compared/,
    );
  });

  it('about a take that nobody sorted: why, until somebody chooses it for a moment', async () => {
    await film.addTake('plate', 'plate', 0);
    await film.measured('plate');
    await film.addTake('one', null, 1);
    await film.measured('one');
    const both = Uint8Array.from({ length: 48 * 27 }, (_, cell) => (cell % 3 ? 1 : 0));
    await film.compared('one', { covered: both });
    expect(await codes('match')).toEqual(['take.unsorted']);
    await film.addSong();
    const moment = await createMoment(film.store, film.project, 0, 8);
    await setMoment(film.store, film.project, moment, 'Choose', { 'slots.left.take': 'one' });
    expect(await codes('match')).not.toContain('take.unsorted');
    expect(await codes('match')).toContain('take.still');
  });

  it('about a plate that none of several takes fits, instead of about each of them, until one does', async () => {
    await film.addTake('plate', 'plate', 0);
    await film.measured('plate');
    for (const [order, id] of ['one', 'two', 'black'].entries()) {
      await film.addTake(id, null, order + 1);
      const measure = taken();
      await film.measured(
        id,
        id === 'black' ? { ...measure, light: { dark: 1, blown: 0, flicker: 0 } } : measure,
      );
    }
    // What shows nothing says nothing about its plate.
    for (const id of ['one', 'black']) await film.compared(id, { agreement: 0.1 });
    expect(await codes('match')).toEqual(['take.unsorted', 'take.unsorted']);
    await film.compared('two', { agreement: 0.1 });
    expect(await codes('match')).toEqual(['take.plate-alone', 'take.unsorted']);
    await film.compared('two', { agreement: 0.9, covered: new Uint8Array(48 * 27).fill(1) });
    expect(await codes('match')).toEqual(['take.unsorted', 'take.unsorted', 'take.unsorted']);
  });

  it('about takes: no plate, broken off, turned, uneven, moved; and nothing about a good one', async () => {
    await film.addTake('one', 'left', 1);
    await film.measured('one');
    expect(await codes('match')).toEqual(['setup.no-plate']);
    await film.addTake('plate', 'plate', 0);
    await film.measured('plate', taken(), false);
    expect(await codes('match')).toEqual(['take.cut-off']);
    await film.addMedia('m-one', {
      probe: {
        duration: 10,
        video: { codec: 'avc', size: { width: 1280, height: 720 }, turned: 90, rate: 24 },
        audio: null,
      },
    });
    const uneven = Float64Array.from({ length: 240 }, (_, index) => index / 24 + (index > 99 ? 0.05 : 0));
    await film.measured('one', taken({ times: pictureTimes(uneven) }));
    expect(await codes('match')).toEqual(['take.cut-off', 'take.turned', 'take.varying-rate']);
    await film.measured('one');
    await film.compared('one', { path: standing(2) });
    const [moved] = (await findings()).match.filter(({ code }) => code === 'take.moved');
    expect(moved.measured).toEqual({ value: 2, unit: 'px' });
  });

  it('about files that could not be used, until they are taken off the list', async () => {
    await film.addMedia('broken', {
      problem: { code: 'truncated', message: 'The file breaks off. Copy it again.' },
    });
    const [problem] = (await findings()).match;
    expect(problem).toMatchObject({ code: 'truncated', severity: 'stop', facts: { name: 'broken.mp4' } });
    if (problem.fix) await applyFix(store, project, problem.fix);
    expect(await codes('match')).toEqual([]);
  });

  it('about clones only: what is merely planned is nothing to build or deliver', async () => {
    await film.addSong();
    await addMoment(store, project, 'shake', 0, 8);
    expect(await codes('build')).toEqual([]);
    await createMoment(store, project, 8, 16);
    expect(await codes('deliver')).toEqual(['clone.missing', 'clone.missing']);
  });
});

describe('energies of the sections', () => {
  it('follow the levels between the beats at which sections begin', async () => {
    await film.addSong();
    await film.sung();
    expect(sectionEnergies(await film.read())).toEqual([]);
    for (const [at, name] of [
      [0, 'Verse'],
      [60, 'Chorus'],
    ] as const)
      await change(store, project, 'Section', [
        { create: { ...newRecord(project), kind: 'section', at, name, dye: 0 } },
      ]);
    const [verse, chorus] = sectionEnergies(await film.read());
    expect(verse).toMatchObject({ name: 'Verse', from: 0, until: 60 });
    expect(chorus.until).toBeCloseTo(120, 6);
    expect(chorus.song).toBeGreaterThan(verse.song);
  });
});
