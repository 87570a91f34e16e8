import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { songPartKey, songParts } from '@/core/song/parts';
import { beatLabel, regularGrid, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { change, undo } from './change';
import { copyMoment, createMoment } from './commands/moments';
import { createProject, newRecord } from './commands/projects';
import {
  addSection,
  beatAtNeedle,
  doubleTempo,
  findRestAgain,
  layCues,
  layEvents,
  layFirstBeats,
  layReadBeats,
  laySeconds,
  lockPassage,
  lockedPassages,
  putOtherBeats,
  removeSection,
  setMeterAt,
  setSection,
  setTempoAt,
  shiftBeats,
  snapMoments,
  tapBeats,
  unlockAll,
} from './commands/song';
import { Store } from './db';
import { needsOf } from './needs';
import { readSnapshot, type Snapshot } from './snapshot';

let store: Store;
let project: string;
let number = 0;

const read = async (): Promise<Snapshot> => (await readSnapshot(store, project)) as Snapshot;
const gridOf = async (): Promise<BeatGrid> => (await read()).song?.grid as BeatGrid;
const addSong = (grid: BeatGrid | null) =>
  change(store, project, 'Song', [
    { create: { ...newRecord(project), kind: 'song', media: 'm', grid, confidence: 0.9 } },
  ]);
const track = (grid: BeatGrid) => ({
  beats: grid.beats,
  downbeats: grid.beats.filter((_, index) => (index - grid.firstDownbeat) % grid.beatsPerBar === 0),
  beatsPerBar: grid.beatsPerBar,
  bpm: 120,
  confidence: 1,
  hits: [],
});

beforeEach(async () => {
  store = new Store(`song-${number++}`);
  project = await createProject(store, 'Test');
  await addSong(regularGrid(120, 0.5, 60));
});

describe('another reading of the beats', () => {
  const heard = async (other?: ReturnType<typeof track>) => {
    const value = {
      method: 'beats' as const,
      beats: { ...track(regularGrid(120, 0.5, 60)), ...(other && { other }) },
    };
    const form = { levels: [], sections: [] };
    const sound = { duration: 60 } as never;
    for (const [part, kept] of [
      ['sound', { method: 'sound' as const, sound }],
      ['beats', value],
      ['sections', { method: 'sections' as const, form }],
    ] as const)
      await store.measures.put({ key: songPartKey(part, 'm'), project, subject: 'm', value: kept } as never);
  };

  it.each([
    ['half a beat later', regularGrid(120, 0.75, 60)],
    ['twice as fast', regularGrid(240, 0.5, 60)],
    ['three for two', regularGrid(180, 0.5, 60)],
  ])(
    '%s is one step that leaves every moment where it is, and undo brings the first back',
    async (_, other) => {
      await heard(track(other));
      const moment = await createMoment(store, project, 7, 12);
      const secondsOf = async () => {
        const { moments } = await read();
        const grid = await gridOf();
        return [moments[0].start, moments[0].lands, moments[0].end].map((at) => timeOfBeat(grid, at));
      };
      const before = await secondsOf();
      await putOtherBeats(store, project);
      expect((await gridOf()).beats).toEqual(other.beats);
      (await secondsOf()).forEach((time, index) => expect(time).toBeCloseTo(before[index], 6));
      expect((await read()).song?.confidence).toBeNull();
      await undo(store, project);
      expect((await gridOf()).beats).toEqual(regularGrid(120, 0.5, 60).beats);
      expect((await read()).moments[0].id).toBe(moment);
      (await secondsOf()).forEach((time, index) => expect(time).toBeCloseTo(before[index], 6));
    },
  );

  it('is refused in a sentence where there is none', async () => {
    await heard();
    await expect(putOtherBeats(store, project)).rejects.toMatchObject({ code: 'no-beats' });
  });
});

describe('what is pinned to beats', () => {
  it('moves along when the grid is corrected, words and sections too', async () => {
    await addSection(store, project, 8);
    await layCues(store, project, [{ start: 4.5, end: 5.5, text: 'Turn it left' }]);
    await lockPassage(store, project, 8, 16);
    const before = await read();
    const times = (snapshot: Snapshot) =>
      [
        snapshot.sections[0].at,
        snapshot.cues[0].at,
        snapshot.cues[0].until,
        snapshot.song?.locked?.[0].from ?? NaN,
      ].map((at) => timeOfBeat(snapshot.song?.grid as BeatGrid, at));
    await doubleTempo(store, project);
    const after = await read();
    times(after).forEach((time, index) => expect(time).toBeCloseTo(times(before)[index], 9));
    await shiftBeats(store, project, 0.02);
    times(await read()).forEach((time, index) => expect(time).toBeCloseTo(times(before)[index] + 0.02, 9));
  });

  it('stays where it is in time when a song takes the place of a ruler, until it is asked to snap', async () => {
    await laySeconds(store, project);
    const moment = await createMoment(store, project, 7, 12);
    const old = await gridOf();
    const at = timeOfBeat(old, 7);
    const found = regularGrid(97, 0.31, 60);
    await addSong(null);
    await layFirstBeats(store, project, (await read()).song?.id ?? '', track(found));
    const start = async () => (await read()).moments.find(({ id }) => id === moment)?.start as number;
    expect(timeOfBeat(await gridOf(), await start())).toBeCloseTo(at, 9);
    expect(Number.isInteger(await start())).toBe(false);
    await snapMoments(store, project);
    expect(Number.isInteger(await start())).toBe(true);
    await undo(store, project);
    expect(timeOfBeat(await gridOf(), await start())).toBeCloseTo(at, 9);
  });

  it('keeps its time when beats come from a file', async () => {
    const moment = await createMoment(store, project, 8, 16);
    await layReadBeats(store, project, { grid: regularGrid(60, 0.5, 60) });
    const { start } = (await read()).moments.find(({ id }) => id === moment) as { start: number };
    expect(timeOfBeat(await gridOf(), start)).toBeCloseTo(4.5, 9);
  });

  it('is copied to where it ends', async () => {
    const first = await createMoment(store, project, 8, 16);
    const second = await copyMoment(store, project, first);
    expect((await read()).moments.find(({ id }) => id === second)).toMatchObject({
      start: 16,
      lands: 20,
      end: 24,
    });
    await expect(copyMoment(store, project, 'none')).rejects.toMatchObject({ code: 'gone' });
  });
});

describe('correcting from the needle', () => {
  it('moves the nearest beat, and sets tempo and metre from a bar on', async () => {
    await beatAtNeedle(store, project, 2.53);
    expect((await gridOf()).beats).toContain(2.53);
    await setTempoAt(store, project, 16, 100);
    const grid = await gridOf();
    expect(timeOfBeat(grid, 18) - timeOfBeat(grid, 17)).toBeCloseTo(0.6, 9);
    await setMeterAt(store, project, 8, 3);
    expect(beatLabel(await gridOf(), 11)).toBe('bar 4, beat 1');
  });

  it('lays taps over the song', async () => {
    const taps = Array.from({ length: 9 }, (_, tap) => 10.06 + tap * 0.6);
    await tapBeats(store, project, taps, 0.06);
    const { beats } = await gridOf();
    for (const tap of taps)
      expect(Math.min(...beats.map((beat) => Math.abs(beat - tap + 0.06)))).toBeLessThan(1e-6);
    await expect((async () => tapBeats(store, project, [1, 2], 0))()).rejects.toMatchObject({
      code: 'taps',
    });
  });

  it('counts the events of a take', async () => {
    await laySeconds(store, project);
    await layEvents(store, project, [3.2, 0.7, 1.9]);
    expect((await gridOf()).beats).toEqual([0.7, 1.9, 3.2]);
  });
});

describe('locked passages', () => {
  it('join where they touch, and go to the search in seconds', async () => {
    await lockPassage(store, project, 8, 12);
    await lockPassage(store, project, 10, 16);
    expect((await read()).song?.locked).toEqual([{ from: 10, to: 16 }]);
    const [passage] = lockedPassages(await read());
    expect(passage.beats).toEqual([10, 11, 12, 13, 14, 15, 16].map((beat) => 0.5 + beat / 2));
    expect(passage.downbeats).toEqual([6.5, 8.5]);
    await unlockAll(store, project);
    expect(lockedPassages(await read())).toEqual([]);
    await expect((async () => findRestAgain(store, project))()).rejects.toMatchObject({
      code: 'no-lock',
    });
  });

  it('ask for work that a reload does not lose', async () => {
    await lockPassage(store, project, 8, 16);
    await findRestAgain(store, project);
    const snapshot = await read();
    const media = new Map([['m', { id: 'm', name: 'song.wav' }]]) as unknown as Snapshot['media'];
    const known = songParts.map((part) => [songPartKey(part, 'm'), {}] as const);
    const measures = new Map(known) as unknown as Snapshot['measures'];
    expect(needsOf({ ...snapshot, media, measures }).map(({ kind }) => kind)).toEqual(['again']);
  });
});

describe('sections', () => {
  it('begin once, are named, moved and removed', async () => {
    await addSection(store, project, 0);
    await expect((async () => addSection(store, project, 0))()).rejects.toMatchObject({
      code: 'section',
    });
    const [{ id }] = (await read()).sections;
    await setSection(store, project, id, { name: 'Verse', at: 4 });
    expect((await read()).sections[0]).toMatchObject({ name: 'Verse', at: 4 });
    await removeSection(store, project, id);
    expect((await read()).sections).toEqual([]);
  });
});
